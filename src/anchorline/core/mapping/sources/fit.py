"""Fit to lines: components packed into several fields of so many characters, or into one of lines.

A field that takes several lines gets the country's own, as long as there is room for them.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from ...abbreviations import short_form
from ...address import COMPONENTS
from ...faults import Faults
from ...layouts import line_pieces
from ...text import has_spaceless_script
from ..known import KnownAddress
from ..packing import Packed, Part, in_one, pack, pack_by_lines
from ..rules import Note, Put, Rule, Surroundings, changed
from .country_lines import MOST_LINES, untaken
from .kind import SOURCES, Entry, ReadRules, SourceKind, nothing

# Characters of a line where nothing says it.
_WIDEST = 1000
# Signs that make one word of what they stand between.
_CLOSE = "-/–"
_BOUND = frozenset({"number", "street"})
# What every country leaves out of its own mail, unless a rule asks for it by name.
_NOT_WRITTEN = frozenset({"country", "country_code", "nation"})


@dataclass(frozen=True, slots=True)
class Fit:
    """Components packed into lines.

    Attributes:
        width: the most characters of a line; None: what each field takes.
        lines: of a field that takes several, how many at the most.
        fewest: in such a field, as few lines as it takes, and not those of the country.
        components: those that are packed; empty for all that no other rule takes.
        overflow: the receiver of what finds no room; None: that is lost, and said.
        join: what stands between two of the country's lines that share one here.
    """

    width: int | None
    components: tuple[str, ...] = ()
    overflow: str | None = None
    join: str = ", "
    lines: int = MOST_LINES
    fewest: bool = False

    @property
    def takes(self) -> tuple[str, ...]:
        """The components that it names."""
        return self.components

    takes_rest = True

    def put(self, rule: Rule, known: KnownAddress, around: Surroundings) -> list[Put]:
        """One text for each line, and one for what found no room."""
        lines = [key for key in rule.into if key != self.overflow]
        parts, notes = self._parts(rule, known, around)
        if not parts:
            why = nothing("nothing to write: the address has nothing for these lines").notes
            return [Put(key, "", (), why) for key in rule.into]
        limits = [around.receivers[key].length for key in lines]
        width = min(limit for limit in (self.width, *limits, _WIDEST) if limit)
        languages = known.layout.languages

        def short(word: str) -> str:
            return short_form(word, languages)

        if not self.takes_lines(around, lines):
            packed = pack(parts, len(lines), width, short)
            return self._puts(lines, parts, packed, notes)
        packed = (pack if self.fewest else pack_by_lines)(parts, self.lines, width, short)
        return self._puts(lines, parts, in_one(packed), notes)

    def takes_lines(self, around: Surroundings, lines: list[str]) -> bool:
        """Whether all goes into one field of several lines."""
        return len(lines) == 1 and self.lines > 1 and around.receivers[lines[0]].several_lines

    def _parts(
        self, rule: Rule, known: KnownAddress, around: Surroundings
    ) -> tuple[list[Part], list[Note]]:
        """The parts in the country's own order, then what was named and mail leaves out."""
        there = (
            {name: known.components[name] for name in self.components if name in known.components}
            if self.components
            else untaken(known, around.taken)
        )
        found: list[Part] = []
        notes: list[Note] = []

        def add(components: tuple[str, ...], text: str, before: str, begins: bool) -> None:
            text, said = changed(text, rule.changes, known, None)
            notes.extend(note for note in said if note not in notes)
            if not text:
                return
            last = found[-1] if found else None
            is_close = before.strip(_CLOSE) == "" and (before or not has_spaceless_script(text))
            if last is not None and not begins and is_close:
                # 4-14 and 6/12 are one word: broken in two they would be something else.
                both = (*last.components, *components)
                found[-1] = replace(last, components=both, text=f"{last.text}{before}{text}")
                return
            if begins:
                spaceless = has_spaceless_script(text)
                before = " " if spaceless and self.join == ", " else self.join
            is_bound = not begins and last is not None and _are_bound(last.components, components)
            found.append(Part(components, text, before if found else "", begins, is_bound))

        for line in line_pieces(known.layout, there):
            for place, piece in enumerate(line):
                add(piece.components, piece.text, piece.before, begins=place == 0)
        written = {name for part in found for name in part.components}
        halves = {"region", "region_code"}
        if written & halves:
            written |= halves
        for name, text in there.items():
            if name not in written and self._wants(name, known):
                add((name,), text, self.join, begins=True)
        return found, notes

    def _wants(self, name: str, known: KnownAddress) -> bool:
        """Whether a component belongs into the lines that the country's mail leaves out."""
        if self.components:
            return True
        return name not in _NOT_WRITTEN and known.layout.component(name) is not None

    def _puts(
        self, lines: list[str], parts: list[Part], packed: Packed, notes: list[Note]
    ) -> list[Put]:
        notes += [Note("shortened", f"abbreviated {a} to {b}") for a, b in packed.abbreviated]
        notes += [
            Note("shortened", f"{word!r} is longer than a line and goes on in the next one", True)
            for word in packed.cut
        ]
        left = ", ".join(text for _, text in packed.lost)
        for at, text in () if self.overflow else packed.lost:
            of = parts[at].components
            names = " and ".join(name.replace("_", " ") for name in of)
            notes.append(Note("lost", f"no room for {text!r} ({names})", True, of))
        puts = []
        for number, key in enumerate(lines):
            text = packed.lines[number] if number < len(packed.lines) else ""
            said = notes if number == 0 else []
            if not text:
                said = [*said, Note("nothing", "nothing to write: the lines before hold it all")]
            here = packed.places[number] if text else ()
            sources = dict.fromkeys(name for at in here for name in parts[at].components)
            puts.append(Put(key, text, tuple(sources), tuple(said)))
        if self.overflow is not None:
            more = tuple(name for at, _ in packed.lost for name in parts[at].components)
            why = () if left else nothing("nothing to write: the lines hold it all").notes
            puts.append(Put(self.overflow, left, more, why))
        return puts


def _are_bound(one: tuple[str, ...], other: tuple[str, ...]) -> bool:
    """Whether two parts are the number and the street."""
    return bool(_BOUND & set(one)) and bool(_BOUND & set(other))


def _fills(entry: Entry) -> tuple[str, ...]:
    fit = entry["fit"]
    overflow = fit.get("overflow")
    return (*fit["into"], *((overflow,) if overflow else ()))


def _read(entry: Entry, pointer: str, faults: Faults, _rules: ReadRules) -> Fit:
    fit = entry["fit"]
    components = tuple(fit.get("components") or ())
    for index, name in enumerate(components):
        faults.one_of("component", name, COMPONENTS, f"{pointer}/fit/components/{index}")
    if len(set(_fills(entry))) < len(_fills(entry)):
        faults.say(f"{pointer}/fit/into", "Name each field once.")
    join = fit.get("join")
    return Fit(
        width=fit.get("width"),
        components=components,
        overflow=fit.get("overflow") or None,
        join=", " if join is None else join,
        lines=fit.get("lines") or MOST_LINES,
        fewest=bool(fit.get("fewest")),
    )


SOURCES["fit"] = SourceKind("fit to lines", _read, _fills)
