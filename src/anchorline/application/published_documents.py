"""What is published, remembered so that filling goes on while the database is away."""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.store.database import DatabaseUnavailableError, StoreError
from anchorline.store.document_model import Document
from anchorline.store.documents import DocumentStore


class PublishedDocuments:
    """Hands out published versions, asked for at each call as long as the database answers."""

    def __init__(self, store: DocumentStore) -> None:
        self._store = store
        self._known: dict[str, tuple[Document, int]] = {}

    def version(self, key: str) -> tuple[Document, int]:
        """A published document and its number.

        Raises:
            NotThereError: there is no such document, or it is not published.
            DatabaseUnavailableError: nobody asked for it before the database went away.
        """
        try:
            version = self._store.version(key)
        except DatabaseUnavailableError:
            if key not in self._known:
                raise
            return self._known[key]
        except StoreError:
            self._known.pop(key, None)
            raise
        found = version.document, version.number
        self._known[key] = found
        return found

    def all(self) -> Sequence[tuple[Document, int]]:
        """All published documents with their numbers; those that are known while it is away."""
        try:
            numbers = self._store.published_numbers()
        except DatabaseUnavailableError:
            return list(self._known.values())
        for gone in set(self._known) - set(numbers):
            self._known.pop(gone, None)
        # Each is asked for anew: one that was deleted and made again has the same number.
        return [self.version(key) for key in numbers]

    def learn(self) -> None:
        """Gets to know all of them, for when the database is away.

        Raises:
            StoreError: it is away now.
        """
        for key, number in self._store.published_numbers().items():
            if key not in self._known or self._known[key][1] != number:
                self.version(key)
