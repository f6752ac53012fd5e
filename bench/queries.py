"""Seeded queries in classes, each with the row that it should find.

A class says how people type: in order and cut short, out of order, without the number, with
mistakes … Queries are kept only where the words determine the target, except in the classes of
`OPEN_CLASSES`, for which the success that is possible at all is worked out beside them.
"""

from __future__ import annotations

import random
import unicodedata
from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from itertools import islice
from typing import Any

from anchorline.core.gazetteer import Row

from .made_up import SHORT_TYPES

OPEN_CLASSES = ("first 6", "first 10", "first 14", "partial postcode", "firm begun")
COUNTRY_NAMES = {
    "GB": "United Kingdom", "US": "United States", "DE": "Deutschland", "FR": "France",
    "NL": "Nederland", "BR": "Brasil",
}  # fmt: skip
_LONG_TYPES = {short.rstrip("."): long for long, short in SHORT_TYPES.items()}
_TWO_LETTERS = str.maketrans({"ä": "ae", "ö": "oe", "ü": "ue", "Ä": "Ae", "Ö": "Oe", "Ü": "Ue",
                              "ß": "ss"})  # fmt: skip
_LETTERS = "abcdefghijklmnopqrstuvwxyz"


@dataclass(frozen=True)
class Query:
    """One query.

    Attributes:
        name: its class.
        text: what is typed.
        target: the id of the row that it should find.
        level: which group counts as well as the row: `number`, `street`, `postcode`.
        ceiling: the chance of being among the first eight that the best possible answer has.
        kinds: what the search is restricted to, as a finder for firms is.
    """

    name: str
    text: str
    target: str
    level: str
    ceiling: float = 1.0
    kinds: tuple[str, ...] = ()


def line_of(row: Row) -> str:
    """A row as people of its country type it, postcode left out."""
    get = row.components.get
    number, street, town = get("number", ""), get("street", ""), get("town", "")
    if row.country_code in ("DE", "NL"):
        return f"{street} {number}, {town}"
    if row.country_code == "BR":
        return f"{street}, {number}, {town}"
    return f"{number} {street}, {town}"


