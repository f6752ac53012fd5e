"""Folding and tokens: one definition for what is indexed and what is typed.

Folding makes spellings that people hold for the same equal: case, diacritics, ligatures,
full-width forms, apostrophes. Tokens are runs of letters or digits of the folded text,
except that scripts written without spaces (kanji, kana) give one token a character, so
that a prefix of a name is a sequence of whole tokens. `token_spans` also says which
characters of the original a token came from, for highlighting.
"""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass
from functools import lru_cache

# Letters that Unicode does not decompose but that people type as plain ones.
_PLAIN_LETTERS = {
    "ß": "ss", "ẞ": "ss", "æ": "ae", "œ": "oe", "ø": "o", "ł": "l", "đ": "d", "ð": "d",
    "þ": "th", "ı": "i", "ħ": "h", "ŧ": "t", "ŋ": "n", "ĸ": "k",
}  # fmt: skip
# Marks inside a word that join rather than part: d'Arc, O’Brien, soft hyphen.
_JOINERS = frozenset("'’‘ʼ`´\u00ad\u200b\u200c\u200d.")
# Letters and digits that touch stay one token (`12a`, `qv1`), except a word of three
# letters or more before digits: `apt4` is `apt` and `4`.
_RUNS = re.compile(r"[^\W\d_]{3,}(?=\d)|[^\W_]+")


@dataclass(frozen=True, slots=True)
class TokenSpan:
    """A folded token and the range [start, end) of the original's characters it came from."""

    text: str
    start: int
    end: int


@lru_cache(maxsize=65536)
def fold_character(character: str) -> str:
    """The folded form of one character: nothing, one or several plain characters."""
    if character in _JOINERS:
        return ""
    lowered = character.lower()
    if lowered in _PLAIN_LETTERS:
        return _PLAIN_LETTERS[lowered]
    if _is_spaceless(character):
        # Compatibility forms only (half-width kana): a mark on kana is another letter.
        return unicodedata.normalize("NFKC", character)
    decomposed = unicodedata.normalize("NFKD", lowered)
    return "".join(
        _PLAIN_LETTERS.get(c, c) for c in decomposed.lower() if not unicodedata.combining(c)
    )


def fold(text: str) -> str:
    """Folded text: lower case, no diacritics, one blank between tokens.

    Folding is idempotent: `fold(fold(x)) == fold(x)`.
    """
    return " ".join(span.text for span in token_spans(text))


def tokens(text: str) -> list[str]:
    """The folded tokens of a text, in order."""
    return list(_cached_tokens(text))


@lru_cache(maxsize=65536)
def _cached_tokens(text: str) -> tuple[str, ...]:
    return tuple(span.text for span in token_spans(text))


def token_spans(text: str) -> list[TokenSpan]:
    """The folded tokens of a text with the characters they came from, in order."""
    folded: list[str] = []
    origin: list[int] = []
    for position, character in enumerate(unicodedata.normalize("NFC", text)):
        plain = fold_character(character)
        folded.append(plain)
        origin.extend([position] * len(plain))
    joined = "".join(folded)
    spans: list[TokenSpan] = []
    for run in _RUNS.finditer(joined):
        for start, end in _split_spaceless(joined, run.start(), run.end()):
            spans.append(TokenSpan(joined[start:end], origin[start], origin[end - 1] + 1))
    return spans


def _split_spaceless(text: str, start: int, end: int) -> list[tuple[int, int]]:
    """Cuts a run into single characters where its script has no spaces."""
    pieces: list[tuple[int, int]] = []
    begin = start
    for position in range(start, end):
        if _is_spaceless(text[position]):
            if begin < position:
                pieces.append((begin, position))
            pieces.append((position, position + 1))
            begin = position + 1
    if begin < end:
        pieces.append((begin, end))
    return pieces


def _is_spaceless(character: str) -> bool:
    """Whether a character belongs to a script written without spaces (kanji, kana)."""
    code = ord(character)
    return 0x3040 <= code <= 0x30FF or 0x3400 <= code <= 0x9FFF or 0xFF66 <= code <= 0xFF9D


_NATURAL = re.compile(r"(\d+)")


@lru_cache(maxsize=65536)
def natural_key(text: str) -> tuple[tuple[int, int, str], ...]:
    """A sort key that puts 2 before 10 and `12` before `12a`; the empty text comes first."""
    parts = [part for part in _NATURAL.split(fold(text).replace(" ", "")) if part]
    return tuple((0, int(part), "") if part.isdecimal() else (1, 0, part) for part in parts)


@lru_cache(maxsize=65536)
def compact(text: str) -> str:
    """Folded text without blanks: how postcodes are compared."""
    return fold(text).replace(" ", "")


def has_control_characters(text: str) -> bool:
    """Whether a text holds control characters other than tab and line breaks."""
    return any(unicodedata.category(c) == "Cc" and c not in "\t\n\r" for c in text)


def has_spaceless_script(text: str) -> bool:
    """Whether a text holds a character of a script written without spaces (kanji, kana)."""
    return any(map(_is_spaceless, text))
