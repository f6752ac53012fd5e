"""Comparing two editions: addresses added, gone, changed and moved.

Addresses are matched by their row ids (through 64-bit hashes; see `repeats` for the chance of an
error) and compared column by column, so a million of them take seconds.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, field
from typing import Any

import numpy as np
import numpy.typing as npt

from ..gazetteer.address_columns import country_column, text_column
from ..gazetteer.arrays import DEGREE_UNITS, NO_DEGREES
from ..gazetteer.edition import Edition
from ..gazetteer.nearest import distances_m
from ..gazetteer.rows import COMPONENT_COLUMNS
from ..layouts import LayoutLibrary, one_line

MOVED_M = 50.0
SAMPLES_KEPT = 20
# Stands among the components for what an address is called in other languages.
ALTERNATE_NAMES = "alternate names"
TOWNS_KEPT = 200
Flags = npt.NDArray[np.bool_]
Places = npt.NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class Sample:
    """One address that differs.

    Attributes:
        before, after: in one line; empty where it is not in that edition.
        components: those that changed.
        moved_m: how far, in metres; None where a position is missing.
    """

    id: str
    before: str
    after: str
    components: Sequence[str] = ()
    moved_m: float | None = None


@dataclass(frozen=True, slots=True)
class TownCounts:
    """What differs in one town."""

    country_code: str
    town: str
    added: int
    gone: int
    changed: int
    moved: int


@dataclass(slots=True)
class Comparison:
    """What an edition changes.

    Attributes:
        base: number of the edition that it is held against.
        before, after: how many addresses they have.
        changed: addresses of which a component, or alternate names, differs; by component in
            `components`.
        moved: addresses that lie more than `moved_m` metres from where they were.
        towns: the TOWNS_KEPT with most differences; `towns_more` counts the others.
        samples: by `added`, `gone`, `changed`, `moved`.
    """

    base: int
    before: int
    after: int
    moved_m: float
    added: int = 0
    gone: int = 0
    changed: int = 0
    moved: int = 0
    components: dict[str, int] = field(default_factory=dict)
    towns: list[TownCounts] = field(default_factory=list)
    towns_more: int = 0
    samples: dict[str, list[Sample]] = field(default_factory=dict)

    def to_document(self) -> dict[str, Any]:
        """As plain values, for JSON."""
        return asdict(self)

    @classmethod
    def from_document(cls, document: Mapping[str, Any]) -> Comparison:
        """From what `to_document` made."""
        given = dict(document)
        given["towns"] = [TownCounts(**town) for town in given["towns"]]
        given["samples"] = {
            kind: [Sample(**sample) for sample in samples]
            for kind, samples in given["samples"].items()
        }
        return cls(**given)


def compare_editions(
    old: Edition, new: Edition, layouts: LayoutLibrary, *, moved_m: float = MOVED_M
) -> Comparison:
    """What the new edition changes against the old one.

    Args:
        moved_m: metres from which an address counts as moved.
    """
    return _Differ(old, new, layouts, moved_m).comparison()


class _Differ:
    """The parts of a comparison, in columns."""

    def __init__(self, old: Edition, new: Edition, layouts: LayoutLibrary, moved_m: float) -> None:
        self.old, self.new, self._layouts, self._moved_m = old, new, layouts, moved_m
        old_hashes, new_hashes = _id_hashes(old), _id_hashes(new)
        _, before, after = np.intersect1d(
            old_hashes, new_hashes, assume_unique=True, return_indices=True
        )
        self.before: Places = before
        self.after: Places = after
        self.gone = _others(before, old.address_count)
        self.added = _others(after, new.address_count)

    def comparison(self) -> Comparison:
        by_component = self._changes()
        changed = np.logical_or.reduce(list(by_component.values()))
        metres = self._metres()
        moved = np.nan_to_num(metres) > self._moved_m
        result = Comparison(
            base=self.old.number,
            before=self.old.address_count,
            after=self.new.address_count,
            moved_m=self._moved_m,
            added=len(self.added),
            gone=len(self.gone),
            changed=int(changed.sum()),
            moved=int(moved.sum()),
            components={name: int(f.sum()) for name, f in by_component.items() if f.any()},
        )
        counts = {
            "added": (self.new, self.added),
            "gone": (self.old, self.gone),
            "changed": (self.new, self.after[changed]),
            "moved": (self.new, self.after[moved]),
        }
        result.towns, result.towns_more = _by_town(counts)
        kept = {"changed": np.flatnonzero(changed), "moved": np.flatnonzero(moved)}
        result.samples = {
            "added": [
                Sample(self.new.address_id(i), "", self._line(self.new, i))
                for i in _spread(self.added)
            ],
            "gone": [
                Sample(self.old.address_id(i), self._line(self.old, i), "")
                for i in _spread(self.gone)
            ],
            **{
                kind: [self._pair(i, by_component, metres) for i in _spread(places)]
                for kind, places in kept.items()
            },
        }
        return result

    def _changes(self) -> dict[str, Flags]:
        """For each component, which of the matched addresses differ in it."""
        known = {
            text: number for number, text in enumerate(map(self.old.texts.raw, _all(self.old)))
        }
        # The old number of each of the new texts; the new ones get numbers that nothing has.
        numbers = np.fromiter(
            (known.get(self.new.texts.raw(i), -1) for i in _all(self.new)), dtype=np.int64
        )
        found = {}
        for name in (*COMPONENT_COLUMNS, "language"):
            before = text_column(self.old, name)[self.before]
            after = numbers[text_column(self.new, name)[self.after]]
            found[name] = before != after
        before = np.array(self.old.countries)[country_column(self.old)[self.before]]
        after = np.array(self.new.countries)[country_column(self.new)[self.after]]
        found["country_code"] = before != after
        if self.old.alternate_names or self.new.alternate_names:
            spelt_before, spelt_after = (
                _alternate_name_hashes(self.old),
                _alternate_name_hashes(self.new),
            )
            found[ALTERNATE_NAMES] = spelt_before[self.before] != spelt_after[self.after]
        return found

    def _metres(self) -> npt.NDArray[np.float64]:
        """How far each of the matched addresses moved; not a number where that is not known."""
        old, new = self.old, self.new
        units = (
            old.latitudes[self.before], old.longitudes[self.before],
            new.latitudes[self.after], new.longitudes[self.after],
        )  # fmt: skip
        degrees = [np.where(u == NO_DEGREES, np.nan, u / DEGREE_UNITS) for u in units]
        return distances_m(*degrees)

    def _line(self, edition: Edition, index: int) -> str:
        address = edition.address(index)
        return one_line(self._layouts.require(address.country_code), address.components)

    def _pair(
        self, place: int, by_component: Mapping[str, Flags], metres: npt.NDArray[np.float64]
    ) -> Sample:
        before, after = int(self.before[place]), int(self.after[place])
        return Sample(
            id=self.new.address_id(after),
            before=self._line(self.old, before),
            after=self._line(self.new, after),
            components=[name for name, flags in by_component.items() if flags[place]],
            moved_m=None if np.isnan(metres[place]) else round(float(metres[place]), 1),
        )


def _all(edition: Edition) -> range:
    return range(len(edition.texts))


def _id_hashes(edition: Edition) -> Places:
    count = edition.address_count
    return np.fromiter(map(hash, map(edition.ids.raw, range(count))), dtype=np.int64, count=count)


def _alternate_name_hashes(edition: Edition) -> Places:
    """For each address a number that tells its alternate names apart; 0 where it has none."""
    found = np.zeros(edition.address_count, dtype=np.int64)
    alternate_names = edition.alternate_names
    streets = {int(node): alternate_names.of_node(int(node)) for node in edition.street_nodes}
    for street, by_language in streets.items():
        if by_language:
            found[edition.node_addresses(street)] = _hash_of(by_language)
    for index in {*edition.arrays["alternate_addresses"].tolist()}:
        found[index] ^= _hash_of(alternate_names.of_address(index))
    return found


def _hash_of(by_language: Mapping[str, Mapping[str, str]]) -> int:
    return hash(tuple((name, *sorted(texts.items())) for name, texts in by_language.items()))


def _others(places: Places, count: int) -> Places:
    left = np.ones(count, dtype=bool)
    left[places] = False
    return np.flatnonzero(left)


def _spread(places: Places) -> list[int]:
    """Some of them, from all over."""
    if len(places) <= SAMPLES_KEPT:
        return [int(place) for place in places]
    return [int(places[i * len(places) // SAMPLES_KEPT]) for i in range(SAMPLES_KEPT)]


def _by_town(counts: Mapping[str, tuple[Edition, Places]]) -> tuple[list[TownCounts], int]:
    """Differences by town, most first, and how many towns there are beyond those kept.

    Args:
        counts: addresses by kind, in the order of the fields of TownCounts.
    """
    kinds = tuple(counts)
    towns: dict[tuple[str, str], list[int]] = {}
    for kind, (edition, places) in counts.items():
        pairs = np.stack(
            [country_column(edition)[places], text_column(edition, "town")[places]], axis=1
        )
        distinct, numbers = np.unique(pairs, axis=0, return_counts=True)
        for (country, town), number in zip(distinct.tolist(), numbers.tolist(), strict=True):
            key = (edition.countries[country], edition.texts[town])
            towns.setdefault(key, [0] * len(kinds))[kinds.index(kind)] += number
    order = sorted(towns, key=lambda key: (-sum(towns[key]), key))
    kept = [
        TownCounts(country, town, *towns[country, town]) for country, town in order[:TOWNS_KEPT]
    ]
    return kept, max(0, len(order) - TOWNS_KEPT)
