"""Which passwords are taken: long ones that nobody would try first."""

from __future__ import annotations

from functools import lru_cache

from zxcvbn.frequency_lists import FREQUENCY_LISTS

from anchorline.store.users import normal_email

SHORTEST = 10
_COMMONEST = 10_000


def password_problem(password: str, email: str) -> str | None:
    """Why a password is not taken, as a sentence; None where it is."""
    if len(password) < SHORTEST:
        return f"At least {SHORTEST} characters."
    folded = password.strip().casefold()
    address = normal_email(email)
    if folded in (address, address.partition("@")[0]):
        return "The e-mail address is no password; take something that nobody knows of you."
    if folded in _common() or len(set(folded)) < 3:
        return "This is one of the commonest passwords; take another one."
    return None


@lru_cache(maxsize=1)
def _common() -> frozenset[str]:
    return frozenset(FREQUENCY_LISTS["passwords"][:_COMMONEST])
