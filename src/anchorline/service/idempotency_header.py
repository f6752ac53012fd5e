"""The header Idempotency-Key: the same key and request make one thing only."""

from __future__ import annotations

import hashlib

from anchorline.application.caller import Caller
from anchorline.store.idempotency import IdempotencyKey

from .endpoints import ApiRequest

HEADER = "Idempotency-Key"
IDEMPOTENCY = {HEADER: "The same key and request make one thing only"}


def idempotency_key(request: ApiRequest, scope: str, content: bytes) -> IdempotencyKey | None:
    """The request's key, or None where it has none; the endpoint's declaration checks the header.

    Args:
        scope: what the key is for, beside who calls: two programs that both count their orders
            from 1 do not meet. For a record it is its form; all else has a stroke in it, which no
            form's address can have.
        content: the body, or what tells it from another one.
    """
    key = request.http.headers.get(HEADER)
    if key is None:
        return None
    return IdempotencyKey(f"{_who(request.caller)}/{scope}", key, content)


def _who(caller: Caller) -> str:
    """A key, the page of a form, or a person: short, whatever it is called."""
    who = caller.name if caller.kind == "person" else caller.key_id
    return f"{caller.kind}/{hashlib.blake2b(who.encode(), digest_size=8).hexdigest()}"
