"""Drafts over HTTP: their revision travels as the ETag, and comes back in If-Match."""

from __future__ import annotations

import re
from typing import Protocol, TypeVar

from anchorline.core.errors import Problem
from anchorline.store.database import NotThereError, StaleError
from anchorline.store.drafts import Document, Drafted

from ..endpoints import ApiRequest
from ..problems import ProblemError, invalid

# As the API document describes the header: at most 200 characters, quotation marks among them.
_TAG = re.compile(r"[!-~]{1,200}")
ETAG = {"ETag": "Names the draft's revision; send it back in If-Match"}
IF_MATCH = {"If-Match": "The draft's ETag; needed where the draft exists already"}


_Entry = TypeVar("_Entry", bound=Drafted, covariant=True)


class DraftStore(Protocol[_Entry]):
    """Where drafts of one kind are kept."""

    def draft(self, key: str) -> tuple[Document, _Entry]:
        """A draft; NotThereError where there is none."""

    def put_draft(self, key: str, document: Document, revision: int | None) -> _Entry:
        """Keeps a draft; StaleError where it has another revision by now."""


def keep_draft(
    request: ApiRequest, store: DraftStore[_Entry], key: str, document: Document
) -> _Entry:
    """Keeps a draft, which is new or was made from the revision that the request names.

    Raises:
        ProblemError: 422 where the document has another key than the address, 428 or 412 where
            the request names no revision, or one that is not the newest.
    """
    if document["key"] != key:
        raise invalid([Problem("/key", f"The key is {key!r} in the address.")])
    revision: int | None = None
    try:
        store.draft(key)
    except NotThereError:
        pass
    else:
        revision = revision_given(request, "draft")
    try:
        return store.put_draft(key, document, revision)
    except StaleError as error:
        raise changed_meanwhile(error) from None


def etag(revision: int) -> dict[str, str]:
    """The header that names a revision."""
    return {"ETag": f'"{revision}"'}


def changed_meanwhile(error: StaleError, what: str = "draft") -> ProblemError:
    """412 for a change that was made to an older revision."""
    return ProblemError(
        412,
        f"Somebody else has changed this {what} in the meantime. Get it anew and "
        "make your change again.",
        headers={"ETag": f'"{error.current}"'},
    )


def revision_given(request: ApiRequest, what: str) -> int:
    """The revision that a change was made to.

    Raises:
        ProblemError: 428 where the request does not say, 422 where what it says is no ETag.
    """
    if_match = request.http.headers.get("If-Match")
    if if_match is None:
        raise ProblemError(
            428,
            f"There is a {what} already: send its ETag in If-Match (get it from this address).",
        )
    if not _TAG.fullmatch(if_match.strip()):
        raise ProblemError(422, f'Send the {what}\'s ETag as it came, such as If-Match: "3".')
    tag = if_match.strip().removeprefix("W/").strip('"')
    return int(tag) if tag.isdecimal() and len(tag) < 10 else -1
