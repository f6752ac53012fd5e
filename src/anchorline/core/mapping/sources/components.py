"""Components, joined; what is empty falls away together with its joint."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from ...address import COMPONENTS
from ...faults import Faults
from ..changes import Change, read_change
from ..known import KnownAddress
from ..rules import Note, Put, Rule, Surroundings, changed
from .kind import SOURCES, Entry, ReadRules, SourceKind, named_into, nothing, put_text

DEEPEST = 3


@dataclass(frozen=True, slots=True)
class Joined:
    """Components and groups of them, joined.

    Attributes:
        of: names of components, and groups, in order.
        join: what stands between two of them that are both there.
        changes: made to the joined text.
    """

    of: tuple[str | Joined, ...]
    join: str = " "
    changes: tuple[Change, ...] = ()

    def names(self) -> Iterator[str]:
        """Every component in it, in order."""
        for part in self.of:
            if isinstance(part, Joined):
                yield from part.names()
            else:
                yield part

    def text(self, known: KnownAddress) -> tuple[str, list[Note]]:
        """The text, and what its changes have to say."""
        found: list[str] = []
        notes: list[Note] = []
        for part in self.of:
            if isinstance(part, Joined):
                text, said = part.text(known)
                notes += said
            else:
                text = known.components.get(part, "")
            if text:
                found.append(text)
        text, said = changed(self.join.join(found), self.changes, known, None)
        return text, [*notes, *said]


@dataclass(frozen=True, slots=True)
class Components:
    """The components of a rule."""

    joined: Joined
    takes: tuple[str, ...] = field(init=False)

    def __post_init__(self) -> None:
        """Lays out the components, each once."""
        object.__setattr__(self, "takes", tuple(dict.fromkeys(self.joined.names())))

    def text(self, known: KnownAddress, _around: Surroundings) -> Put:
        """What the address has of them."""
        text, notes = self.joined.text(known)
        if not text:
            return nothing("nothing to write: the address has none of these components")
        there = tuple(name for name in self.takes if known.components.get(name))
        return Put("", text, there, tuple(notes))

    takes_rest = False

    def put(self, rule: Rule, known: KnownAddress, around: Surroundings) -> list[Put]:
        """See `rules.Source`."""
        return put_text(self.text(known, around), rule, known, around)


def _joined(entry: Entry, pointer: str, faults: Faults, depth: int = 1) -> Joined:
    of: list[str | Joined] = []
    for index, part in enumerate(entry.get("components") or ()):
        place = f"{pointer}/components/{index}"
        if isinstance(part, str):
            faults.one_of("component", part, COMPONENTS, place)
            of.append(part)
        elif depth == DEEPEST:
            faults.say(place, f"Groups stand at most {DEEPEST} deep: take this one apart.")
        elif not part.get("components"):
            faults.say(place, "Put components into this group, or take it out.")
        else:
            of.append(_joined(part, place, faults, depth + 1))
    join = entry.get("join")
    changes: tuple[Change, ...] = ()
    if depth > 1:
        read = (
            read_change(change, f"{pointer}/changes/{index}", faults)
            for index, change in enumerate(entry.get("changes") or ())
        )
        changes = tuple(change for change in read if change is not None)
    return Joined(tuple(of), " " if join is None else join, changes)


def _read(entry: Entry, pointer: str, faults: Faults, _rules: ReadRules) -> Components:
    return Components(_joined(entry, pointer, faults))


SOURCES["components"] = SourceKind("components", _read, named_into)
