"""The calls on activity, on the addresses that were fetched, and on how well capture goes."""

from __future__ import annotations

import builtins
from collections.abc import Iterator, Mapping, Sequence
from datetime import date, datetime
from functools import partial
from itertools import count
from time import monotonic, sleep

from anchorline.wire.activity import (
    ActivityAnswer,
    CallSchema,
    ObservationList,
    ObservationSchema,
    ObserveRequest,
)
from anchorline.wire.quality import CaptureReport, QualityAnswer
from anchorline.wire.usage import UsageAnswer

from .calls import Calls, part, request_body

# By then, whatever was numbered is kept, or never will be: a unit of work is tried no longer.
_LATE_SECONDS = 10.0
_PAGE = 500


class Activity(Calls):
    """Activity, as `Client.activity`. It needs the scope `administer`."""

    def list(
        self,
        *,
        subject: str | None = None,
        endpoint: str | None = None,
        of: str | None = None,
        origin: str | None = None,
        outcome: str | None = None,
        since: datetime | None = None,
        until: datetime | None = None,
        after: int | None = None,
        before: int | None = None,
        limit: int = 100,
    ) -> ActivityAnswer:
        """The latest calls, or those after one of them; the latest stand first.

        Args:
            subject: a key's id, `page` and a form's key, `people`, or `-` for nobody known.
            endpoint: such as `finding.suggest`.
            of: the key of the form or target that they were about.
            origin: of the page that called.
            outcome: `answered`, `refused` or `failed`.
            since, until: the first time, and the time after the last one.
            after, before: ids of calls.
        """
        query = {
            "subject": subject,
            "endpoint": endpoint,
            "of": of,
            "origin": origin,
            "outcome": outcome,
            "since": since.isoformat() if since else None,
            "until": until.isoformat() if until else None,
            "after": after,
            "before": before,
            "limit": limit,
        }
        return self._get("activity", ActivityAnswer, query)

    def follow(
        self,
        *,
        subject: str | None = None,
        endpoint: str | None = None,
        of: str | None = None,
        origin: str | None = None,
        outcome: str | None = None,
        every: float = 1.0,
        rounds: int | None = None,
    ) -> Iterator[CallSchema]:
        """Calls as they come, the oldest first.

        Args:
            every: seconds between two looks.
            rounds: how often it is looked; None for ever.

        The others are those of `list`.
        """
        newest = self.list(limit=1).calls
        window = _Window(newest[0].id if newest else 0)
        look = partial(
            self.list,
            subject=subject,
            endpoint=endpoint,
            of=of,
            origin=origin,
            outcome=outcome,
            limit=_PAGE,
        )
        for number in count():
            if number == rounds:
                return
            at = window.begin(monotonic())
            while True:
                found = look(after=at).calls
                yield from window.new(list(reversed(found)), monotonic())
                if len(found) < _PAGE:
                    break
                at = found[0].id
            sleep(every)

    def lines(self, *, subject: str | None = None, outcome: str | None = None) -> str:
        """All calls as JSON Lines, the oldest first."""
        query = {"subject": subject, "outcome": outcome}
        return self._transport.send("GET", "activity-lines", query=query).text

    def observe(self, kind: str, name: str, *, hours: int = 2) -> builtins.list[ObservationSchema]:
        """Has question and answer of a key's or target's calls kept for some hours; 0 ends it.

        Returns what is observed then.
        """
        body = request_body(ObserveRequest, kind=kind, name=name, hours=hours)
        answer = self._transport.send("PUT", "observations", body=body)
        return ObservationList.model_validate_json(answer.content).observations

    def observations(self) -> builtins.list[ObservationSchema]:
        """What is observed at present."""
        return self._get("observations", ObservationList).observations

    def usage(self, month: str | None = None) -> UsageAnswer:
        """Addresses fetched in a month, such as 2027-03, by key and day; this month by default."""
        return self._get("usage", UsageAnswer, {"month": month})

    def quality(
        self,
        *,
        kind: str | None = None,
        name: str | None = None,
        since: date | None = None,
        until: date | None = None,
    ) -> QualityAnswer:
        """How well capture went, per form and target and day; the last 30 days by default.

        Args:
            kind: `form` or `target`; both by default.
            name: its key.
            since, until: the first and the last day (UTC).
        """
        return self._get("capture-quality", QualityAnswer, _of(kind, name, since, until))

    def quality_table(
        self,
        *,
        kind: str | None = None,
        name: str | None = None,
        since: date | None = None,
        until: date | None = None,
    ) -> str:
        """The same as CSV."""
        query = _of(kind, name, since, until)
        return self._transport.send("GET", "capture-quality-table", query=query).text

    def report_quality(
        self,
        kind: str,
        name: str,
        counts: Mapping[str, int],
        *,
        not_found: Sequence[str] = (),
    ) -> None:
        """Adds what a page of one's own has counted.

        Args:
            kind: `form` or `target`.
            counts: such as `{"shown": 1, "picked": 1}`.
            not_found: what was searched and not found.
        """
        body = request_body(CaptureReport, counts=dict(counts), not_found=list(not_found))
        self._transport.send("POST", f"{kind}s/{part(name)}/capture-counts", body=body)


def _of(
    kind: str | None, name: str | None, since: date | None, until: date | None
) -> dict[str, object]:
    return {
        "kind": kind,
        "name": name,
        "since": since.isoformat() if since else None,
        "until": until.isoformat() if until else None,
    }


class _Window:
    """Calls that were seen lately.

    They are numbered before they are kept, by several processes beside each other: one with a
    smaller number can come after one with a larger. So what is newer than `_LATE_SECONDS` is
    looked at again, and told once.

    Args:
        newest: the id of the newest call that is not told.
    """

    def __init__(self, newest: int) -> None:
        self._from = newest
        self._seen: dict[int, float] = {}

    def begin(self, now: float) -> int:
        """The id behind which calls are looked for."""
        old = [call for call, at in self._seen.items() if at < now - _LATE_SECONDS]
        if old:
            self._from = max(self._from, *old)
        for call in [call for call in self._seen if call <= self._from]:
            del self._seen[call]
        return self._from

    def new(self, calls: builtins.list[CallSchema], now: float) -> Iterator[CallSchema]:
        """Those that were not told yet."""
        for one in calls:
            if one.id not in self._seen:
                self._seen[one.id] = now
                yield one
