"""The state that a change was made to: it travels as the ETag, and comes back in If-Match."""

from __future__ import annotations

import re

from anchorline.store.database import StaleError
from anchorline.store.document_model import Seen

from ..endpoints import ApiRequest
from ..problems import ProblemError, invalid_header

# As the API document describes the header: at most 200 characters, quotation marks among them.
_TAG = re.compile(r"[!-~]{1,200}")
_STATE = re.compile(r"([0-9]{1,9})-([0-9]{1,9})")
# What no document is in.
_NEVER = Seen(-1, -1)
ETAG = {"ETag": "Names the document's state; send it back in If-Match"}
IF_MATCH = {"If-Match": "The ETag of the state that was looked at, or * for whichever it is in"}
IF_MATCH_OF_DRAFT = {"If-Match": "The draft's ETag, or *; needed where the draft exists already"}


def etag(tag: str | int) -> dict[str, str]:
    """The header that names a state."""
    return {"ETag": f'"{tag}"'}


def state_given(request: ApiRequest, what: str) -> Seen | None:
    """The state of a document that a change was made to; None where any will do.

    Raises:
        ProblemError: 428 where the request does not say, 422 where what it says is no ETag.
    """
    tag = _tag_given(request, what)
    if tag == "*":
        return None
    found = _STATE.fullmatch(tag)
    return Seen(int(found[1]), int(found[2])) if found else _NEVER


def revision_given(request: ApiRequest, what: str) -> int:
    """The revision of a record that a change was made to.

    Raises:
        ProblemError: 428 where the request does not say, 422 where what it says is no ETag.
    """
    tag = _tag_given(request, what)
    return int(tag) if tag.isdecimal() and len(tag) < 10 else -1


def changed_meanwhile(error: StaleError, what: str) -> ProblemError:
    """412 for a change that was made to an older state."""
    return ProblemError(
        412,
        f"Somebody else has changed this {what} in the meantime. Get it anew and "
        "make your change again.",
        headers=etag(error.current),
    )


def is_given(request: ApiRequest) -> bool:
    """Whether a request says which state it is about."""
    return "If-Match" in request.http.headers


def _tag_given(request: ApiRequest, what: str) -> str:
    if_match = request.http.headers.get("If-Match")
    if if_match is None:
        raise ProblemError(
            428,
            f"Say which state of the {what} this is about: send its ETag in If-Match (get it from "
            "its address).",
        )
    if not _TAG.fullmatch(if_match.strip()):
        raise invalid_header(f'Send the {what}\'s ETag as it came, such as If-Match: "3".')
    return if_match.strip().removeprefix("W/").strip('"')
