"""The gazetteer: the active editions of all datasets, answering as one."""

from __future__ import annotations

import heapq
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..address import Address, Components
from ..layouts import Layout, LayoutLibrary, one_line
from .alternate_names import split_language
from .arrays import DEGREE_UNITS
from .edition import Edition
from .groups import find_group, known_components
from .labels import LabelWriter
from .middle import middle_of_group
from .nearest import nearest_addresses
from .postcodes import PostcodeAddresses, PostcodesBegun, look_up_postcode
from .searching.opening import inside, open_addresses, open_streets, opens_into_streets
from .searching.restrictions import both, wanted_nodes
from .searching.search import EditionSearch
from .searching.suggestions import SuggestionBuilder
from .suggestion import SearchAnswer, SearchRequest, Suggestion

# Degrees between the corners to which places are brought where they are only drawn: some 22 m.
_GRID = 0.0002


@dataclass(frozen=True, slots=True)
class Near:
    """An address with its distance in metres; where it is, whoever fetches it is told."""

    id: str
    label: str
    distance_m: float
    country_code: str


@dataclass(frozen=True, slots=True)
class Located:
    """Where something is, in degrees (WGS 84).

    Attributes:
        label: of what was found.
        count: 1 for an address, else how many addresses it is the middle of.
        address_id: of the one address that it is; None for the middle of several.
    """

    label: str
    latitude: float
    longitude: float
    count: int
    address_id: str | None = None


