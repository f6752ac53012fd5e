"""Keys of proposed fields: what each is called, each once."""

from __future__ import annotations

import re
from collections.abc import Sequence

from .meaning import token_of, whose, words_of
from .seen import SeenField

_SIGNS = re.compile(r"[^a-z0-9]+")
_LONGEST = 50


def keys_of(seen: Sequence[SeenField]) -> list[str]:
    """A key for each field."""
    found: list[str] = []
    for place, one in enumerate(seen, 1):
        word, token = whose(one)[0], token_of(one)
        called = f"{word}-{token}" if word and token else token or one.name or one.id or one.label
        plain = _SIGNS.sub("-", words_of(called)).strip("-")[:_LONGEST].strip("-")
        plain = plain or f"field-{place}"
        plain = plain if plain[:1].isalpha() else f"field-{plain}"
        key, number = plain, 2
        while key in found:
            key, number = f"{plain}-{number}", number + 1
        found.append(key)
    return found
