"""What is known of an address beside its components."""

from __future__ import annotations

from dataclasses import dataclass

from ...faults import Faults
from ..known import FACTS, KnownAddress
from ..rules import Put, Rule, Surroundings
from .kind import SOURCES, Entry, ReadRules, SourceKind, named_into, nothing, put_text


@dataclass(frozen=True, slots=True)
class AddressFacts:
    """Facts, joined.

    Attributes:
        takes: names of FACTS, in order.
        join: what stands between two that are both known.
    """

    takes: tuple[str, ...]
    join: str = " "

    def text(self, known: KnownAddress, _around: Surroundings) -> Put:
        """What is known of them."""
        found = {name: text for name in self.takes if (text := known.fact(name))}
        if not found:
            return nothing("nothing to write: the address has none of these facts")
        return Put("", self.join.join(found.values()), tuple(found))

    takes_rest = False

    def put(self, rule: Rule, known: KnownAddress, around: Surroundings) -> list[Put]:
        """See `rules.Source`."""
        return put_text(self.text(known, around), rule, known, around)


def _read(entry: Entry, pointer: str, faults: Faults, _rules: ReadRules) -> AddressFacts:
    names = tuple(entry["facts"])
    for index, name in enumerate(names):
        faults.one_of("fact", name, FACTS, f"{pointer}/facts/{index}")
    join = entry.get("join")
    return AddressFacts(names, " " if join is None else join)


SOURCES["facts"] = SourceKind("facts", _read, named_into)