class Gazetteer:
    """All addresses of the editions given."""

    def __init__(self, editions: Iterable[Edition], layouts: LayoutLibrary) -> None:
        self._editions = {edition.dataset: edition for edition in editions}
        self._layouts = layouts
        self._labels = LabelWriter(layouts)
        self._stamp = ",".join(f"{e.dataset}@{e.number}" for e in self.editions)
        self._builders = {
            name: SuggestionBuilder(edition, self._labels, layouts)
            for name, edition in self._editions.items()
        }

    @property
    def editions(self) -> Sequence[Edition]:
        """The editions, by name of their dataset."""
        return [self._editions[name] for name in sorted(self._editions)]

    @property
    def stamp(self) -> str:
        """Which editions answer: `demo@3`, several parted by commas."""
        return self._stamp

    @property
    def datasets(self) -> Sequence[str]:
        """Names of the datasets that answer."""
        return sorted(self._editions)

    @property
    def countries(self) -> frozenset[str]:
        """The countries of which there is at least one address, ISO 3166-1 alpha-2."""
        return frozenset(code for edition in self.editions for code in edition.countries)

    @property
    def address_count(self) -> int:
        """How many addresses there are."""
        return sum(edition.address_count for edition in self.editions)

    def suggest(self, request: SearchRequest) -> list[Suggestion] | None:
        """The best rows, best first; None where `within` names a group that there is not."""
        answer = self.search(request)
        return None if answer is None else answer.rows

    def search(self, request: SearchRequest) -> SearchAnswer | None:
        """The best rows and how they were found; None where `within` names no group."""
        if request.within is not None:
            return self._search_within(request, request.within)
        return self._search(
            [
                EditionSearch(self._builder(edition), wide, wanted_nodes(edition, request))
                for edition in self.editions
                if not request.countries or set(request.countries) & set(edition.countries)
                if not request.datasets or edition.dataset in request.datasets
                for wide in (_widened(request) if len(self._editions) > 1 else request,)
            ],
            request,
        )

    def _search(self, searches: list[EditionSearch], request: SearchRequest) -> SearchAnswer:
        """What all editions find literally, or else by looser interpretations."""
        answers = [search.literal() for search in searches]
        if not any(answer.rows for answer in answers):
            answers = [search.loose() for search in searches]
        steps = [step for search in searches for step in search.steps]
        if len(answers) == 1:
            answers[0].steps = steps
            return answers[0]
        rows = sorted((r for answer in answers for r in answer.rows), key=lambda row: -row.score)
        first = rows[0].id if rows else ""
        leading = next((a for a in answers if a.rows and a.rows[0].id == first), SearchAnswer())
        shown = rows[request.skip : request.skip + request.limit]
        return SearchAnswer(shown, leading.corrected, leading.unmatched, steps)

    def _search_within(self, request: SearchRequest, group: str) -> SearchAnswer | None:
        plain, language = split_language(group)
        edition, local = self._split(plain)
        request = replace(request, language=request.language or language)
        found = find_group(edition, local) if edition is not None else None
        if edition is None or found is None:
            return None
        node, number = found
        builder = self._builder(edition)
        if number or not opens_into_streets(edition, node):
            rows = open_addresses(builder, node, number, request)
            return None if rows is None else SearchAnswer(rows)
        if not request.text.strip():
            return SearchAnswer(open_streets(builder, node, request))
        keep = both(wanted_nodes(edition, request), inside(edition, node))
        return self._search([EditionSearch(builder, request, keep)], request)

    def _builder(self, edition: Edition) -> SuggestionBuilder:
        return self._builders[edition.dataset]

    def address(self, address_id: str) -> tuple[Address, Edition] | None:
        """The address with an id, with its country's name, and the edition that has it.

        With a language behind its id (`alternate_names.LANGUAGE_MARK`), in that language; one
        in which it has no names any more changes nothing.
        """
        edition, local = self._split(address_id)
        if edition is None:
            return None
        index, language = edition.find_address(local), ""
        if index is None:
            local, language = split_language(local)
            index = edition.find_address(local)
        if index is None:
            return None
        return self._named(edition.address(index, language)), edition

    def group(self, group_id: str) -> Components | None:
        """What all addresses of a group share, with the country's name; None: no such group.

        With a language behind its id, in that language.
        """
        plain, language = split_language(group_id)
        edition, local = self._split(plain)
        found = find_group(edition, local) if edition is not None else None
        if edition is None or found is None:
            return None
        known = known_components(edition, *found, language)
        return {**known, "country": self._layouts.require(known["country_code"]).name}

    def locate(self, request: SearchRequest) -> Located | None:
        """Where the best that is found for a text is; None where nothing is, or no place is known.

        Of a postcode of which just the beginning was typed, the middle of those that begin so.
        """
        found = self.search(request)
        rows = found.rows if found is not None else []
        if not rows:
            return None
        if rows[0].kind == "postcode":
            rows = [row for row in rows if row.kind == "postcode"]
        else:
            rows = rows[:1]
        places = [place for row in rows if (place := self._place(row)) is not None]
        if not places:
            return None
        return Located(
            rows[0].label if len(rows) == 1 else request.text.strip(),
            sum(latitude for latitude, _ in places) / len(places),
            sum(longitude for _, longitude in places) / len(places),
            sum(row.count for row in rows),
            rows[0].id if len(rows) == 1 and rows[0].count == 1 else None,
        )

    def _place(self, row: Suggestion) -> tuple[float, float] | None:
        if row.count == 1:
            found = self.address(row.id)
            facts = found[0].facts if found is not None else None
            if facts is None or facts.latitude is None or facts.longitude is None:
                return None
            return facts.latitude, facts.longitude
        edition, local = self._split(split_language(row.id)[0])
        group = find_group(edition, local) if edition is not None else None
        return middle_of_group(edition, *group) if edition is not None and group else None

    def postcode(self, layout: Layout, typed: str) -> PostcodeAddresses | PostcodesBegun | None:
        """What a postcode, whole or partial, of the layout's country holds."""
        return look_up_postcode(self.editions, layout, typed, self._labels)

    def nearest(self, latitude: float, longitude: float, limit: int, radius_m: float) -> list[Near]:
        """The addresses nearest to a point (WGS 84 degrees), nearest first."""
        found = heapq.nsmallest(
            limit,
            (
                (metres, order, address)
                for order, edition in enumerate(self.editions)
                for metres, address in nearest_addresses(
                    edition, latitude, longitude, limit, radius_m
                )
            ),
        )
        editions = self.editions
        return [
            Near(
                editions[order].address_id(address),
                self._labels.address(editions[order], address),
                round(metres, 1),
                editions[order].address(address).country_code,
            )
            for metres, order, address in found
        ]

    def surroundings(
        self, latitude: float, longitude: float, limit: int, radius_m: float
    ) -> list[tuple[float, float]]:
        """Where there are addresses around a point: the corners of a grid that are nearest to some.

        Latitude and longitude in degrees, each once; which address is where they do not tell.
        """
        places: dict[tuple[float, float], None] = {}
        for edition in self.editions:
            for _, address in nearest_addresses(edition, latitude, longitude, limit, radius_m):
                there = edition.latitudes[address], edition.longitudes[address]
                north, east = (round(float(one) / DEGREE_UNITS / _GRID) * _GRID for one in there)
                places[round(north, 4), round(east, 4)] = None
        return list(places)

    def samples(self, country_code: str, limit: int) -> list[tuple[str, Address]]:
        """Some addresses of a country, from streets far apart, with their labels."""
        found: list[tuple[str, Address]] = []
        for edition in self.editions:
            if country_code not in edition.countries:
                continue
            code = edition.countries.index(country_code)
            streets = edition.street_nodes[edition.node_country[edition.street_nodes] == code]
            step = max(1, len(streets) // limit)
            for node in streets[::step].tolist():
                address = edition.address_range(node)[0]
                label = self._labels.address(edition, address)
                found.append((label, self._named(edition.address(address))))
        return found[:limit]

    def spread(self, country_code: str, limit: int) -> Iterator[Address]:
        """Addresses of a country, at most so many, in even steps through all that there are."""
        streets = [
            (edition, edition.street_nodes[edition.node_country[edition.street_nodes] == code])
            for edition in self.editions
            if country_code in edition.countries
            for code in [edition.countries.index(country_code)]
        ]
        counts = [
            (edition.node_end[nodes] - edition.arrays["node_first"][nodes]).astype(np.int64)
            for edition, nodes in streets
        ]
        total = sum(int(count.sum()) for count in counts)
        wanted = np.unique(np.linspace(0, total - 1, min(limit, total)).astype(np.int64))
        passed = 0
        for (edition, nodes), count in zip(streets, counts, strict=True):
            ends = passed + np.cumsum(count)
            end = int(ends[-1]) if len(ends) else passed
            here = wanted[(wanted >= passed) & (wanted < end)]
            for place, at in zip(np.searchsorted(ends, here, side="right"), here, strict=True):
                inside = int(at - (ends[place] - count[place]))
                node = int(nodes[place])
                yield self._named(edition.address(int(edition.address_range(node)[inside])))
            passed = end

    def label(self, address: Address) -> str:
        """An address in one line, as suggestions show it."""
        return one_line(self._layouts.require(address.country_code), address.components)

    def _named(self, address: Address) -> Address:
        country = self._layouts.require(address.country_code).name
        return replace(address, components={**address.components, "country": country})

    def _split(self, public_id: str) -> tuple[Edition | None, str]:
        dataset, _, local = public_id.partition(":")
        return self._editions.get(dataset), local


def _widened(request: SearchRequest) -> SearchRequest:
    """A request for all rows up to the end of its page: pages are cut when editions are merged."""
    return replace(request, limit=request.limit + request.skip, skip=0)
