"""What a field of an address is, by all that is seen of it, with the reason."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from ...forms.field_labels import AUTOFILL, line_number, named_components
from ...layouts import LayoutLibrary
from ..pages.ways import AUTOFILL_TOKENS
from .seen import SeenField

# What autofill tokens say of whose address it is.
_WHOSE = {"shipping": "Delivery", "billing": "Billing"}
_CAMEL = re.compile(r"(?<=[a-z0-9])(?=[A-Z])")
_SIGNS = re.compile(r"[\W_]+")
LINE = "line "
WHOLE = "whole"


@dataclass(frozen=True, slots=True)
class Meaning:
    """What a field is.

    Attributes:
        of: names of components in their order, `line N` of numbered lines, or `whole`; empty where
            nothing tells.
        because: why, a sentence.
        is_sure: False where a person should look at it.
    """

    of: tuple[str, ...] = ()
    because: str = ""
    is_sure: bool = True


NOTHING = Meaning((), "Nothing tells that it is a part of an address: it is left alone.")


def meaning_of(seen: SeenField, layouts: LayoutLibrary) -> Meaning:
    """What a field is, by the surest that is seen of it."""
    if seen.is_whole:
        return Meaning((WHOLE,), "All of the address goes into it.")
    token = token_of(seen)
    if token in AUTOFILL:
        return Meaning(_of_token(token), f"HTML's autofill token {token} says so.")
    for what, text in _texts(seen):
        found = _of_text(text, layouts)
        if found is not None:
            said, of = found
            return Meaning(of, f"Its {what} says “{said}”.")
    return NOTHING


def token_of(seen: SeenField) -> str:
    """The autofill token of a field; empty for none."""
    last = seen.autocomplete.lower().split(" ")[-1]
    return last if last in AUTOFILL_TOKENS else ""


def whose(seen: SeenField) -> tuple[str, str]:
    """Of whose address a field is, as HTML's tokens say it: a key and a label; empty for none."""
    word = next((one for one in seen.autocomplete.lower().split(" ") if one in _WHOSE), "")
    return word, _WHOSE.get(word, "")


def words_of(name: str) -> str:
    """A name of a program as words: `shipCity` is `ship city`."""
    return " ".join(_SIGNS.sub(" ", _CAMEL.sub(" ", name).lower()).split())


def _texts(seen: SeenField) -> Iterator[tuple[str, str]]:
    yield "label", seen.label
    yield "name", words_of(seen.name)
    yield "id", words_of(seen.id)
    yield "example", seen.placeholder


def _of_token(token: str) -> tuple[str, ...]:
    """What a token is for a field of a target: lines are numbered, and options tell the codes."""
    if token.startswith("address-line"):
        return (f"{LINE}{token[-1]}",)
    if not AUTOFILL[token]:
        # All lines of the street (`street-address`).
        return ("street",)
    return tuple(name.removesuffix("_code") for name in AUTOFILL[token])


def _of_text(text: str, layouts: LayoutLibrary) -> tuple[str, tuple[str, ...]] | None:
    if not text.strip():
        return None
    if number := line_number(text):
        return text, (f"{LINE}{number}",)
    names, said = named_components(text, layouts)
    return (said, names) if names else None
