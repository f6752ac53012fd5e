"""Abbreviations and transliterations: one definition for what is indexed and what is typed.

The index holds long forms only: `St` of the data is indexed as `street` and `saint`, and `st`
that is typed is read as the beginning of a word, as `street` and as `saint`. Letters with two
usual transliterations are indexed under both: `Müller` as `muller` and `mueller`.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from functools import cache, lru_cache
from importlib import resources
from typing import Any

from anchorline.yaml_documents import read_yaml

from .text import tokens

# The usual two-letter transliterations of letters that folding turns into one.
_TWO_LETTERS = {"ä": "ae", "ö": "oe", "ü": "ue", "ø": "oe", "å": "aa"}
_TWO_LETTER_TABLE = str.maketrans(
    {**_TWO_LETTERS, **{k.upper(): v for k, v in _TWO_LETTERS.items()}}
)
_HAS_TWO_LETTERS = re.compile("[äöüøåÄÖÜØÅ]")
_ONE_LETTER = (("ae", "a"), ("oe", "o"), ("ue", "u"), ("aa", "a"))
SHORTEST_STEM = 3

# What stands before a unit, or before a street number, and says which of them it is.
UNIT_DESIGNATORS = frozenset({
    "flat", "apt", "apartment", "unit", "suite", "ste", "room", "rm", "floor", "wohnung", "whg",
    "appartement", "appt", "apto", "apartamento", "lot",
})  # fmt: skip
NUMBER_DESIGNATORS = frozenset({"no", "nr", "num", "number", "numero"})


@dataclass(slots=True)
class _Shortened:
    """One language's, or all languages', short forms."""

    long_of: dict[str, tuple[str, ...]] = field(default_factory=dict)
    short_of: dict[str, tuple[str, ...]] = field(default_factory=dict)
    endings: dict[str, tuple[str, ...]] = field(default_factory=dict)

    def add(self, document: dict[str, dict[str, list[str]]]) -> None:
        """Takes in one language of the file."""
        for long, shorts in document["words"].items():
            self.short_of[long] = _with(self.short_of.get(long), shorts)
            for short in shorts:
                self.long_of[short] = _with(self.long_of.get(short), [long])
        for long, shorts in document.get("endings", {}).items():
            for short in shorts:
                self.endings[short] = _with(self.endings.get(short), [long])


def _with(known: tuple[str, ...] | None, more: Iterable[str]) -> tuple[str, ...]:
    return tuple(dict.fromkeys((*(known or ()), *more)))


@cache
def _file() -> dict[str, Any]:
    path = resources.files("anchorline.core") / "data" / "abbreviations.yaml"
    document: dict[str, Any] = read_yaml(path.read_bytes())
    return document


@cache
def _shortened(languages: tuple[str, ...]) -> _Shortened:
    """The short forms of some languages together; of all, where none is given."""
    found = _Shortened()
    for language in languages or tuple(_file()):
        if language in _file():
            found.add(_file()[language])
    return found


def index_words(text: str, languages: Sequence[str]) -> list[tuple[str, int]]:
    """The words under which a text of some languages is indexed, each with its token's place.

    A token comes in its long forms, and transliterated both ways where it can be: all of these
    have the same place.
    """
    spelt_out = tokens(text.translate(_TWO_LETTER_TABLE)) if _HAS_TWO_LETTERS.search(text) else None
    folded = tokens(text)
    shortened = _shortened(tuple(languages))
    places: dict[str, int] = {}
    for place, token in enumerate(folded):
        words = long_forms(token, shortened) or (token,)
        if spelt_out and len(spelt_out) == len(folded) and spelt_out[place] != token:
            words = (*words, *(long_forms(spelt_out[place], shortened) or (spelt_out[place],)))
        for word in words:
            places.setdefault(word, place)
    return list(places.items())


def long_forms(token: str, shortened: _Shortened) -> tuple[str, ...]:
    """What a short form stands for; nothing where the token is no short form."""
    found = shortened.long_of.get(token)
    if found:
        return found
    return tuple(
        token[: -len(short)] + long
        for short, longs in shortened.endings.items()
        if token.endswith(short) and len(token) - len(short) >= SHORTEST_STEM
        for long in longs
    )


@cache
def _all_languages() -> _Shortened:
    return _shortened(())


@lru_cache(maxsize=4096)
def typed_long_forms(token: str, *, unfinished: bool = False) -> tuple[str, ...]:
    """What a typed token may stand for in any language, beside itself.

    An unfinished one may be the beginning of a short form: `bl` on the way to `blvd`.
    """
    found = long_forms(token, _all_languages())
    return _with(found, _begun_short_forms().get(token, ())) if unfinished else found


@cache
def _begun_short_forms() -> dict[str, tuple[str, ...]]:
    """What every beginning of a short form, of two letters or more, may stand for."""
    found: dict[str, tuple[str, ...]] = {}
    for short, longs in _all_languages().long_of.items():
        for end in range(2, len(short) + 1):
            found[short[:end]] = _with(found.get(short[:end]), longs)
    return found


def load_abbreviations() -> None:
    """Reads the short forms: a tenth of a second that no search should wait for."""
    _begun_short_forms()


def typed_transliterated(text: str) -> list[str] | None:
    """The tokens of a typed text with ü as ue and so on, or None where it has no such letter."""
    if text.isascii() or not _HAS_TWO_LETTERS.search(text):
        return None
    return tokens(unicodedata.normalize("NFC", text).translate(_TWO_LETTER_TABLE))


@lru_cache(maxsize=65536)
def short_form(word: str, languages: tuple[str, ...]) -> str:
    """A word of some languages in its usual short form and its own case; empty where it has none.

    `Street` is `St`, `HAUPTSTRASSE` is `HAUPTSTR`; a comma behind the word stays.
    """
    core = word.rstrip(",;")
    folded = tokens(core)
    shortened = _shortened(languages) if languages else _Shortened()
    if len(folded) != 1:
        return ""
    shorts = shortened.short_of.get(folded[0])
    written = shorts[0] if shorts else _short_ending(folded[0], core, shortened)
    if not written or len(written) >= len(core):
        return ""
    if core.isupper():
        written = written.upper()
    elif core[0].isupper():
        written = written[0].upper() + written[1:]
    return written + word[len(core) :]


def _short_ending(folded: str, word: str, shortened: _Shortened) -> str:
    """A joined word with a short ending: Hauptstraße is Hauptstr."""
    for short, longs in shortened.endings.items():
        for long in longs:
            # The ending may be written with fewer letters than its folded form has: straße.
            written = len(long) - (len(folded) - len(word))
            if folded.endswith(long) and len(word) - written >= SHORTEST_STEM:
                return word[: len(word) - written] + short
    return ""


def in_two_letters(text: str) -> str:
    """A text with ä as ae, ø as oe, å as aa; Ü is Ue before a small letter, else UE."""
    named = re.sub(r"[ÄÖÜØÅ](?=[^\W\d_A-ZÄÖÜØÅ])", lambda m: _two_of_name(m.group()), text)
    return named.translate(_TWO_LETTER_TABLE)


def _two_of_name(letter: str) -> str:
    return _TWO_LETTERS[letter.lower()].capitalize()


@lru_cache(maxsize=4096)
def same_words(token: str) -> tuple[str, ...]:
    """Other folded tokens of a label that a typed token may stand for: for highlighting."""
    shortened = _all_languages()
    found = (*typed_long_forms(token), *shortened.short_of.get(token, ()))
    plain = token
    for two, one in _ONE_LETTER:
        plain = plain.replace(two, one)
    return (*found, plain) if plain != token else found
