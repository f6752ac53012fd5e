"""Doing what a repeated request asks for once only."""

from __future__ import annotations

from collections.abc import Callable

from anchorline.store.database import AlreadyThereError
from anchorline.store.idempotency import IdempotencyKey, kept_for, made_before, note_key

from .services import Services


def once(services: Services, key: IdempotencyKey | None, make: Callable[[], str]) -> str:
    """The id of what a request makes, or of what it made before.

    What is made and the note of its key are kept together, or neither is.

    Args:
        key: by which a repeated request is known; None: it is none.
        make: makes it, by the stores of these services, and gives its id.

    Raises:
        ReusedKeyError: the key came before with another request.
    """
    if key is None:
        return make()
    if (before := kept_for(services.database, key)) is not None:
        return before

    def work(_session: object) -> str:
        made, now = make(), services.database.now()
        try:
            services.database.run(lambda session: note_key(session, key, made, now))
        except AlreadyThereError:
            raise _BesideError from None
        return made

    try:
        return services.database.run(work)
    except _BesideError:
        return made_before(services.database, key)


class _BesideError(Exception):
    """The same request was answered beside this one: what this one has made is undone."""
