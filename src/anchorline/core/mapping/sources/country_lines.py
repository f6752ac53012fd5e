"""The lines of an address as its country writes them: all, one, or the one with the street."""

from __future__ import annotations

from dataclasses import dataclass

from ...faults import Faults
from ...layouts import Piece, line_pieces
from ..known import KnownAddress
from ..rules import Put, Rule, Surroundings
from .kind import SOURCES, Entry, ReadRules, SourceKind, named_into, nothing, put_text

MOST_LINES = 12
# Where one of these is taken by another rule, the other is, too.
_HALVES = frozenset({"region", "region_code"})


@dataclass(frozen=True, slots=True)
class CountryLines:
    """Lines of an address.

    Attributes:
        which: `all`, `street` (the line that holds it, without what other rules take), or the
            number of one, counted from 1.
        join: what stands between lines; None: a line break where the receiver takes several
            lines, else a comma.
    """

    which: str | int
    join: str | None = None

    @property
    def takes(self) -> tuple[str, ...]:
        """What is certainly in it: number and street in the line of the street."""
        return ("number", "street", "po_box") if self.which == "street" else ()

    def text(self, known: KnownAddress, around: Surroundings, join: str = "\n") -> Put:
        """The lines; the numbered one may not be there."""
        if known.is_empty:
            return nothing("nothing to write: there is no address yet")
        lines = line_pieces(known.layout, self._wanted(known, around))
        if self.which == "street":
            streets = (line for line in lines if {"street", "po_box"} & _named(line))
            lines = list(streets) or [line for line in lines if "number" in _named(line)]
        elif self.which != "all":
            lines = lines[int(self.which) - 1 : int(self.which)]
        if not lines:
            return nothing("nothing to write: the address has no such line")
        text = join.join("".join(p.before + p.text for p in line) for line in lines)
        return Put("", text, tuple(name for line in lines for p in line for name in p.components))

    @property
    def takes_rest(self) -> bool:
        """Of the line with the street: whole lines are taken as they are."""
        return self.which == "street"

    def put(self, rule: Rule, known: KnownAddress, around: Surroundings) -> list[Put]:
        """See `rules.Source`."""
        (key,) = rule.into
        usual = "\n" if around.receivers[key].several_lines else ", "
        join = usual if self.join is None else self.join
        return put_text(self.text(known, around, join), rule, known, around)

    def _wanted(self, known: KnownAddress, around: Surroundings) -> dict[str, str]:
        return known.components if self.which != "street" else untaken(known, around.taken)


def _named(line: list[Piece]) -> set[str]:
    return {name for piece in line for name in piece.components}


def untaken(known: KnownAddress, taken: frozenset[str]) -> dict[str, str]:
    """The components of an address that no other rule takes."""
    away = taken | _HALVES if taken & _HALVES else taken
    return {name: text for name, text in known.components.items() if name not in away}


def _read(entry: Entry, pointer: str, faults: Faults, _rules: ReadRules) -> CountryLines:
    which = entry["lines"]
    is_number = isinstance(which, int) and not isinstance(which, bool)
    if which not in ("all", "street") and not (is_number and 1 <= which <= MOST_LINES):
        detail = f"Say which: all, street, or a line from 1 to {MOST_LINES}."
        faults.say(f"{pointer}/lines", detail)
        which = "all"
    return CountryLines(which, entry.get("join"))


SOURCES["lines"] = SourceKind("lines of the country", _read, named_into)
