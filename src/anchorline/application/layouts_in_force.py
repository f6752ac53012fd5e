"""The layouts that hold now: the shipped ones with the published own layouts laid over them."""

from __future__ import annotations

import threading
from typing import Any

import structlog

from anchorline.core.layouts import LayoutLibrary
from anchorline.core.layouts.own import LayoutsInForce, Published, read_own_layout
from anchorline.store.database import StoreError
from anchorline.store.documents import DocumentStore

_log: Any = structlog.get_logger(part="layouts")


class CurrentLayouts:
    """Hands out the layouts in force, put together anew when others are published.

    What is published is asked for at each call (one short query), so that a change holds at once
    in all processes; while the database is away, the last known layouts go on holding.
    """

    def __init__(self, store: DocumentStore, shipped: LayoutLibrary) -> None:
        self._store, self._shipped = store, shipped
        self._lock = threading.Lock()
        self._stamp: dict[str, int] = {}
        self._in_force = LayoutsInForce(shipped)

    def current(self) -> LayoutsInForce:
        """The layouts that hold now."""
        try:
            stamp = self._store.published_numbers()
            if stamp == self._stamp:
                return self._in_force
            with self._lock:
                if stamp != self._stamp:
                    published = self._published()
                    self._in_force = LayoutsInForce(self._shipped, published)
                    self._stamp = {p.own.key: p.version or 0 for p in published}
        except StoreError as error:
            _log.warning("own layouts not looked up", error=str(error))
        return self._in_force

    def _published(self) -> list[Published]:
        published = []
        for kept in self._store.published():
            own, problems = read_own_layout(kept.document, self._shipped)
            if problems:  # an older release's document: what is still understood holds
                _log.error("own layout not read whole", own_layout=kept.key, problems=len(problems))
            published.append(Published(own, kept.number))
        return published
