"""How a web form is open to everybody, and guarded against programs that fill it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..allowance import Allowance
from ..faults import Faults
from ..keys import OriginError, web_origin

LEAST_SECONDS = 2
MOST_PER_MINUTE = 30
# Of addresses that people fetch on a form's public page; enough for a busy page, too few to copy
# a country's reference data through it.
ADDRESSES_PER_MONTH = 10_000
ADDRESSES_PER_DAY = 1_000


@dataclass(frozen=True, slots=True)
class Public:
    """What an administrator says of a form's public page.

    Attributes:
        closed: whether nobody can fill it now.
        closed_text: what is said instead of it then.
        sites: origins of the pages that may show it in a frame.
        without_trap: whether there is no field that nobody sees and that must stay empty.
        least_seconds: between opening and sending; sooner it is not kept.
        most_per_minute: records that one network address may make.
        addresses_per_month, addresses_per_day: that its public page may fetch, whoever opens it.
    """

    closed: bool = False
    closed_text: str = ""
    sites: tuple[str, ...] = ()
    without_trap: bool = False
    least_seconds: int = LEAST_SECONDS
    most_per_minute: int = MOST_PER_MINUTE
    addresses_per_month: int = ADDRESSES_PER_MONTH
    addresses_per_day: int = ADDRESSES_PER_DAY

    @property
    def allowance(self) -> Allowance:
        """What its public page may fetch."""
        return Allowance(self.addresses_per_month, day_limit=self.addresses_per_day)


def read_public(document: Mapping[str, Any], faults: Faults) -> Public:
    """What a form document says of its public page."""
    entry = document.get("public")
    if not entry:
        return Public()
    if document["kind"] != "web":
        faults.say("/public", "Leave it out: only a web form has a page for everybody.")
    return Public(
        closed=bool(entry.get("closed")),
        closed_text=entry.get("closed_text") or "",
        sites=tuple(_sites(entry.get("sites") or (), faults)),
        without_trap=bool(entry.get("without_trap")),
        least_seconds=_number(entry.get("least_seconds"), LEAST_SECONDS),
        most_per_minute=_number(entry.get("most_per_minute"), MOST_PER_MINUTE),
        addresses_per_month=_number(entry.get("addresses_per_month"), ADDRESSES_PER_MONTH),
        addresses_per_day=_number(entry.get("addresses_per_day"), ADDRESSES_PER_DAY),
    )


def _sites(given: Sequence[str], faults: Faults) -> Iterator[str]:
    """Web origins; what is none, such as a pattern for all of them, is said and left out."""
    for at, site in enumerate(given):
        try:
            yield web_origin(site)
        except OriginError as error:
            faults.say(f"/public/sites/{at}", str(error))


def _number(given: int | None, usual: int) -> int:
    return usual if given is None else given
