"""The type of a column that is no address, guessed from its name and its first values."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from ...counting import counted
from ...text import fold
from .columns import Column

_DATE = re.compile(r"\d{4}-\d\d-\d\d|\d{1,2}[./]\d{1,2}[./]\d{2,4}")
_NUMBER = re.compile(r"-?(0|[1-9]\d{0,11})([.,]\d{1,6})?")
_PHONE = re.compile(r"[+0(][\d ()/.-]{6,20}")
_WORD = re.compile(r"[^\W_]+")
_EMAIL = re.compile(r"[^@\s]+@[^@\s]+\.[^@\s]+")
_YES_NO = re.compile("yes|no|y|n|true|false|x|ja|nein|nee|oui|non|sim|não|1|0", re.IGNORECASE)
_LOOKS = {
    "email": ("e-mail addresses", _EMAIL),
    "date": ("dates", _DATE),
    "yes_no": ("yes or no", _YES_NO),
    "number": ("numbers", _NUMBER),
    "phone": ("phone numbers", _PHONE),
}
_NAMES = {
    "email": ("email", "e mail", "mail", "courriel"),
    "phone": ("phone", "telephone", "tel", "mobile", "telefon", "telefoon", "telefone", "fax"),
    "date": ("date", "datum", "data", "born", "birthday", "geburtstag"),
    "long_text": ("note", "notes", "remark", "remarks", "comment", "comments", "bemerkung"),
}
_MOST_OPTIONS = 8
_LONG = 80


@dataclass(frozen=True, slots=True)
class TypeGuess:
    """A type with its reason, and the options of a choice."""

    type: str
    because: str
    options: tuple[str, ...] = ()


def guess_type(column: Column) -> TypeGuess:
    """The type that fits a column's values, or else its name."""
    values = column.values
    by_values = _by_values(values)
    if by_values is not None:
        return by_values
    named = _by_name(column.name)
    if named is not None and (not values or named.type in ("phone", "long_text")):
        return named
    distinct = list(dict.fromkeys(values))
    if len(values) >= 2 * len(distinct) and 2 <= len(distinct) <= _MOST_OPTIONS:
        because = f"It has {len(distinct)} values that come again and again."
        return TypeGuess("choice", because, tuple(distinct))
    if any(len(value) > _LONG for value in values):
        return TypeGuess("long_text", "Some of its values are long.")
    return TypeGuess("text", "Nothing speaks for another type.")


def _by_values(values: Sequence[str]) -> TypeGuess | None:
    if not values:
        return None
    looked_at = f"all of {counted(len(values), 'value')}"
    for name, (called, pattern) in _LOOKS.items():
        if all(pattern.fullmatch(value) for value in values):
            return TypeGuess(name, f"Its values look like {called} ({looked_at}).")
    return None


def _by_name(name: str) -> TypeGuess | None:
    words = f" {' '.join(_WORD.findall(fold(name)))} "
    for type_, called in _NAMES.items():
        hit = next((one for one in called if f" {one} " in words), None)
        if hit is not None:
            return TypeGuess(type_, f"Its name says “{hit}”.")
    return None
