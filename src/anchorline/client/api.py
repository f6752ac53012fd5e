"""The calls of the API, one method each."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property
from types import TracebackType
from typing import TYPE_CHECKING

from anchorline.wire.finding import (
    AddressAnswer,
    PartialPostcodeAnswer,
    PostcodeAnswer,
    Suggestions,
)
from anchorline.wire.places import NearestAnswer, PositionAnswer, SurroundingsAnswer
from anchorline.wire.session import OverviewAnswer

from .calls import part, read_answer
from .forms import FormCalls
from .formulas import FormulaCalls
from .layouts import LayoutCalls
from .mappings import MappingCalls
from .phones import PhoneCalls
from .records import RecordCalls
from .transport import Transport

if TYPE_CHECKING:
    from .activity import Activity
    from .datasets import Datasets
    from .forms import Forms
    from .keys import Keys
    from .own_layouts import OwnLayouts
    from .programs import Programs
    from .targets import Targets


class Client(LayoutCalls, FormCalls, MappingCalls, FormulaCalls, RecordCalls, PhoneCalls):
    """Calls one Anchorline service. All methods raise the errors of `errors`.

    Args:
        url: the service's address, such as `http://127.0.0.1:8470`.
        key: a server or browser key.
        transport: a transport of one's own, instead of the two above.
    """

    def __init__(
        self, url: str = "", key: str | None = None, *, transport: Transport | None = None
    ) -> None:
        super().__init__(transport or Transport(url, key))

    # Each group is loaded when it is asked for: all of them take longer than most calls.

    @cached_property
    def datasets(self) -> Datasets:
        """The calls on reference data."""
        from .datasets import Datasets

        return Datasets(self._transport)

    @cached_property
    def forms(self) -> Forms:
        """The calls on forms as documents."""
        from .forms import Forms

        return Forms(self._transport)

    @cached_property
    def own_layouts(self) -> OwnLayouts:
        """The calls on administrators' own layouts."""
        from .own_layouts import OwnLayouts

        return OwnLayouts(self._transport)

    @cached_property
    def keys(self) -> Keys:
        """The calls on keys."""
        from .keys import Keys

        return Keys(self._transport)

    @cached_property
    def activity(self) -> Activity:
        """What is called, and how many addresses were fetched."""
        from .activity import Activity

        return Activity(self._transport)

    @cached_property
    def targets(self) -> Targets:
        """The calls on pages and programs that are not ours."""
        from .targets import Targets

        return Targets(self._transport)

    @cached_property
    def programs(self) -> Programs:
        """Looks at programs' screens, and runs on them."""
        from .programs import Programs

        return Programs(self._transport)

    def __enter__(self) -> Client:
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        error: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        self.close()

    def close(self) -> None:
        """Closes all connections."""
        self._transport.close()

    # Finding

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

    # The whole

    def overview(self) -> OverviewAnswer:
        """The overview: reference data, forms, records, and how well capture goes."""
        return self._get("overview", OverviewAnswer)
