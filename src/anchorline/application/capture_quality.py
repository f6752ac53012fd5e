"""How well capture goes: what pages report is added up; what nobody found is kept as a digest."""

from __future__ import annotations

import hashlib
import hmac
from collections.abc import Mapping, Sequence
from datetime import date, timedelta
from typing import NamedTuple

from anchorline.core.capture_counts import impossible
from anchorline.core.errors import Problem
from anchorline.core.text import fold
from anchorline.store.capture_quality import CaptureDay, NotFoundText

from .errors import InvalidError
from .services import Services

_DAYS = timedelta(days=29)
_DIGEST_CHARACTERS = 32


class Quality(NamedTuple):
    """What was counted, and what was not found; `titles` by kind and key."""

    days: Sequence[CaptureDay]
    not_found: Sequence[NotFoundText]
    titles: Mapping[tuple[str, str], str]


def add_report(
    services: Services,
    kind: str,
    name: str,
    counts: Mapping[str, int],
    not_found: Sequence[str],
    *,
    secret: bytes,
    is_observed: bool,
) -> None:
    """Adds what a page has counted.

    Args:
        not_found: texts that found nothing.
        secret: with which digests are made.
        is_observed: such texts are kept whole; else as digests alone.

    Raises:
        InvalidError: the counts cannot be.
    """
    fault = impossible(dict(counts))
    if fault is not None:
        raise InvalidError([Problem(f"/counts/{fault[0]}", fault[1])])
    kept: dict[str, str | None] = {}
    for text in not_found:
        digest = hmac.new(secret, fold(text).encode(), hashlib.sha256).hexdigest()
        kept[digest[:_DIGEST_CHARACTERS]] = text if is_observed else None
    services.capture_quality.add(kind, name, dict(counts), kept)


def quality(
    services: Services, kind: str | None, name: str | None, since: date | None, until: date | None
) -> Quality:
    """How capture went, of one kind or name or of all; of thirty days where none are given."""
    until = until or services.database.now().date()
    since = since or max(until, date.min + _DAYS) - _DAYS
    days, not_found = services.capture_quality.list(kind, name, since, until)
    titles = {
        (of, key): title
        for of in ("form", "target")
        for key, title in services.documents[of].titles().items()
    }
    return Quality(days, not_found, titles)
