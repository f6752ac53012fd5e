"""Numbers with their nouns, for messages."""

from __future__ import annotations


def counted(number: int, one: str, many: str = "") -> str:
    """A number with its noun: `1 record`, `2,000 records`, `1 address is`, `2 addresses are`."""
    return f"{number:,} {one if number == 1 else many or one + 's'}"
