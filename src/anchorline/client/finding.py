"""The calls that find addresses, apart from all others: they are asked for most, and load least."""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.wire.finding import (
    AddressAnswer,
    PartialPostcodeAnswer,
    PostcodeAnswer,
    Suggestions,
)
from anchorline.wire.places import NearestAnswer, PositionAnswer, SurroundingsAnswer

from .calls import Calls, part, read_answer


class FindingCalls(Calls):
    """Finding, as methods of `Client`."""

    def suggest(
        self,
        text: str = "",
        *,
        country: str | Sequence[str] = (),
        kinds: str | Sequence[str] = (),
        near: tuple[float, float] | None = None,
        within: str | None = None,
        language: str | None = None,
        limit: int | None = None,
        after: str | None = None,
        datasets: str | Sequence[str] = (),
        practice: bool = False,
        trace: bool = False,
    ) -> Suggestions:
        """Suggestions for what was typed, or (with `within`) the contents of a group.

        Args:
            language: BCP 47, the spelling of places that have several.
            practice: search the practice addresses, which are made up and never counted.
        """
        query = {
            "q": text,
            "country": country or None,
            "kinds": kinds or None,
            "near": near,
            "within": within,
            "language": language,
            "limit": limit,
            "after": after,
            "datasets": datasets or None,
            "practice": "true" if practice else None,
            "trace": "true" if trace else None,
        }
        return self._get("suggest", Suggestions, query)

    def address(
        self, address_id: str, *, components: Sequence[str] = (), capture: str | None = None
    ) -> AddressAnswer:
        """One address; all its components, or only those named.

        Args:
            capture: names one capture, within which an address counts once.
        """
        query = {"components": components or None, "capture": capture}
        return self._get(f"addresses/{part(address_id)}", AddressAnswer, query)

    def postcode(
        self, country_code: str, postcode: str, *, capture: str | None = None
    ) -> PostcodeAnswer | PartialPostcodeAnswer:
        """All addresses of a postcode, or the postcodes that begin with a part of one.

        Args:
            capture: names one capture, within which a postcode counts once.
        """
        path = f"postcodes/{part(country_code)}/{part(postcode)}"
        answer = self._transport.send("GET", path, query={"capture": capture})
        if answer.json().get("partial"):
            return read_answer(PartialPostcodeAnswer, answer)
        return read_answer(PostcodeAnswer, answer)

    def nearest(
        self,
        latitude: float,
        longitude: float,
        *,
        limit: int | None = None,
        radius_m: float | None = None,
    ) -> NearestAnswer:
        """The addresses nearest to a point in WGS 84 degrees."""
        query = {
            "latitude": latitude, "longitude": longitude, "limit": limit, "radius_m": radius_m,
        }  # fmt: skip
        return self._get("nearest", NearestAnswer, query)

    def surroundings(
        self,
        latitude: float,
        longitude: float,
        *,
        limit: int | None = None,
        radius_m: float | None = None,
    ) -> SurroundingsAnswer:
        """Where there are addresses around a point, to draw a map of: not which, not exactly."""
        query = {
            "latitude": latitude, "longitude": longitude, "limit": limit, "radius_m": radius_m,
        }  # fmt: skip
        return self._get("surroundings", SurroundingsAnswer, query)

    def position(
        self,
        text: str,
        *,
        country: str | Sequence[str] = (),
        datasets: str | Sequence[str] = (),
        capture: str | None = None,
    ) -> PositionAnswer:
        """Where what was typed is: an address, or the middle of a postcode, street or town.

        Args:
            capture: names one capture, within which the place of a single address counts once.
        """
        query = {
            "q": text, "country": country or None, "datasets": datasets or None,
            "capture": capture,
        }  # fmt: skip
        return self._get("position", PositionAnswer, query)
