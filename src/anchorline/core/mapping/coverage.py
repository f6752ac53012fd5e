"""Coverage: what a mapping makes of many addresses, field by field and country by country."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field

from .fill import Fill, fill
from .known import KnownAddress
from .rules import FindRecord, Receivers, Rule

# What becomes of a field, the worst first: what a field refuses is wrong, however it came there.
STATES: dict[str, str] = {
    "wrong": "the field does not take what is written",
    "lost": "something found no room, or was left out",
    "shortened": "words are abbreviated, nothing is lost",
    "filled": "the text stands there as it is",
    "empty": "the address has nothing for it",
}
_MOST_EXAMPLES = 5
_LINKED = frozenset({"linked", "made", "looked_up_later"})


@dataclass(frozen=True, slots=True)
class Sampled:
    """An address of a sample.

    Attributes:
        reference: by which it is found again: an address id, a record, a line of a file.
        label: what people read.
    """

    reference: str
    label: str
    known: KnownAddress


@dataclass(frozen=True, slots=True)
class Bad:
    """An address that a field does not hold as it should.

    Attributes:
        state: `wrong`, `lost` or `shortened`.
        detail: what is said of it.
        text: what stands in the field.
    """

    field: str
    country_code: str
    state: str
    reference: str
    label: str
    detail: str
    text: str


@dataclass
class Coverage:
    """What became of a sample.

    Attributes:
        addresses: by country.
        cells: by field and country, how many addresses left it in each of STATES.
        untaken: by component and country, how many addresses have it and no rule takes it.
        bad: some addresses for each field, country and state, the longest texts first.
    """

    addresses: Counter[str] = field(default_factory=Counter)
    cells: dict[tuple[str, str], Counter[str]] = field(default_factory=dict)
    untaken: dict[str, Counter[str]] = field(default_factory=dict)
    bad: dict[tuple[str, str, str], list[Bad]] = field(default_factory=dict)

    def total(self, state: str) -> int:
        """How many fields of addresses are in a state."""
        return sum(cell[state] for cell in self.cells.values())

    def add(self, one: Sampled, made: Fill, receivers: Receivers) -> None:
        """Counts an address."""
        country = one.known.layout.country_code
        self.addresses[country] += 1
        for key, text in made.values.items():
            state, detail = _state(made, receivers, key, text)
            cell = self.cells.get((key, country))
            if cell is None:
                cell = self.cells[key, country] = Counter()
            cell[state] += 1
            if state in ("wrong", "lost", "shortened"):
                self._note(Bad(key, country, state, one.reference, one.label, detail, text))
        for step in made.trace:
            if step.kind == "not_taken":
                for name in step.sources:
                    self.untaken.setdefault(name, Counter())[country] += 1

    def _note(self, bad: Bad) -> None:
        kept = self.bad.setdefault((bad.field, bad.country_code, bad.state), [])
        kept.append(bad)
        if len(kept) > _MOST_EXAMPLES:
            kept.sort(key=lambda one: (-len(one.detail), one.reference))
            kept.pop()


def _state(made: Fill, receivers: Receivers, key: str, text: str) -> tuple[str, str]:
    """What became of a field, and what is said of it."""
    refused = receivers[key].refuses(text) if text else ""
    if refused:
        return "wrong", refused
    for one in made.warnings:
        is_here = one.field == key or (not one.field and key in one.fields)
        if is_here and one.kind in ("lost", "shortened", "too_long", "not_linked"):
            return "lost", one.detail
    for step in made.trace:
        if step.field == key and step.kind == "shortened":
            return "shortened", step.detail
    is_linked = any(step.field == key and step.kind in _LINKED for step in made.trace)
    return ("filled", "") if text or is_linked else ("empty", "")


def cover(
    mapping: Sequence[Rule],
    receivers: Receivers,
    sample: Iterable[Sampled],
    find: FindRecord | None = None,
) -> Iterator[Coverage]:
    """Runs a mapping over a sample; the same coverage after each address, for progress."""
    coverage = Coverage()
    for one in sample:
        coverage.add(one, fill(mapping, receivers, one.known, find=find), receivers)
        yield coverage
