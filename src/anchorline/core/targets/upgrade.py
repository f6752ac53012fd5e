"""Targets of earlier releases, read as today's: what is kept is never rewritten.

Of the first format a page had `inputs`, which are `fields` now. A program had `parts`, and of each
address a `plan` with a table of which part goes where and what comes after it; it has `fields` now,
`writing`, and rules that write lines and commas themselves.

It is told by the document itself, so that files are read in the same way.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from .upgrade_plans import with_fields

Document = dict[str, Any]
FORMAT = 2


def upgraded(document: Mapping[str, Any], _written_as: int = FORMAT) -> Document:
    """A document as today's releases write it; the same where nothing is of an earlier time."""
    if document.get("kind") == "program":
        addresses = document.get("addresses") or ()
        if "parts" in document or any("plan" in one for one in addresses):
            return with_fields(document)
    elif "inputs" in document:
        return _renamed(document)
    return dict(document)


def _renamed(document: Mapping[str, Any]) -> Document:
    names = {"inputs": "fields"}
    return {names.get(name, name): value for name, value in document.items()}
