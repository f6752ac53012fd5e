"""Texts: parts, case, finding and replacing. Places count characters from 1."""

from __future__ import annotations

import math
import re

from ..formats import written
from ..occurrence import place_of_whole
from ..values import MOST_CHARACTERS, Problem, Value, folded, to_number
from .registry import ANY, NUMBER, TEXT, YES_NO, function, needed, optional

_TEXT = needed("text", TEXT)
_WORD = re.compile(r"[^\W\d_]+")


@function("LEN", [_TEXT], NUMBER, "How many characters a text has.", ('LEN("piano")', "5"))
def _len(text: str) -> Value:
    return float(len(text))


@function(
    "LEFT",
    [_TEXT, optional("length", NUMBER, 1.0)],
    TEXT,
    "The beginning of a text.",
    ('LEFT("piano"; 2)', "pi"),
)
def _left(text: str, length: float) -> Value:
    return text[: math.floor(length)] if length >= 0 else Problem("out-of-range")


@function(
    "RIGHT",
    [_TEXT, optional("length", NUMBER, 1.0)],
    TEXT,
    "The end of a text.",
    ('RIGHT("piano"; 2)', "no"),
)
def _right(text: str, length: float) -> Value:
    if length < 0:
        return Problem("out-of-range")
    return text[max(0, len(text) - math.floor(length)) :]


@function(
    "MID",
    [_TEXT, needed("start", NUMBER), needed("length", NUMBER)],
    TEXT,
    "A part of a text, from a place on.",
    ('MID("piano"; 2; 3)', "ian"),
)
def _mid(text: str, start: float, length: float) -> Value:
    first = math.floor(start) - 1
    if first < 0 or length < 0:
        return Problem("out-of-range")
    return text[first : first + math.floor(length)]


@function("UPPER", [_TEXT], TEXT, "A text in capitals.", ('UPPER("piano")', "PIANO"))
def _upper(text: str) -> Value:
    return text.upper()


@function("LOWER", [_TEXT], TEXT, "A text in small letters.", ('LOWER("PIANO")', "piano"))
def _lower(text: str) -> Value:
    return text.lower()


@function(
    "PROPER",
    [_TEXT],
    TEXT,
    "A text with a capital at the beginning of each word.",
    ('PROPER("abbey mews")', "Abbey Mews"),
)
def _proper(text: str) -> Value:
    return _WORD.sub(lambda word: word[0][0].upper() + word[0][1:].lower(), text)


@function(
    "TRIM",
    [_TEXT],
    TEXT,
    "A text without blanks at its ends, and with one between its words.",
    ('TRIM("  Abbey   Mews ")', "Abbey Mews"),
)
def _trim(text: str) -> Value:
    return " ".join(part for part in text.split(" ") if part)


@function(
    "SUBSTITUTE",
    [_TEXT, needed("old", TEXT), needed("new", TEXT), optional("which", NUMBER)],
    TEXT,
    "A text with another one in place of a part of it: everywhere, or at its so-manieth place.",
    ('SUBSTITUTE("1-2-3"; "-"; "/")', "1/2/3"),
)
def _substitute(text: str, old: str, new: str, which: float | None) -> Value:
    if which is not None and which < 1:
        return Problem("out-of-range")
    if not old:
        return text
    if which is None:
        # Before it is made: ten thousand places times ten thousand characters are too many.
        longer = text.count(old) * (len(new) - len(old))
        too_long = len(text) + longer > MOST_CHARACTERS
        return Problem("too-long") if too_long else text.replace(old, new)
    pieces = text.split(old)
    place = math.floor(which)
    if place >= len(pieces):
        return text
    return old.join(pieces[:place]) + new + old.join(pieces[place:])


@function(
    "FIND",
    [needed("part", TEXT), needed("text", TEXT), optional("start", NUMBER, 1.0)],
    NUMBER,
    "Where a part begins in a text; capitals and small letters differ.",
    ('FIND("n"; "piano")', "4"),
)
def _find(part: str, text: str, start: float) -> Value:
    first = math.floor(start) - 1
    if not 0 <= first <= len(text):
        return Problem("out-of-range")
    return _found(text.find(part, first))


@function(
    "SEARCH",
    [needed("part", TEXT), needed("text", TEXT), optional("start", NUMBER, 1.0)],
    NUMBER,
    "Where a part begins in a text; capitals and small letters are the same.",
    ('SEARCH("N"; "piano")', "4"),
)
def _search(part: str, text: str, start: float) -> Value:
    first = math.floor(start) - 1
    if not 0 <= first <= len(text):
        return Problem("out-of-range")
    wanted, all_ = folded(part), folded(text)
    if len(all_) == len(text):
        return _found(all_.find(wanted, first))
    return _found(place_of_whole(wanted, [folded(character) for character in text], first))


def _found(place: int) -> Value:
    return float(place + 1) if place >= 0 else Problem("not-found")


@function(
    "REPT",
    [_TEXT, needed("times", NUMBER)],
    TEXT,
    "A text so many times.",
    ('REPT("*"; 3)', "***"),
)
def _rept(text: str, times: float) -> Value:
    if times < 0:
        return Problem("out-of-range")
    if not text:
        return text
    if len(text) * math.floor(times) > MOST_CHARACTERS:
        return Problem("too-long")
    return text * math.floor(times)


@function(
    "EXACT",
    [needed("one", TEXT), needed("other", TEXT)],
    YES_NO,
    "Whether two texts are the same, capitals and small letters too.",
    ('EXACT("Mews"; "mews")', "no"),
)
def _exact(one: str, other: str) -> Value:
    return one == other


@function(
    "CONCATENATE",
    [_TEXT, optional("next", TEXT, "")],
    TEXT,
    "Several texts one after another.",
    ('CONCATENATE("Abbey"; " "; "Mews")', "Abbey Mews"),
    repeated=1,
)
def _concatenate(*texts: str) -> Value:
    return "".join(texts)


@function(
    "VALUE",
    [needed("text", ANY)],
    NUMBER,
    "The number that a text says.",
    ('VALUE("12.5")', "12.5"),
)
def _value(text: Value) -> Value:
    return to_number(text)


@function(
    "TEXT",
    [needed("value", ANY), needed("format", TEXT)],
    TEXT,
    "A number or a date in a format: 0.00, #,##0, 0%, YYYY-MM-DD, D.M.YYYY.",
    ('TEXT(1234.5; "#,##0.00")', "1,234.50"),
)
def _text(value: Value, form: str) -> Value:
    return written(value, form)


@function(
    "CHOSEN",
    [needed("choices", TEXT), needed("option", TEXT)],
    YES_NO,
    "Whether an option of a choice of several is chosen.",
    ('CHOSEN("tuning, repair"; "repair")', "yes"),
)
def _chosen(choices: str, option: str) -> Value:
    return folded(option.strip(" ")) in [folded(one.strip(" ")) for one in choices.split(",")]
