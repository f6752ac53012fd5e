"""Keys that were presented lately, held in view: typing costs no query.

While the database is away a key that was in view goes on opening the finder, for ten minutes, and
so does one that other processes have seen (`last_known`).
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from datetime import UTC, datetime
from time import monotonic
from typing import Any

from anchorline.store.database import StoreError
from anchorline.store.keys import ApiKey, KeyStore

_VIEW_SECONDS = 5.0
STALE_SECONDS = 600.0
_MOST_IN_VIEW = 10_000
_LONGEST_KEY = 200


class KeysInView:
    """Finds keys by what is presented.

    Args:
        digest: by which what was presented is known again on disk.
    """

    def __init__(self, keys: KeyStore, digest: Callable[[str], str]) -> None:
        self._keys, self._digest = keys, digest
        self._view: dict[str, tuple[float, ApiKey | None]] = {}
        self._recalled: Mapping[str, ApiKey] = {}

    def recall(self, keys: Mapping[str, ApiKey]) -> None:
        """Knows keys that were presented to other processes lately, while the database is away.

        Args:
            keys: by the digest of what was presented.
        """
        self._recalled = keys

    def seen_lately(self) -> dict[str, ApiKey]:
        """The keys that were presented lately and can be used, by their digests."""
        since = monotonic() - STALE_SECONDS
        return {
            self._digest(presented): key
            for presented, (at, key) in list(self._view.items())
            if key is not None and at > since
        }

    def find(self, presented: str) -> ApiKey | None:
        """The key that was presented; None where it is none that can be used.

        Raises:
            StoreError: the database is away, and nobody has seen it lately.
        """
        now = monotonic()
        kept = self._view.get(presented)
        if kept is not None and now - kept[0] < _VIEW_SECONDS:
            return kept[1]
        try:
            key = self._keys.check(presented) if len(presented) <= _LONGEST_KEY else None
        except StoreError:
            if kept is not None and now - kept[0] <= STALE_SECONDS:
                return kept[1]
            known = self._recalled.get(self._digest(presented)) if self._recalled else None
            if known is None or _is_over(known):
                raise
            return known
        bound(self._view)
        self._view[presented] = (now, key)
        return key


def bound(view: dict[str, Any]) -> None:
    """Forgets all where there is too much: it is looked up again."""
    if len(view) > _MOST_IN_VIEW:
        view.clear()


def _is_over(key: ApiKey) -> bool:
    return key.expires_at is not None and key.expires_at <= datetime.now(UTC)
