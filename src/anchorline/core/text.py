"""Folding and tokens: one definition for what is indexed and for what is typed.

Folding makes texts equal that people take for the same: it removes case, diacritics, ligatures,
full-width forms and apostrophes. Tokens are sequences of letters or digits of the folded text; in
scripts without spaces (kanji, kana) each character is a token, so the beginning of a name is a
sequence of whole tokens. `token_spans` also gives the characters of the original that each token
came from, for highlighting.
"""

from __future__ import annotations

import re
import unicodedata
from functools import lru_cache
from typing import NamedTuple

from .tokenizer import cut_spans, cut_tokens

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


class TokenSpan(NamedTuple):
    """A folded token and the range [start, end) of the original's characters it came from.

    `even`: whether its characters correspond one to one, in order, to those of the original.
    """

    text: str
    start: int
    end: int
    even: bool = True


@lru_cache(maxsize=65536)
def fold_character(character: str) -> str:
    """The folded form of one character: nothing, one or several plain characters."""
    if character in _JOINERS:
        return ""
    lowered = character.lower()
    if lowered in _PLAIN_LETTERS:
        return _PLAIN_LETTERS[lowered]
    if character.isdecimal():
        return str(unicodedata.decimal(character))  # of any script: ٣ is typed for 3
    if _is_spaceless(character):
        # Compatibility forms only (half-width kana): a mark on kana is another letter.
        return unicodedata.normalize("NFKC", character)
    decomposed = unicodedata.normalize("NFKD", lowered)
    return "".join(
        _PLAIN_LETTERS.get(c, c) for c in decomposed.lower() if not unicodedata.combining(c)
    )


class _FoldTable(dict[int, str]):
    """What `str.translate` asks: the folded form of a code point, worked out once."""

    def __missing__(self, code: int) -> str:
        folded = self[code] = fold_character(chr(code))
        return folded


_FOLDED = _FoldTable()
_SPACELESS = re.compile("[\u3040-\u30ff\u3400-\u9fff\uff66-\uff9d]")


def fold(text: str) -> str:
    """Folded text: lower case, no diacritics, one blank between tokens.

    Folding is idempotent: `fold(fold(x)) == fold(x)`.
    """
    return " ".join(tokens(text))


def tokens(text: str) -> list[str]:
    """The folded tokens of a text, in order."""
    composed = text if text.isascii() else unicodedata.normalize("NFC", text)
    found = cut_tokens(composed, _FOLDED)
    if found is not None:
        return found
    folded = composed.translate(_FOLDED)
    return [
        folded[start:end]
        for run in _RUNS.finditer(folded)
        for start, end in _split_spaceless(folded, run.start(), run.end())
    ]


def token_spans(text: str) -> list[TokenSpan]:
    """The folded tokens of a text with the characters they came from, in order."""
    composed = unicodedata.normalize("NFC", text)
    found = cut_spans(composed, _FOLDED)
    if found is not None:
        return [TokenSpan(*fields) for fields in found]
    folded: list[str] = []
    origin: list[int] = []
    for position, character in enumerate(composed):
        plain = _FOLDED[ord(character)]
        folded.append(plain)
        origin.extend([position] * len(plain))
    joined = "".join(folded)
    spans: list[TokenSpan] = []
    for run in _RUNS.finditer(joined):
        for start, end in _split_spaceless(joined, run.start(), run.end()):
            even = origin[start:end] == list(range(origin[start], origin[start] + end - start))
            spans.append(TokenSpan(joined[start:end], origin[start], origin[end - 1] + 1, even))
    return spans


def _split_spaceless(text: str, start: int, end: int) -> list[tuple[int, int]]:
    """Cuts a run into single characters where its script has no spaces."""
    if not _SPACELESS.search(text, start, end):
        return [(start, end)]
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
    return _SPACELESS.match(character) is not None


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
    return _SPACELESS.search(text) is not None
