"""What can be seen of a program's screen: facts of several kinds, and a look, which is all of them.

Whoever takes a look (a desktop agent, a file of a test) fills in what it can read; nothing here
knows how. A kind that a look has no fact of counts as not seen.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True, slots=True)
class FactKind:
    """A kind of fact.

    Attributes:
        says: what it is called, to be put before a verb.
        several: whether a look can have more than one of it.
        rank: how well it tells a screen, 1 the best; the order in which conditions are proposed.
    """

    says: str
    several: bool
    rank: int


FACT_KINDS: dict[str, FactKind] = {
    "program": FactKind("the program", True, 1),
    "title": FactKind("the title of the window", False, 2),
    "dialog": FactKind("whether it is a dialog", False, 3),
    "tab": FactKind("the open tab", True, 4),
    "window_class": FactKind("the class of the window", True, 5),
    "part_title": FactKind("the title of the part with the focus", False, 6),
    "text": FactKind("a text on the screen", True, 7),
    "terminal": FactKind("a line in the terminal", True, 8),
    "field": FactKind("the field with the focus", False, 9),
    "running": FactKind("another program that runs", True, 10),
}


@dataclass(frozen=True, slots=True)
class Fact:
    """One thing seen: a key of FACT_KINDS, and its text."""

    kind: str
    text: str


@dataclass(frozen=True, slots=True)
class Look:
    """Everything that was seen of a screen at one time."""

    facts: tuple[Fact, ...]

    def texts(self, kind: str) -> list[str]:
        """The texts of one kind."""
        return [fact.text for fact in self.facts if fact.kind == kind]

    def first(self, kind: str) -> str:
        """The first text of a kind; empty where there is none."""
        return next(iter(self.texts(kind)), "")


def look_of(facts: Sequence[Mapping[str, Any]]) -> Look:
    """A look from a document's list of facts; those of unknown kinds are left out."""
    return Look(
        tuple(
            Fact(entry["kind"], str(entry["text"]))
            for entry in facts
            if entry["kind"] in FACT_KINDS and str(entry["text"]).strip()
        )
    )


def folded(text: str) -> str:
    """A text as it is compared: without case, with single blanks (Unicode NFKC, casefold)."""
    return " ".join(unicodedata.normalize("NFKC", text).casefold().split())
