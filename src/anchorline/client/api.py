"""The calls of the API, one method each."""

from __future__ import annotations

import uuid
from collections.abc import Iterator, Mapping, Sequence
from types import TracebackType
from typing import TypeVar
from urllib.parse import quote

from pydantic import BaseModel

from anchorline.wire.finding import (
    AddressAnswer,
    NearestAnswer,
    PartialPostcodeAnswer,
    PostcodeAnswer,
    Suggestions,
)
from anchorline.wire.forms import (
    DraftAnswer,
    FillAnswer,
    FillRequest,
    FormAnswer,
    FormDocument,
    FormList,
    FormSummary,
)
from anchorline.wire.layouts import (
    MOST_ADDRESSES,
    CheckComponentsAnswer,
    CheckComponentsRequest,
    LayoutAnswer,
    LayoutList,
    LinesAnswer,
    LinesRequest,
    ManyLinesAnswer,
    ManyLinesRequest,
)
from anchorline.wire.records import (
    RecordAnswer,
    RecordList,
    RecordRequest,
    RecordSummary,
    SlotInputShape,
)
from anchorline.wire.session import StandAnswer

from .datasets import Datasets
from .transport import Transport

_Answer = TypeVar("_Answer", bound=BaseModel)
Value = str | int | float | bool | None


class Client:
    """Calls one Anchorline service. All methods raise the errors of `errors`.

    Args:
        url: the service's address, such as `http://127.0.0.1:8470`.
        key: a server or browser key.
        transport: a transport of one's own, instead of the two above.

    Attributes:
        datasets: the calls on reference data.
    """

    def __init__(
        self, url: str = "", key: str | None = None, *, transport: Transport | None = None
    ) -> None:
        self._transport = transport or Transport(url, key)
        self.datasets = Datasets(self._transport)

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
        return self._get(f"addresses/{_part(address_id)}", AddressAnswer, query)

    def postcode(self, country_code: str, postcode: str) -> PostcodeAnswer | PartialPostcodeAnswer:
        """All addresses of a postcode, or the postcodes that begin with a part of one."""
        path = f"postcodes/{_part(country_code)}/{_part(postcode)}"
        answer = self._transport.send("GET", path)
        if answer.json().get("partial"):
            return PartialPostcodeAnswer.model_validate_json(answer.content)
        return PostcodeAnswer.model_validate_json(answer.content)

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

    # Layouts

    def layouts(self) -> LayoutList:
        """The countries that have a layout."""
        return self._get("layouts", LayoutList)

    def layout(self, country_code: str, *, language: str = "en") -> LayoutAnswer:
        """A country's layout."""
        return self._get(f"layouts/{_part(country_code)}", LayoutAnswer, {"language": language})

    def lines(
        self,
        country_code: str,
        components: Mapping[str, str],
        *,
        international: bool = False,
        from_country: str | None = None,
    ) -> LinesAnswer:
        """Components written out in the country's lines.

        Args:
            international: for mail from abroad: the country's name comes last.
            from_country: where that is posted, so that the name is in a language read there.
        """
        body = LinesRequest(
            components=dict(components), international=international, from_country=from_country
        )
        return self._post(f"layouts/{_part(country_code)}/lines", LinesAnswer, body)

    def many_lines(
        self,
        addresses: Sequence[Mapping[str, str]],
        *,
        international: bool = False,
        from_country: str | None = None,
    ) -> list[list[str]]:
        """The lines of many addresses, each with its `country_code`; in calls of a thousand."""
        written: list[list[str]] = []
        for start in range(0, len(addresses), MOST_ADDRESSES):
            some = addresses[start : start + MOST_ADDRESSES]
            body = ManyLinesRequest(
                addresses=[dict(address) for address in some],
                international=international,
                from_country=from_country,
            )
            written += self._post("layouts/lines", ManyLinesAnswer, body).lines
        return written

    def check(self, country_code: str, components: Mapping[str, str]) -> CheckComponentsAnswer:
        """Components held against the country's layout."""
        body = CheckComponentsRequest(components=dict(components))
        path = f"layouts/{_part(country_code)}/check"
        return self._post(path, CheckComponentsAnswer, body)

    # Forms

    def forms(self) -> list[FormSummary]:
        """All forms."""
        return self._get("forms", FormList).forms

    def form(self, key: str, *, draft: bool = False) -> FormAnswer:
        """A form to be filled: its published version, or its draft."""
        return self._get(f"forms/{_part(key)}", FormAnswer, {"draft": draft or None})

    def draft(self, key: str) -> tuple[DraftAnswer, str]:
        """A form's draft and its ETag."""
        answer = self._transport.send("GET", f"forms/{_part(key)}/draft")
        return DraftAnswer.model_validate_json(answer.content), answer.headers["ETag"]

    def put_draft(self, document: FormDocument, *, etag: str | None = None) -> DraftAnswer:
        """Keeps a draft; `etag` is that of the draft it was made from, None for a new form."""
        headers = {"If-Match": etag} if etag else {}
        answer = self._transport.send(
            "PUT", f"forms/{_part(document.key)}/draft", body=document, headers=headers
        )
        return DraftAnswer.model_validate_json(answer.content)

    def publish(self, key: str) -> FormSummary:
        """Publishes the draft as the next version."""
        answer = self._transport.send("POST", f"forms/{_part(key)}/publish", repeatable=True)
        return FormSummary.model_validate_json(answer.content)

    def fill(
        self,
        form: str,
        slot: str,
        *,
        address_id: str | None = None,
        components: Mapping[str, str] | None = None,
        values: Mapping[str, Value] | None = None,
    ) -> FillAnswer:
        """What an address (by id or components) puts into the fields of a slot."""
        body = FillRequest(
            address_id=address_id,
            components=dict(components) if components is not None else None,
            values=dict(values or {}),
        )
        return self._post(f"forms/{_part(form)}/slots/{_part(slot)}/fill", FillAnswer, body)

    # Records

    def submit(
        self,
        form: str,
        values: Mapping[str, Value],
        slots: Mapping[str, SlotInputShape] | None = None,
        *,
        idempotency_key: str | None = None,
    ) -> RecordAnswer:
        """Submits a filled form. Sent again after a failure, it still makes one record."""
        answer = self._transport.send(
            "POST",
            f"forms/{_part(form)}/records",
            body=RecordRequest(values=dict(values), slots=dict(slots or {})),
            headers={"Idempotency-Key": idempotency_key or str(uuid.uuid4())},
            repeatable=True,
        )
        return RecordAnswer.model_validate_json(answer.content)

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
        return self._get(f"records/{_part(record_id)}", RecordAnswer)

    def stand(self) -> StandAnswer:
        """Where things stand."""
        return self._get("stand", StandAnswer)

    def _get(
        self, path: str, shape: type[_Answer], query: Mapping[str, object] | None = None
    ) -> _Answer:
        return shape.model_validate_json(self._transport.send("GET", path, query=query).content)

    def _post(self, path: str, shape: type[_Answer], body: BaseModel) -> _Answer:
        """For calls that change nothing: they may be sent again."""
        answer = self._transport.send("POST", path, body=body, repeatable=True)
        return shape.model_validate_json(answer.content)


def _part(text: str) -> str:
    return quote(text, safe="")
