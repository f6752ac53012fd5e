"""API: keys, listed, made, rotated and ended."""

from __future__ import annotations

from datetime import timedelta

from anchorline.application import keys
from anchorline.core.keys import SCOPES, WantedKey
from anchorline.store.keys import ApiKey, NewSecret
from anchorline.wire.base import PageQuery, Schema
from anchorline.wire.keys import (
    KeyList,
    KeySchema,
    NewKeyRequest,
    NewSecretAnswer,
    RotateKeyRequest,
    ScopeSchema,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..idempotency_header import IDEMPOTENCY, idempotency_key

router = Router("keys", "administer")


@router.endpoint("GET", "/keys", access=Access.SERVER, query=PageQuery, answer=KeyList)
def list_keys(request: ApiRequest) -> Schema:
    """All keys without their secrets, page by page, and what a server key can be for."""
    query = request.query(PageQuery)
    page = request.services.keys.page(query.limit, query.after)
    return KeyList(
        after=page.after,
        keys=[shown_key(request, key) for key in page.entries],
        scopes=[ScopeSchema(name=name, says=says) for name, says in SCOPES.items()],
    )


@router.endpoint(
    "POST",
    "/keys",
    access=Access.SERVER,
    body=NewKeyRequest,
    answer=NewSecretAnswer,
    status=201,
    problems=(409,),
    request_headers=IDEMPOTENCY,
)
def make_key(request: ApiRequest) -> ApiResponse:
    """Makes a key. Its secret is in this answer and nowhere else.

    A server key can make no key that may do more than itself.
    """
    given = WantedKey(**request.body(NewKeyRequest).model_dump())
    once_by = idempotency_key(request, "keys/", request.http.get_data())
    made = keys.make_key(request.services, request.caller, given, once_by)
    return ApiResponse(_with_secret(request, made), status=201)


@router.endpoint(
    "POST",
    "/keys/<key>/rotate",
    access=Access.SERVER,
    body=RotateKeyRequest,
    answer=NewSecretAnswer,
    problems=(409,),
)
def rotate_key(request: ApiRequest) -> ApiResponse:
    """Gives a key a new secret; the present one goes on beside it for some hours.

    A secret before the present one ends at once.
    """
    overlap = timedelta(hours=request.body(RotateKeyRequest).overlap_hours)
    made = keys.rotate_key(request.services, request.caller, request.path["key"], overlap)
    return ApiResponse(_with_secret(request, made))


@router.endpoint("POST", "/keys/<key>/end", access=Access.SERVER, answer=KeySchema)
def end_key(request: ApiRequest) -> Schema:
    """Ends a key for good: within seconds nobody can use it any more."""
    return shown_key(request, request.services.keys.end(request.path["key"]))


def _with_secret(request: ApiRequest, made: NewSecret) -> Schema:
    return NewSecretAnswer(key=shown_key(request, made.key), secret=made.whole)


def shown_key(request: ApiRequest, key: ApiKey) -> KeySchema:
    """A key as it is answered."""
    now = request.services.database.now()
    is_over = key.expires_at is not None and key.expires_at <= now
    overlaps = key.earlier_until is not None and key.earlier_until > now
    return KeySchema(
        id=key.id,
        kind="server" if key.kind == "server" else "browser",
        name=key.name,
        state="ended" if key.ended else "expired" if is_over else "in_use",
        scopes=list(key.scopes),
        origins=list(key.origins),
        forms=list(key.forms),
        targets=list(key.targets),
        created_at=key.created_at,
        expires_at=key.expires_at,
        used_at=key.used_at,
        rotated_at=key.rotated_at,
        earlier_until=key.earlier_until if overlaps else None,
        monthly_limit=key.allowance.limit,
        warn_share=key.allowance.warn_share,
    )
