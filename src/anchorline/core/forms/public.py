"""How a web form is open to everybody, and guarded against programs that fill it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from ..faults import Faults

LEAST_SECONDS = 2
MOST_PER_MINUTE = 30


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
    """

    closed: bool = False
    closed_text: str = ""
    sites: tuple[str, ...] = ()
    without_trap: bool = False
    least_seconds: int = LEAST_SECONDS
    most_per_minute: int = MOST_PER_MINUTE


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
        sites=tuple(entry.get("sites") or ()),
        without_trap=bool(entry.get("without_trap")),
        least_seconds=_number(entry.get("least_seconds"), LEAST_SECONDS),
        most_per_minute=_number(entry.get("most_per_minute"), MOST_PER_MINUTE),
    )


def _number(given: int | None, usual: int) -> int:
    return usual if given is None else given
