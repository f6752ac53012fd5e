"""Designators: words in front of a component that say what it is, as `Flat` in `Flat 3`.

A value that already has its designator, in any language of its country, gets none from the lines.
The words are in `data/designators.yaml`.
"""

from __future__ import annotations

from collections.abc import Iterable
from functools import cache, lru_cache
from importlib import resources
from typing import Any

from anchorline.yaml_documents import read_yaml

from ..text import tokens


@lru_cache(maxsize=4096)
def bears_designator(component: str, value: str, languages: tuple[str, ...]) -> bool:
    """Whether a value says itself what it is, as mail in some languages (BCP 47) or English does.

    A designator alone is a value and no designator: `Box` of the PO box is called `Box`.
    """
    typed = tokens(value)
    if value.strip()[:1] == "#":
        return True
    return any(
        len(typed) > len(words) and words in (typed[: len(words)], typed[-len(words) :])
        for words in _designators(component, languages)
    )


def begins_or_ends_with(value: str, words: str) -> bool:
    """Whether a value has some words at its front or its end already: those a line would write."""
    plain, sought = value.strip(), words.strip()
    if not sought or len(plain) <= len(sought):
        return False
    if not tokens(sought):
        return plain.startswith(sought) or plain.endswith(sought)
    typed, written = tokens(plain), tokens(sought)
    return len(typed) > len(written) and written in (typed[: len(written)], typed[-len(written) :])


@cache
def _designators(component: str, languages: tuple[str, ...]) -> tuple[list[str], ...]:
    by_language: dict[str, list[str]] = _file().get(component, {})
    known = (*languages, *(language.split("-")[0] for language in languages), "en")
    # A box is called by its name in any language: it is the mail's own word, and it travels.
    chosen: Iterable[str] = by_language if component == "po_box" else dict.fromkeys(known)
    words = (text for language in chosen for text in by_language.get(language, ()))
    return tuple(found for text in words if (found := tokens(text)))


@cache
def _file() -> dict[str, Any]:
    path = resources.files("anchorline.core.layouts") / "data" / "designators.yaml"
    document: dict[str, Any] = read_yaml(path.read_bytes())
    return document