class Sample:
    """Rows drawn for queries, and what a pass over all rows says about them."""

    def __init__(self, rows: Callable[[], Iterable[Row]], total: int, seed: int) -> None:
        self.random = random.Random(seed)
        wanted = set(self.random.sample(range(total), min(total, 12_000)))
        self.plain: list[Row] = []
        self.firms: list[Row] = []
        self.any: list[Row] = []
        for place, row in enumerate(rows()):
            if place in wanted:
                self.any.append(row)
                kinds = self.firms if "organisation" in row.components else self.plain
                if "building" not in row.components:
                    kinds.append(row)
        self.random.shuffle(self.any)
        self.random.shuffle(self.plain)
        self.random.shuffle(self.firms)
        self._count(rows())

    def _count(self, rows: Iterable[Row]) -> None:
        """What there is of each beginning, postcode and number that queries will use."""
        some = self.any
        beginnings = {_spelt_out(row)[:length].lower() for row in some for length in (6, 10, 14)}
        half = {row.components["postcode"][:3] for row in self.plain}
        firm = {row.components["organisation"][:8].lower() for row in self.firms}
        self.begun: dict[str, Counter[Any]] = defaultdict(Counter)
        self.postcodes: dict[str, Counter[str]] = defaultdict(Counter)
        self.firms_begun: Counter[str] = Counter()
        self.numbered: dict[tuple[str, str], set[str]] = defaultdict(set)
        numbers = {(r.components["postcode"], r.components["number"]) for r in self.plain}
        for row in rows:
            get = row.components.get
            line = _spelt_out(row).lower()
            for length in (6, 10, 14):
                text = line[:length]
                if text in beginnings:
                    self.begun[text][_key(row, text)] += 1
            postcode = get("postcode", "")
            if postcode[:3] in half:
                self.postcodes[postcode[:3]][postcode] += 1
            name = get("organisation", "")[:8].lower()
            if name and name in firm:
                self.firms_begun[name] += 1
            if (postcode, get("number", "")) in numbers:
                self.numbered[postcode, get("number", "")].add(get("street", ""))

    def queries(self, each: int) -> list[Query]:
        """About `each` queries of every class."""
        makers: dict[str, Callable[[Row], Query | None]] = {
            "first 6": lambda row: self._begun(row, 6),
            "first 10": lambda row: self._begun(row, 10),
            "first 14": lambda row: self._begun(row, 14),
            "out of order": self._out_of_order,
            "no number": lambda row: Query("no number", _no_number(row), row.id, "street"),
            "postcode": lambda row: Query(
                "postcode", row.components["postcode"].replace(" ", ""), row.id, "postcode"
            ),
            "partial postcode": self._partial_postcode,
            "postcode + number": self._postcode_number,
            "one typo": lambda row: self._typos(row, "one typo", 1),
            "one typo, cut": self._typo_cut,
            "two typos": lambda row: self._typos(row, "two typos", 2),
            "no diacritics": lambda row: _respelt(row, "no diacritics", _plain),
            "transliterated": lambda row: _respelt(row, "transliterated", _two_letters),
            "abbreviated": _abbreviated,
            "split or joined": self._split_or_joined,
            "typo in postcode": self._typo_in_postcode,
            "whole pasted": self._pasted,
        }
        found: list[Query] = []
        for name, make in makers.items():
            most = 20 * each if name in OPEN_CLASSES else each
            rows = self.any if name.startswith("first") else self.plain
            made = (query for row in rows if (query := make(row)))
            found += islice(made, most)
        for row in self.firms[:each]:
            name, town = row.components["organisation"], row.components["town"]
            found.append(Query("organisation", f"{name} {town}", row.id, "number"))
        for row in self.firms:
            begun = row.components["organisation"][:8]
            ceiling = min(1.0, 8 / self.firms_begun[begun.lower()])
            found.append(Query("firm begun", begun, row.id, "number", ceiling, ("organisation",)))
        return found

    def sessions(self, count: int) -> list[tuple[Row, str]]:
        """Whole addresses to be typed key by key."""
        return [(row, line_of(row)) for row in self.plain[-count:]]

    def _begun(self, row: Row, length: int) -> Query | None:
        text = _spelt_out(row)[:length]
        counts = self.begun.get(text.lower())
        if not counts:
            return None
        best = sum(count for _, count in counts.most_common(8))
        level = "number" if _has_number(text) else "street"
        return Query(f"first {length}", text, row.id, level, best / counts.total())

    def _out_of_order(self, row: Row) -> Query:
        get = row.components.get
        parts = [get("number", ""), get("street", ""), get("town", "")]
        orders = [(2, 1, 0), (2, 0, 1), (1, 2, 0), (0, 2, 1), (1, 0, 2)]
        order = self.random.choice(orders)
        return Query("out of order", " ".join(parts[i] for i in order), row.id, "number")

    def _partial_postcode(self, row: Row) -> Query | None:
        text = row.components["postcode"][:3]
        counts = self.postcodes.get(text)
        if not counts:
            return None
        best = sum(count for _, count in counts.most_common(8))
        return Query("partial postcode", text, row.id, "postcode", best / counts.total())

    def _postcode_number(self, row: Row) -> Query | None:
        key = (row.components["postcode"], row.components["number"])
        if len(self.numbered[key]) != 1:
            return None
        return Query("postcode + number", f"{key[0]} {key[1]}", row.id, "number")

    def _typos(self, row: Row, name: str, typos: int) -> Query | None:
        words = _with_postcode(row).split(" ")
        places = [i for i, word in enumerate(words) if sum(map(str.isalpha, word)) >= 4
                  and word.strip(",").isalpha()]  # fmt: skip
        if len(places) < typos:
            return None
        for place in self.random.sample(places, typos):
            words[place] = self._misspelt(words[place])
        return Query(name, " ".join(words), row.id, "number")

    def _typo_cut(self, row: Row) -> Query | None:
        line = line_of(row)
        town = row.components["town"]
        least = len(line) - len(town) + min(4, len(town))
        text = line[: self.random.randint(least, len(line))]
        words = text.split(" ")
        places = [
            i for i, w in enumerate(words) if len(w.strip(",")) >= 4 and w.strip(",").isalpha()
        ]
        if not places or line_of(row) == text:
            return None
        place = self.random.choice(places)
        words[place] = self._misspelt(words[place])
        return Query("one typo, cut", " ".join(words), row.id, "number")

    def _misspelt(self, word: str) -> str:
        """One edit: a letter put in, left out or exchanged, or two neighbours swapped."""
        rng = self.random
        core = word.rstrip(",")
        while True:
            place = rng.randrange(len(core))
            kind = rng.randrange(4)
            letter = rng.choice(_LETTERS)
            if kind == 0:
                text = core[:place] + letter + core[place:]
            elif kind == 1:
                text = core[:place] + core[place + 1 :]
            elif kind == 2:
                text = core[:place] + letter + core[place + 1 :]
            else:
                text = core[:place] + core[place : place + 2][::-1] + core[place + 2 :]
            if text.lower() != core.lower() and len(text) >= 4:
                return text + word[len(core) :]

    def _split_or_joined(self, row: Row) -> Query | None:
        street, town = row.components["street"], row.components["town"]
        words = street.split(" ")
        if len(words) == 2 and self.random.random() < 0.5:
            street = "".join(words)
        else:
            place = max(range(len(words)), key=lambda i: len(words[i]))
            word = words[place]
            if len(word) < 8 or not word.isalpha():
                return None
            cut = self.random.randint(3, len(word) - 3)
            words[place] = f"{word[:cut]} {word[cut:]}"
            street = " ".join(words)
        return Query(
            "split or joined", f"{street} {row.components['number']} {town}", row.id, "number"
        )

    def _typo_in_postcode(self, row: Row) -> Query:
        postcode = row.components["postcode"]
        place = self.random.randrange(len(postcode))
        while not postcode[place].isalnum():
            place = self.random.randrange(len(postcode))
        pool = "0123456789" if postcode[place].isdigit() else "ABCDEFGHJKLMNPRSTUVWXY"
        other = self.random.choice([c for c in pool if c != postcode[place]])
        wrong = postcode[:place] + other + postcode[place + 1 :]
        text = f"{row.components['street']}, {wrong} {row.components['town']}"
        return Query("typo in postcode", text, row.id, "street or postcode")

    def _pasted(self, row: Row) -> Query:
        person = self.random.choice(
            ("Mrs Jane Porter", "Herr Dr. Vogt", "Mme Claire Aubry", "J. Blok")
        )
        first, _, rest = line_of(row).rpartition(", ")
        country = COUNTRY_NAMES[row.country_code]
        text = f"{person}\n{first}\n{row.components['postcode']} {rest}\n{country}"
        return Query("whole pasted", text, row.id, "number")


