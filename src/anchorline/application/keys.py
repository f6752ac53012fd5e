"""Keys: made, rotated, ended; none can hand out more than it may do itself."""

from __future__ import annotations

from datetime import timedelta

from anchorline.core.keys import WantedKey, checked_key
from anchorline.store.idempotency import IdempotencyKey
from anchorline.store.keys import EndedKeyError, NewSecret

from .caller import Caller
from .errors import ConflictError, ForbiddenError, InvalidError
from .once import once
from .services import Services

# What whoever has a browser key can do with it.
_OF_BROWSER_KEYS = ("find", "records")


def make_key(
    services: Services, caller: Caller, given: WantedKey, once_by: IdempotencyKey | None
) -> NewSecret:
    """Makes a key; its secret is in the answer and nowhere else.

    Args:
        once_by: by which a repeated request is known.

    Raises:
        InvalidError: something in what is wanted is wrong.
        ForbiddenError: it may do more than whoever makes it.
        ConflictError: the same request has made it before, and its secret was shown then.
    """
    forms, targets = services.forms.keys(), services.targets.keys()
    wanted, problems = checked_key(given, forms, targets, services.database.now())
    if problems:
        raise InvalidError(problems)
    _require_no_more(caller, wanted)
    secrets: dict[str, NewSecret] = {}

    def make() -> str:
        made = services.keys.create(wanted)
        secrets[made.key.id] = made
        return made.key.id

    identifier = once(services, once_by, make)
    if identifier not in secrets:
        raise ConflictError(
            f"This request has made the key {identifier} before, and its secret was shown then and "
            "is kept nowhere. If it was lost, end that key and make another one."
        )
    return secrets[identifier]


def rotate_key(
    services: Services, caller: Caller, identifier: str, overlap: timedelta
) -> NewSecret:
    """Gives a key a new secret; the present one goes on beside it for a while.

    Raises:
        NotThereError: there is no such key.
        ForbiddenError: it may do more than whoever rotates it.
        ConflictError: it is ended.
    """
    there = services.keys.get(identifier)
    _require_no_more(caller, WantedKey(there.kind, there.name, there.scopes))
    try:
        return services.keys.rotate(identifier, overlap)
    except EndedKeyError as error:
        raise ConflictError(str(error)) from None


def _require_no_more(caller: Caller, wanted: WantedKey) -> None:
    """ForbiddenError where a key would hand out what it may not do itself."""
    own = caller.scopes
    if own is None:
        return
    if caller.allowance.is_limited:
        raise ForbiddenError(
            "This key has an allowance, and a key that it makes or rotates would have none. "
            "Use a key without one, or the console."
        )
    needed = wanted.scopes if wanted.kind == "server" else _OF_BROWSER_KEYS
    more = [name for name in needed if name not in own]
    if more:
        raise ForbiddenError(
            f"This key may not do that itself: it lacks the scope {', '.join(more)}. "
            "Use a key that has it, or the console."
        )
