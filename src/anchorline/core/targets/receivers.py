"""A target read as a form: its fields are the fields, its addresses are the slots.

So the rules of its mapping, their lint, examples, coverage and trace are those of a form.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from ..errors import Problem
from ..faults import Faults
from .fields import length_of, read_field

Document = Mapping[str, Any]
# What of an address's entry is the same as in a form's.
_OF_SLOT = (
    "key", "label", "countries", "country", "kinds", "language", "datasets", "near",
    "practice_word", "mapping", "examples",
)  # fmt: skip


def as_form(document: Document) -> dict[str, Any]:
    """The document of a form that has the target's fields."""
    return {
        "key": document["key"],
        "kind": "record",
        "title": document["title"],
        "fields": [
            {
                "key": entry["key"],
                "label": entry.get("label") or entry["key"],
                "max_length": length_of(entry),
                "type": "long_text" if entry.get("several_lines") else "text",
            }
            for entry in document.get("fields") or ()
        ],
        "slots": [
            {name: entry[name] for name in _OF_SLOT if entry.get(name) is not None}
            | {"required": False, "appearance": "parts_only"}
            for entry in document.get("addresses") or ()
        ],
    }


def refusals_of(document: Document) -> dict[str, Callable[[str], str]]:
    """By the fields' keys, why each cannot hold a text; see `TargetField.refuses`."""
    nobody = Faults()
    return {
        entry["key"]: read_field(entry, "", nobody).refuses
        for entry in document.get("fields") or ()
        if entry.get("options")
    }


def of_target(problem: Problem) -> Problem:
    """A problem of that form at its place in the target."""
    pointer = document_pointer(problem.pointer)
    return Problem(pointer, problem.detail, problem.at, problem.length, problem.offers)


def document_pointer(pointer: str) -> str:
    """A place in that form as a place in the target."""
    if pointer == "/slots" or pointer.startswith("/slots/"):
        return "/addresses" + pointer.removeprefix("/slots")
    return pointer
