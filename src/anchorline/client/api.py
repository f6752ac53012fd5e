"""The calls of the API, one method each."""

from __future__ import annotations

import uuid
from collections.abc import Iterator, Mapping, Sequence
from types import TracebackType

from anchorline.wire.finding import (
    AddressAnswer,
    NearestAnswer,
    PartialPostcodeAnswer,
    PostcodeAnswer,
    Suggestions,
)
from anchorline.wire.records import (
    RecordAnswer,
    RecordList,
    RecordRequest,
    RecordSummary,
    SlotInputSchema,
)
from anchorline.wire.session import OverviewAnswer

from .calls import part, read_answer, request_body
from .datasets import Datasets
from .forms import FormCalls, Value
from .formulas import FormulaCalls
from .layouts import LayoutCalls
from .own_layouts import OwnLayouts
from .transport import Transport


class Client(LayoutCalls, FormCalls, FormulaCalls):
    """Calls one Anchorline service. All methods raise the errors of `errors`.

    Args:
        url: the service's address, such as `http://127.0.0.1:8470`.
        key: a server or browser key.
        transport: a transport of one's own, instead of the two above.

    Attributes:
        datasets: the calls on reference data.
        own_layouts: the calls on administrators' own layouts.
    """

    def __init__(
        self, url: str = "", key: str | None = None, *, transport: Transport | None = None
    ) -> None:
        super().__init__(transport or Transport(url, key))
        self.datasets = Datasets(self._transport)
        self.own_layouts = OwnLayouts(self._transport)

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
        trace: bool = False,
    ) -> Suggestions:
        """Suggestions for what was typed, or (with `within`) the contents of a group.

        Args:
            language: BCP 47, the spelling of places that have several.
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
            "trace": "true" if trace else None,
        }
        return self._get("suggest", Suggestions, query)

    def address(self, address_id: str, *, components: Sequence[str] = ()) -> AddressAnswer:
        """One address; all its components, or only those named."""
        query = {"components": components or None}
        return self._get(f"addresses/{part(address_id)}", AddressAnswer, query)

    def postcode(self, country_code: str, postcode: str) -> PostcodeAnswer | PartialPostcodeAnswer:
        """All addresses of a postcode, or the postcodes that begin with a part of one."""
        path = f"postcodes/{part(country_code)}/{part(postcode)}"
        answer = self._transport.send("GET", path)
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

    # Records

    def submit(
        self,
        form: str,
        values: Mapping[str, Value],
        slots: Mapping[str, SlotInputSchema] | None = None,
        *,
        version: int | None = None,
        language: str | None = None,
        idempotency_key: str | None = None,
    ) -> RecordAnswer:
        """Submits a filled form. Sent again after a failure, it still makes one record.

        Args:
            version: that was filled; None for the published one.
            language: in which it was read; None for its own.
        """
        answer = self._transport.send(
            "POST",
            f"forms/{part(form)}/records",
            body=request_body(
                RecordRequest,
                values=dict(values),
                slots=dict(slots or {}),
                version=version,
                language=language,
            ),
            headers={"Idempotency-Key": idempotency_key or str(uuid.uuid4())},
            repeatable=True,
        )
        return read_answer(RecordAnswer, answer)

    def records(
        self,
        *,
        form: str | None = None,
        search: str = "",
        sort: str = "newest",
        limit: int | None = None,
        after: str | None = None,
    ) -> RecordList:
        """A page of records."""
        query = {
            "form": form, "search": search or None, "sort": sort, "limit": limit, "after": after,
        }  # fmt: skip
        return self._get("records", RecordList, query)

    def all_records(
        self, *, form: str | None = None, search: str = "", sort: str = "newest"
    ) -> Iterator[RecordSummary]:
        """Every record, fetched page by page."""
        after: str | None = None
        while True:
            page = self.records(form=form, search=search, sort=sort, limit=200, after=after)
            yield from page.records
            after = page.after
            if after is None:
                return

    def record(self, record_id: str) -> RecordAnswer:
        """A whole record."""
        return self._get(f"records/{part(record_id)}", RecordAnswer)

    def overview(self) -> OverviewAnswer:
        """The overview: reference data, forms, records, and how well capture goes."""
        return self._get("overview", OverviewAnswer)
