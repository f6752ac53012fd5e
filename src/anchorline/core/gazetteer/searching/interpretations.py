"""Interpretations of what was typed, the most literal first.

| interpretation | what it takes the typed text for |
|---|---|
| as typed | every word whole, the last one perhaps unfinished |
| put together | two tokens as one: the halves of a postcode, a number and its suffix |
| taken apart | a number and the name behind it that were typed as one: `16abbey` |
| number begun | a street number, or a postcode, of which the first digits are typed |
| unit | a single number for a unit, or the beginning of `flat`, `apto` …, where it is no other |
| begun | every longer word perhaps unfinished: `kiln cres brack` |
| joined or split | words written apart or together otherwise: `oak field`, `hauptstrasse` |
| without number | the street whose number there is not: its neighbours |
| corrected | words with one edit, long ones with two |
| without country | all but the name of a country at the end |
| in part | most of the words: a whole address pasted with a name and a country |

An interpretation is tried only where those before it found nothing, so a literal match is never
outranked by a guess.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence

from ...abbreviations import NUMBER_DESIGNATORS, UNIT_DESIGNATORS
from ...kinds import NODE_KINDS
from ...text import tokens as tokens_of
from ..arrays import FIELD_BITS, Field
from ..edition import Edition
from .terms import LookUp, Token

SHORTEST_BEGUN = 2
SHORTEST_JOINED = 5
# So many tokens a postcode is typed as, at most.
MOST_PARTS = 3
SHORTEST_POSTCODE, LONGEST_POSTCODE = 5, 10
MOST_SPLITS = 6
LONGEST_COUNTRY = 5
MOST_NUMBERS = 3
_DESIGNATORS = UNIT_DESIGNATORS | NUMBER_DESIGNATORS
# Two letters may be a suffix or an ending: `12th`, `2de`.
_NUMBER_AND_NAME = re.compile(r"([0-9]+)([^0-9]{3,})")
_SUFFIXES = frozenset({"bis", "ter", "quater", "quinquies"})

_POSTCODE = NODE_KINDS.index("postcode")

Interpretation = list[Token]


def without_country(
    tokens: Interpretation, names: Mapping[str, str]
) -> tuple[Interpretation, str] | None:
    """The tokens without a country's name at their end, and its code; None: there is none.

    Args:
        names: codes of countries by folded name.
    """
    for width in range(1, min(LONGEST_COUNTRY, len(tokens) - 1) + 1):
        code = names.get(" ".join(token.text for token in tokens[-width:]))
        if code is not None:
            return tokens[:-width], code
    return None


def without_designators(tokens: Interpretation) -> Interpretation:
    """Tokens without `flat`, `no` and the like that stand before a number; units are marked."""
    if _DESIGNATORS.isdisjoint(token.text for token in tokens):
        return tokens
    kept: Interpretation = []
    before = ""
    for place, token in enumerate(tokens):
        numberlike = token.has_digit or len(token.text) == 1
        if numberlike and before in UNIT_DESIGNATORS:
            token = token._replace(unit=True)
        following = tokens[place + 1] if place + 1 < len(tokens) else None
        stands_before = following is not None and (following.has_digit or len(following.text) == 1)
        if not (stands_before and token.text in _DESIGNATORS):
            kept.append(token)
        before = token.text
    return kept


def put_together(
    edition: Edition, tokens: Interpretation
) -> tuple[Interpretation | None, list[Interpretation]]:
    """Neighbours as one token: an interpretation that is surely meant, and those that may be.

    Two halves of a whole postcode are surely one; what begins a postcode, and a number with
    a suffix of its own, may be.
    """
    digits = [token.has_digit for token in tokens]
    if True not in digits:
        return None, []
    merged: Interpretation = []
    perhaps: list[Interpretation] = []
    place = 0
    while place < len(tokens):
        if True not in digits[place : place + MOST_PARTS]:
            merged.append(tokens[place])
            place += 1
            continue
        width, one = _whole_postcode(edition, tokens, place)
        merged.append(one)
        if width == 1 and True in digits[place : place + 2] and place + 1 < len(tokens):
            maybe = _perhaps_one(edition, tokens[place], tokens[place + 1])
            if maybe is not None:
                perhaps.append([*tokens[:place], maybe, *tokens[place + 2 :]])
        place += width
    return (merged if len(merged) < len(tokens) else None), perhaps


def _whole_postcode(edition: Edition, tokens: Interpretation, place: int) -> tuple[int, Token]:
    """The token at a place, or three or two from there on that are one postcode."""
    for width in range(min(MOST_PARTS, len(tokens) - place), 1, -1):
        some = tokens[place : place + width]
        parts = [token.text for token in some]
        text = "".join(parts)
        short = len(text) <= LONGEST_POSTCODE and not text.isalpha()
        if short and _is_postcode(edition, text, parts):
            return width, Token(text, some[-1].unfinished, width, parts=tuple(parts))
    return 1, tokens[place]


def _perhaps_one(edition: Edition, first: Token, second: Token) -> Token | None:
    """A number and its suffix, or what begins a postcode, as one token."""
    text = first.text + second.text
    if len(text) > LONGEST_POSTCODE:
        return None
    if _is_suffix(first.text, second.text) and edition.numbers.find(text) is not None:
        return Token(text, width=2, parts=(first.text, second.text))
    if second.unfinished and len(text) > 2 and _begins(edition, text):
        return Token(text, unfinished=True, width=2, parts=(first.text, second.text))
    return None


def _is_postcode(edition: Edition, text: str, parts: Sequence[str]) -> bool:
    """Whether tokens are one postcode; digits alone only where it is parted as they are."""
    word = edition.words.find(text)
    if word is None:
        return False
    nodes = edition.postings(word, word + 1)
    of_kind = nodes[edition.node_kind[nodes] == _POSTCODE]
    own = edition.node_words[of_kind, 0] == word << FIELD_BITS | Field.NAME_START
    if text.isdigit():
        return any(
            tokens_of(edition.node_text(node, "postcode")) == parts
            for node in of_kind[own].tolist()
        )
    return bool(own.any())


def _is_suffix(number: str, text: str) -> bool:
    return number.isdigit() and ((len(text) == 1 and text.isalpha()) or text in _SUFFIXES)


def _begins(edition: Edition, text: str) -> bool:
    first, end = edition.words.prefix_range(text)
    return first < end


def perhaps_postcodes(tokens: Interpretation) -> Iterator[tuple[Interpretation, int]]:
    """Those in which a token, or two as one, may be a misspelt postcode, and its place."""
    for place, token in enumerate(tokens):
        if token.has_digit and len(token.text) >= SHORTEST_POSTCODE:
            yield tokens, place
        if place + 1 < len(tokens):
            second = tokens[place + 1]
            text = token.text + second.text
            if (
                (token.has_digit or second.has_digit)
                and SHORTEST_POSTCODE <= len(text) <= LONGEST_POSTCODE
                and text.isascii()
            ):
                one = Token(text, width=2, parts=(token.text, second.text))
                yield [*tokens[:place], one, *tokens[place + 2 :]], place


def begun(tokens: Interpretation) -> Interpretation | None:
    """All longer words unfinished, or None where that is no other interpretation."""
    loosened = [
        token._replace(unfinished=True)
        if len(token.text) >= SHORTEST_BEGUN and not token.has_digit
        else token
        for token in tokens
    ]
    return loosened if loosened != tokens else None


def taken_apart(look_up: LookUp, tokens: Interpretation) -> Interpretation | None:
    """Each number and name that were typed as one as two tokens; None where there is none.

    Only where nothing is called so as a whole (`12b`, `3rd`).
    """
    parted: Interpretation = []
    for token in tokens:
        match = _NUMBER_AND_NAME.fullmatch(token.text)
        if match is None or match[2] in _SUFFIXES or look_up(token).found:
            parted.append(token)
            continue
        name = token._replace(text=match[2], also=tuple(a[len(match[1]) :] for a in token.also))
        parted += [Token(match[1]), name]
    return parted if len(parted) > len(tokens) else None


def joined(look_up: LookUp, tokens: Interpretation) -> Iterator[Interpretation]:
    """Two neighbouring words as one that there is."""
    for place in range(len(tokens) - 1):
        first, second = tokens[place], tokens[place + 1]
        text = first.text + second.text
        if first.has_digit or second.has_digit or len(text) < SHORTEST_JOINED:
            continue
        one = Token(text, second.unfinished, width=2, parts=(first.text, second.text))
        if look_up.knows(text, unfinished=second.unfinished):
            yield [*tokens[:place], one, *tokens[place + 2 :]]


def split(look_up: LookUp, tokens: Interpretation, place: int) -> Iterator[Interpretation]:
    """A word as two that there are."""
    token = tokens[place]
    found = 0
    for cut in range(2, len(token.text) - 1):
        if not look_up.knows(token.text[:cut]):
            continue
        first = Token(token.text[:cut])
        second = Token(token.text[cut:], token.unfinished)
        if look_up(first).spans and look_up(second).spans:
            yield [*tokens[:place], first, second, *tokens[place + 1 :]]
            found += 1
            if found == MOST_SPLITS:
                return


def without_numbers(tokens: Sequence[Token]) -> Iterator[tuple[Interpretation, tuple[str, ...]]]:
    """The tokens without one of several numbers, then without all, and the numbers left out.

    The last token that stays may be unfinished.
    """
    numbers = [place for place, token in enumerate(tokens) if token.has_digit]
    words = len(tokens) - len(numbers)
    choices = [[place] for place in numbers] if 1 < len(numbers) <= MOST_NUMBERS else []
    for left_out in [*choices, numbers]:
        kept = [token for place, token in enumerate(tokens) if place not in left_out]
        if words and left_out:
            kept[-1] = kept[-1]._replace(unfinished=True)
            yield kept, tuple(tokens[place].text for place in left_out)
