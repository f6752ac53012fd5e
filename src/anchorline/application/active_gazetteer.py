"""The active editions, opened, and switched when another becomes active.

Typing touches no database: which editions are active is looked up at most once a second, by
whoever asks first; while the database is away, the editions that are open go on answering.
"""

from __future__ import annotations

import threading
from collections.abc import Mapping
from time import monotonic
from typing import Any

import structlog

from anchorline.core.errors import EditionError
from anchorline.core.gazetteer import Edition, Gazetteer
from anchorline.core.layouts import LayoutLibrary
from anchorline.core.practice import is_practice, practice_gazetteer
from anchorline.store.database import DatabaseUnavailableError, StoreError
from anchorline.store.datasets import DatasetStore
from anchorline.store.edition_files import EditionFiles

_LOOK_EVERY_SECONDS = 1.0
_log: Any = structlog.get_logger(part="gazetteer")


class ActiveGazetteer:
    """Hands out the gazetteer of the active editions."""

    def __init__(self, datasets: DatasetStore, files: EditionFiles, layouts: LayoutLibrary) -> None:
        self._datasets, self._files, self._layouts = datasets, files, layouts
        self._lock = threading.Lock()
        self._open: dict[tuple[str, int], Edition] = {}
        self._gazetteer = Gazetteer([], layouts)
        self._practice: Gazetteer | None = None
        self._looked = 0.0
        self._is_known = False
        self._recalled: Mapping[str, int] | None = None
        self._said: set[tuple[str, int, str]] = set()

    def recall(self, editions: Mapping[str, int] | None) -> None:
        """Goes on with these editions where the database is away from the beginning.

        Args:
            editions: the numbers that were active lately, by dataset; None where nobody knows.
        """
        self._recalled = editions

    @property
    def active(self) -> Mapping[str, int] | None:
        """The numbers of the active editions by dataset; None where that was never known."""
        return dict(self._open.keys()) if self._is_known else None

    def current(self) -> Gazetteer:
        """The gazetteer of the editions that are active now, or were a second ago.

        Raises:
            DatabaseUnavailableError: it is away, and nobody knows which editions are active.
        """
        if monotonic() - self._looked > _LOOK_EVERY_SECONDS and self._lock.acquire(blocking=False):
            try:
                self._look()
            finally:
                self._looked = monotonic()
                self._lock.release()
        elif not self._looked:
            with self._lock:  # the very first callers wait for whoever opens the editions
                pass
        if not self._is_known:
            raise DatabaseUnavailableError("Which editions are active is not known.")
        return self._gazetteer

    def practice(self) -> Gazetteer:
        """The gazetteer of the practice addresses, made when it is first asked for."""
        if self._practice is None:
            with self._lock:
                self._practice = self._practice or practice_gazetteer(self._layouts)
        return self._practice

    def having(self, identifier: str) -> Gazetteer:
        """The gazetteer that the id of an address, or of a group of them, is of."""
        return self.practice() if is_practice(identifier) else self.current()

    def _look(self) -> None:
        is_recalled = False
        try:
            active = set(self._datasets.active().items())
        except StoreError as error:
            _log.warning("active editions not looked up", error=str(error))
            if self._is_known or self._recalled is None:
                return
            active, is_recalled = set(self._recalled.items()), True
        if self._is_known and active == set(self._open):
            return
        opened = dict(self._open)
        for dataset, number in active - set(opened):
            try:
                opened[dataset, number] = self._files.open(dataset, number)
            except EditionError as error:
                self._say_once(dataset, number, str(error))
        if is_recalled and not active <= set(opened):
            return  # what is not all there would answer that nothing is found
        self._open = {key: edition for key, edition in opened.items() if key in active}
        self._gazetteer = Gazetteer(self._open.values(), self._layouts)
        self._is_known = True
        _log.info("editions opened", editions=self._gazetteer.stamp)

    def _say_once(self, dataset: str, number: int, error: str) -> None:
        """Logs that an edition cannot be opened; it is tried again every second until it can be."""
        if (dataset, number, error) not in self._said:
            self._said.add((dataset, number, error))
            _log.error("edition not opened", dataset=dataset, edition=number, error=error)
