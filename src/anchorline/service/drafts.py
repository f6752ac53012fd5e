"""Drafts over HTTP: their revision travels as the ETag, and comes back in If-Match."""

from __future__ import annotations

import re

from anchorline.store.database import StaleError

from .endpoints import Call
from .problems import ProblemError

# As the API document describes the header: at most 200 characters, quotation marks among them.
_TAG = re.compile(r"[!-~]{1,200}")
ETAG = {"ETag": "Names the draft's revision; send it back in If-Match"}
IF_MATCH = {"If-Match": "The draft's ETag; needed where the draft exists already"}


def revision_given(call: Call) -> int:
    """The revision that a change was made to.

    Raises:
        ProblemError: 428 where the request does not say, 422 where what it says is no ETag.
    """
    if_match = call.request.headers.get("If-Match")
    if if_match is None:
        raise ProblemError(
            428,
            "There is a draft already: send its ETag in If-Match (get it from this address).",
        )
    if not _TAG.fullmatch(if_match.strip()):
        raise ProblemError(422, 'Send the draft\'s ETag as it came, such as If-Match: "3".')
    tag = if_match.strip().removeprefix("W/").strip('"')
    return int(tag) if tag.isdecimal() and len(tag) < 10 else -1


def etag(revision: int) -> dict[str, str]:
    """The header that names a revision."""
    return {"ETag": f'"{revision}"'}


def changed_meanwhile(error: StaleError) -> ProblemError:
    """412 for a change that was made to an older revision."""
    return ProblemError(
        412,
        "Somebody else has changed this draft in the meantime. Get it anew and "
        "make your change again.",
        headers={"ETag": f'"{error.current}"'},
    )
