"""A target read as a form: what it is filled into are the fields, its addresses are the slots.

So the rules of its mapping, their lint, examples and trace are those of a form.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ..errors import Problem

Document = Mapping[str, Any]
# Of each kind of target, what an address is written into.
RECEIVERS: dict[str, str] = {"page": "inputs", "program": "parts"}
# What of an address's entry is the same as in a form's.
_OF_SLOT = (
    "key", "label", "countries", "country", "kinds", "language", "datasets", "near",
    "practice_word", "mapping", "examples",
)  # fmt: skip


def receivers_of(document: Document) -> str:
    """Where a target's document lists what an address is written into."""
    return RECEIVERS.get(document.get("kind") or "page", "inputs")


def as_form(document: Document) -> dict[str, Any]:
    """The document of a form that has the target's receivers as fields."""
    return {
        "key": document["key"],
        "kind": "record",
        "title": document["title"],
        "fields": [
            {
                "key": entry["key"],
                "label": entry.get("label") or entry["key"],
                "max_length": entry.get("max_length"),
            }
            for entry in document.get(receivers_of(document)) or ()
        ],
        "slots": [
            {name: entry[name] for name in _OF_SLOT if entry.get(name) is not None}
            | {"required": False, "appearance": "parts_only"}
            for entry in document.get("addresses") or ()
        ],
    }


def of_target(problem: Problem, document: Document) -> Problem:
    """A problem of that form at its place in the target."""
    pointer = document_pointer(problem.pointer, document)
    return Problem(pointer, problem.detail, problem.at, problem.length, problem.offers)


def document_pointer(pointer: str, document: Document) -> str:
    """A place in that form as a place in the target."""
    places = (("/fields", f"/{receivers_of(document)}"), ("/slots", "/addresses"))
    for of_form, of_document in places:
        if pointer == of_form or pointer.startswith(f"{of_form}/"):
            return of_document + pointer[len(of_form) :]
    return pointer
