"""Forms that were read and checked once, and how they are answered, kept for the next call.

They are known by what their documents say, so nothing that is kept here can be out of date. A form
of hundreds of conditions takes a second to check; looking it up takes a moment.
"""

from __future__ import annotations

import hashlib
import threading
from collections.abc import Callable, Hashable
from typing import Any, Generic, NamedTuple, TypeVar

import orjson
import structlog
from cachetools import LRUCache

from anchorline.core.errors import DocumentError
from anchorline.core.forms import Form, read_unfinished
from anchorline.core.layouts import LayoutLibrary
from anchorline.store.document_model import Document

_log: Any = structlog.get_logger(part="forms")
MOST_BYTES = 32 * 1024 * 1024
# A form with many formulas, in memory beside its document in UTF-8; measured with tracemalloc.
_LARGER_THAN_ITS_DOCUMENT = 8
_Kept = TypeVar("_Kept")


class _Bounded(Generic[_Kept]):
    """Values with their sizes; those not asked for lately go when the sum of all is reached."""

    def __init__(self, most_bytes: int) -> None:
        self._lock = threading.Lock()
        self._kept: LRUCache[Hashable, tuple[_Kept, int]] = LRUCache(
            most_bytes, getsizeof=lambda kept: kept[1]
        )

    def get(self, key: Hashable, make: Callable[[], tuple[_Kept, int]]) -> _Kept:
        """What is kept at a key; made, and kept if there is room for it, where nothing is.

        Args:
            make: gives the value and its size in bytes.
        """
        with self._lock:
            found = self._kept.get(key)
        if found is not None:
            return found[0]
        made = make()
        with self._lock:
            if made[1] <= self._kept.maxsize:
                self._kept[key] = made
        return made[0]


class CheckedForm(NamedTuple):
    """A document with the form that was read from it."""

    document: Document
    form: Form


class CheckedForms:
    """Hands out checked forms and their answers.

    Args:
        layouts: the shipped ones.
        most_bytes: of memory for forms, and again for answers.
    """

    def __init__(self, layouts: LayoutLibrary, most_bytes: int = MOST_BYTES) -> None:
        self._layouts = layouts
        self._forms: _Bounded[CheckedForm] = _Bounded(most_bytes)
        self._answers: _Bounded[bytes] = _Bounded(most_bytes)

    def known(self, digest: str, load: Callable[[], Document]) -> CheckedForm:
        """The form of a document that is known by a digest; loaded only where none is kept."""
        return self._forms.get(digest, lambda: self._sized(load()))

    def form(self, document: Document) -> Form:
        """The form of a document that was published, as far as this release can read it.

        What was good when it was published and would be refused today is left out of it, and does
        not keep people from the rest.

        Raises:
            DocumentError: an address of it is there for no country.
        """
        return self._forms.get(digest_of(document), lambda: self._sized(document)).form

    def _sized(self, document: Document) -> tuple[CheckedForm, int]:
        size = len(orjson.dumps(document)) * _LARGER_THAN_ITS_DOCUMENT
        return CheckedForm(document, self._read(document)), size

    def _read(self, document: Document) -> Form:
        form, problems = read_unfinished(document, self._layouts)
        if problems:
            _log.warning(
                "a published form is not read whole", form=form.key, problems=len(problems)
            )
        if not all(slot.countries for slot in form.slots):
            raise DocumentError(f"form {form.key}", problems)
        return form

    def answer(
        self, digest: str, version: int, layouts: LayoutLibrary, make: Callable[[], bytes]
    ) -> bytes:
        """How a version is answered, as JSON.

        Args:
            digest: by which its document is known.
            layouts: those that hold on the form, which bring fields to it.
            make: makes the answer where none is kept.
        """

        def made() -> tuple[bytes, int]:
            body = make()
            return body, len(body)

        return self._answers.get((digest, version, layouts), made)


def digest_of(document: Document) -> str:
    """By which a document is known that did not come with a digest."""
    return hashlib.blake2b(orjson.dumps(document), digest_size=16).hexdigest()