def _spelt_out(row: Row) -> str:
    """The line with the street's type in its long form: nobody knows which the register has."""
    street = row.components["street"]
    words = [_LONG_TYPES.get(word.rstrip("."), word) for word in street.split(" ")]
    return line_of(row).replace(street, " ".join(words))


def _key(row: Row, text: str) -> Any:
    """What a beginning can tell apart: the street, and the number where it has been begun."""
    get = row.components.get
    street = (row.country_code, get("town"), get("street"))
    return (*street, get("number")) if _has_number(text) else street


def _has_number(text: str) -> bool:
    return any(map(str.isdigit, text))


def _with_postcode(row: Row) -> str:
    return f"{line_of(row)}, {row.components['postcode']}"


def _no_number(row: Row) -> str:
    return f"{row.components['street']}, {row.components['town']}"


def _plain(text: str) -> str:
    spelt = unicodedata.normalize("NFD", text.replace("ß", "ss"))
    return "".join(c for c in spelt if not unicodedata.combining(c))


def _two_letters(text: str) -> str:
    return text.translate(_TWO_LETTERS)


def _respelt(row: Row, name: str, spell: Callable[[str], str]) -> Query | None:
    line = line_of(row)
    other = spell(line)
    if other == line or (name == "transliterated" and other == _plain(line)):
        return None
    return Query(name, other, row.id, "number")


def _abbreviated(row: Row) -> Query | None:
    """The type of the street in its other form: short for long, or long for short."""
    street = row.components["street"]
    for long, short in SHORT_TYPES.items():
        words = street.split(" ")
        if long in words:
            other = " ".join(short if word == long else word for word in words)
        elif street.endswith(long) and row.country_code in ("DE", "NL"):
            other = street[: -len(long)] + short
        elif short in words and row.country_code not in ("DE", "NL"):
            other = " ".join(_LONG_TYPES[short.rstrip(".")] if w == short else w for w in words)
        else:
            continue
        text = line_of(row).replace(street, other)
        return Query("abbreviated", text, row.id, "number")
    return None


def common_pairs(words: Sequence[str]) -> list[Query]:
    """The commonest words and their beginnings, paired on purpose; timed only."""
    found: list[Query] = []
    for first in words[:16]:
        for second in words[:16]:
            if first != second:
                found.append(Query("common words", f"{first} {second}", "", "none"))
                found.append(Query("common words", f"{first} {second[:2]}", "", "none"))
    return found
