"""What a check of a mapping is given and what it says; one check is one file in this package."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from ...counting import counted
from ...layouts import Layout
from ..fill import Fill
from ..known import KnownAddress
from ..rules import Receiver, Receivers, Rule

Severity = Literal["problem", "warning"]


@dataclass(frozen=True, slots=True)
class Finding:
    """Something that is wrong with a mapping, or that somebody should know before it is used.

    Attributes:
        check: the name of the check that found it.
        pointer: JSON pointer into the document.
        severity: a problem stands against publishing.
        detail: what is wrong and what to do.
        addresses: how many of those that were looked at it concerns; None where that is no matter
            of addresses.
        offers: what could stand at the pointer instead, the likeliest first.
    """

    check: str
    pointer: str
    severity: Severity
    detail: str
    addresses: int | None = None
    offers: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Run:
    """An address that was looked at, and what the mapping made of it."""

    known: KnownAddress
    made: Fill


@dataclass(frozen=True)
class Case:
    """A mapping that is checked.

    Attributes:
        pointer: to the slot in the document.
        slot: the slot's key.
        document: the slot's entry.
        rules: those that can be followed.
        receivers: all there are, also those of other slots.
        layouts: of the slot's countries.
        runs: addresses of these countries with what the rules make of them.
        made_up: whether these are made up, because there is no reference data.
        forms: of other forms by key: the keys of their fields.
    """

    pointer: str
    slot: str
    document: Mapping[str, Any]
    rules: Sequence[Rule]
    receivers: Receivers
    layouts: Sequence[Layout]
    runs: Sequence[Run] = ()
    made_up: bool = False
    forms: Mapping[str, Collection[str]] = field(default_factory=dict)

    @property
    def parts(self) -> list[tuple[int, Receiver]]:
        """The slot's own fields, with their places in the document."""
        entries = self.document.get("parts") or ()
        return [
            (at, self.receivers[entry["key"]])
            for at, entry in enumerate(entries)
            if entry["key"] in self.receivers
        ]

    def place(self, rule: Rule) -> str:
        """The pointer to a rule."""
        return f"{self.pointer}/mapping/{rule.at}"

    def count(self, touched: int) -> int | None:
        """So many real addresses; None where there are none."""
        return None if self.made_up else touched

    def named(self, key: str) -> str:
        """A receiver as people know it."""
        receiver = self.receivers.get(key)
        return f"“{receiver.label or key}”" if receiver else f"“{key}”"


def told(touched: int, case: Case) -> str:
    """So many of the addresses that were looked at."""
    if case.made_up:
        return "a made-up address (there is no reference data)"
    return f"{touched:,} of {counted(len(case.runs), 'address', 'addresses')} that were looked at"


Check = Callable[[Case], Iterable[Finding]]
CHECKS: dict[str, Check] = {}


def check(name: str) -> Callable[[Check], Check]:
    """Registers a check."""

    def register(found: Check) -> Check:
        CHECKS[name] = found
        return found

    return register
