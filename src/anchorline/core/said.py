"""Sentences for people that a program can say in another language.

What is wrong with what somebody typed is said in English here; whoever shows it knows its kind and
what is filled in, and can say the same in the language of the page.
"""

from __future__ import annotations

from collections.abc import Mapping


class Said(str):
    """A sentence with its kind, and what is filled into it.

    Attributes:
        kind: names the sentence, such as `too_long`.
        given: what is filled in, by name.
    """

    __slots__ = ("given", "kind")
    kind: str
    given: Mapping[str, str | float]


def said(kind: str, sentence: str, **given: str | float) -> Said:
    """A sentence of a kind; `{names}` in it are filled in."""
    made = Said(sentence.format(**given))
    made.kind, made.given = kind, given
    return made
