"""The calls on records."""

from __future__ import annotations

import uuid
from collections.abc import Iterator, Mapping

from anchorline.wire.records import (
    RecordAnswer,
    RecordHistory,
    RecordList,
    RecordRequest,
    RecordSummary,
    SlotInputSchema,
)

from .calls import Calls, part, read_answer, request_body
from .forms import Value


class RecordCalls(Calls):
    """Records, as methods of `Client`."""

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

    def change_record(
        self,
        record_id: str,
        values: Mapping[str, Value],
        slots: Mapping[str, SlotInputSchema] | None = None,
        *,
        revision: int,
    ) -> RecordAnswer:
        """Changes a record: its form, as it is published now, filled anew.

        Args:
            revision: the record's, to which the change is made; another one by now is refused.
        """
        answer = self._transport.send(
            "PUT",
            f"records/{part(record_id)}",
            body=request_body(RecordRequest, values=dict(values), slots=dict(slots or {})),
            headers={"If-Match": f'"{revision}"'},
        )
        return read_answer(RecordAnswer, answer)

    def record_history(self, record_id: str) -> RecordHistory:
        """Every state of a record, the newest first."""
        return self._get(f"records/{part(record_id)}/history", RecordHistory)
