"""The header Idempotency-Key: the same key and request make one thing only."""

from __future__ import annotations

from anchorline.store.idempotency import IdempotencyKey

from ..endpoints import ApiRequest
from ..problems import ProblemError

HEADER = "Idempotency-Key"


def idempotency_key(request: ApiRequest, scope: str, content: bytes) -> IdempotencyKey | None:
    """The request's key, or None where it has none; the endpoint's declaration checks the header.

    Args:
        scope: what the key is for, beside the kind of caller.
        content: the body, or what tells it from another one.
    """
    key = request.http.headers.get(HEADER)
    if key is None:
        return None
    return IdempotencyKey(f"{request.caller.kind}/{scope}", key, content)


def reused_key() -> ProblemError:
    """409 for a key that came before with another request."""
    return ProblemError(409, f"This {HEADER} was used for another request; take a new one.")
