"""The header Idempotency-Key: the same key and request make one thing only."""

from __future__ import annotations

from anchorline.store.once_only import OnceOnly

from ..endpoints import Call
from ..problems import ProblemError

HEADER = "Idempotency-Key"


def once_only(call: Call, scope: str, request: bytes) -> OnceOnly | None:
    """The call's key, or None where it has none.

    Args:
        scope: what the key is of, beside the kind of caller.
        request: the request, or what stands for it.
    """
    key = idempotency_key(call)
    return None if key is None else OnceOnly(f"{call.caller.kind}/{scope}", key, request)


def idempotency_key(call: Call) -> str | None:
    """The header, which was checked by its declaration; None where there is none."""
    return call.request.headers.get(HEADER)


def reused_key() -> ProblemError:
    """409 for a key that came before with another request."""
    return ProblemError(409, f"This {HEADER} was used for another request; take a new one.")
