"""API: keys, listed, made, rotated and ended."""

from __future__ import annotations

from datetime import timedelta

from anchorline.application.once import once
from anchorline.core.keys import SCOPES, WantedKey, checked_key
from anchorline.store.keys import ApiKey, EndedKeyError, NewSecret
from anchorline.wire.base import Schema
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
from ..problems import ProblemError, invalid

router = Router("keys", "administer")


@router.endpoint("GET", "/keys", access=Access.SERVER, answer=KeyList)
def list_keys(request: ApiRequest) -> Schema:
    """All keys without their secrets, and what a server key can be for."""
    return KeyList(
        keys=[shown_key(request, key) for key in request.services.keys.list()],
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
    body, services = request.body(NewKeyRequest), request.services
    forms, targets = services.forms.keys(), services.targets.keys()
    given = WantedKey(**body.model_dump())
    wanted, problems = checked_key(given, forms, targets, services.database.now())
    if problems:
        raise invalid(problems)
    _require_no_more(request, wanted)
    secrets: dict[str, NewSecret] = {}

    def make() -> str:
        made = services.keys.create(wanted)
        secrets[made.key.id] = made
        return made.key.id

    once_by = idempotency_key(request, "keys/", request.http.get_data())
    identifier = once(services, once_by, make)
    if identifier not in secrets:
        raise ProblemError(
            409,
            f"This request has made the key {identifier} before, and its secret was shown then and "
            "is kept nowhere. If it was lost, end that key and make another one.",
        )
    return ApiResponse(_with_secret(request, secrets[identifier]), status=201)


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
    keys, identifier = request.services.keys, request.path["key"]
    there = keys.get(identifier)
    _require_no_more(request, WantedKey(there.kind, there.name, there.scopes))
    overlap = timedelta(hours=request.body(RotateKeyRequest).overlap_hours)
    try:
        made = keys.rotate(identifier, overlap)
    except EndedKeyError as error:
        raise ProblemError(409, str(error)) from None
    return ApiResponse(_with_secret(request, made))


@router.endpoint("POST", "/keys/<key>/end", access=Access.SERVER, answer=KeySchema)
def end_key(request: ApiRequest) -> Schema:
    """Ends a key for good: within seconds nobody can use it any more."""
    return shown_key(request, request.services.keys.end(request.path["key"]))


def _require_no_more(request: ApiRequest, wanted: WantedKey) -> None:
    """403 where a key would hand out what it may not do itself."""
    own = request.caller.scopes
    if own is None:
        return
    if request.caller.allowance.is_limited:
        detail = (
            "This key has an allowance, and a key that it makes or rotates would have none. "
            "Use a key without one, or the console."
        )
        raise ProblemError(403, detail)
    needed = wanted.scopes if wanted.kind == "server" else ("find", "records")
    more = [name for name in needed if name not in own]
    if more:
        detail = (
            f"This key may not do that itself: it lacks the scope {', '.join(more)}. "
            "Use a key that has it, or the console."
        )
        raise ProblemError(403, detail)


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
