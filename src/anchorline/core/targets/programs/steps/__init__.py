"""The kinds of steps of an entry plan: one file each, listed here by the word that plans use."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields
from typing import Any

from .clear import Clear
from .expect_field import ExpectField
from .expect_front import ExpectFront
from .line_break import LineBreak
from .next_field import Next
from .paste import Paste
from .press import Press
from .previous_field import Previous
from .read_back import ReadBack
from .step import Running, Step
from .type_text import Type
from .wait_until import WaitUntil
from .write import Write

STEPS: dict[str, type[Step]] = {
    "write": Write,
    "type": Type,
    "paste": Paste,
    "press": Press,
    "clear": Clear,
    "next": Next,
    "previous": Previous,
    "line_break": LineBreak,
    "wait_until": WaitUntil,
    "expect_front": ExpectFront,
    "expect_field": ExpectField,
    "read_back": ReadBack,
}


def as_entry(step: Step) -> Mapping[str, Any]:
    """A step as a document has it, without what is as usual."""
    do = {kind: name for name, kind in STEPS.items()}[type(step)]
    usual = type(step)()
    settings = {one.name: getattr(step, one.name) for one in fields(step)}
    return {"do": do} | {
        name: value for name, value in settings.items() if value != getattr(usual, name)
    }


__all__ = ["STEPS", "Running", "Step", "as_entry"]
