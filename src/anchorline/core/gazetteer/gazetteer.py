"""The gazetteer: the active editions of all datasets, answering as one."""

from __future__ import annotations

import heapq
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from ..address import Address
from ..layouts import Layout, LayoutLibrary
from .edition import Edition
from .labels import address_label
from .nearest import nearest_addresses
from .opening import open_group
from .postcodes import PostcodeAddresses, PostcodesBegun, look_up_postcode
from .search import search_edition
from .suggestion import SearchRequest, Suggestion


@dataclass(frozen=True, slots=True)
class Near:
    """An address with its distance in metres."""

    id: str
    label: str
    distance_m: float


class Gazetteer:
    """All addresses of the editions given."""

    def __init__(self, editions: Iterable[Edition], layouts: LayoutLibrary) -> None:
        self._editions = {edition.dataset: edition for edition in editions}
        self._layouts = layouts

    @property
    def editions(self) -> Sequence[Edition]:
        """The editions, by name of their dataset."""
        return [self._editions[name] for name in sorted(self._editions)]

    @property
    def stamp(self) -> str:
        """Which editions answer: `demo@3`, several parted by commas."""
        return ",".join(f"{e.dataset}@{e.number}" for e in self.editions)

    @property
    def address_count(self) -> int:
        """How many addresses there are."""
        return sum(edition.address_count for edition in self.editions)

    def suggest(self, request: SearchRequest) -> list[Suggestion] | None:
        """The best rows, best first; None where `within` names a group that there is not."""
        if request.within is not None:
            edition, local = self._split(request.within)
            if edition is None:
                return None
            return open_group(edition, local, request, self._layouts)
        if len(self._editions) == 1:
            return search_edition(self.editions[0], request, self._layouts)
        wide = replace(request, limit=request.limit + request.skip, skip=0)
        found = [
            row
            for edition in self.editions
            if not request.countries or set(request.countries) & set(edition.countries)
            for row in search_edition(edition, wide, self._layouts)
        ]
        found.sort(key=lambda row: -row.score)
        return found[request.skip : request.skip + request.limit]

    def address(self, address_id: str) -> tuple[Address, Edition] | None:
        """The address with an id, with its country's name, and the edition that has it."""
        edition, local = self._split(address_id)
        index = edition.find_address(local) if edition is not None else None
        if edition is None or index is None:
            return None
        return self._named(edition.address(index)), edition

    def postcode(self, layout: Layout, typed: str) -> PostcodeAddresses | PostcodesBegun | None:
        """What a postcode, whole or partial, of the layout's country holds."""
        return look_up_postcode(self.editions, layout, typed, self._layouts)

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
                address_label(editions[order], address, self._layouts),
                round(metres, 1),
            )
            for metres, order, address in found
        ]

    def _named(self, address: Address) -> Address:
        country = self._layouts.require(address.country_code).name
        return replace(address, components={**address.components, "country": country})

    def _split(self, public_id: str) -> tuple[Edition | None, str]:
        dataset, _, local = public_id.partition(":")
        return self._editions.get(dataset), local
