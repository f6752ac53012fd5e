"""A submitted form, checked as a whole."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..errors import Problem
from ..formula.budget import MOST_STEPS
from ..layouts import LayoutLibrary
from ..said import said
from .capture import capture_slots, slot_addresses
from .captured import Captured, FindAddress, Reference, SlotInput
from .field_types import FIELD_TYPES
from .logic import work_out
from .model import Form
from .values import Values, check_values, read_values


@dataclass(frozen=True)
class Submission:
    """What is kept of a submitted form, and what stands against keeping it.

    Attributes:
        values: by field key, of what is shown; formulas among them.
        typed: what was typed into fields that keep it otherwise, by their keys.
        captured: the addresses of the slots that are shown and filled.
        problems: with pointers into the request.
    """

    values: Values
    typed: dict[str, str]
    captured: list[Captured]
    problems: list[Problem]


def check_submission(
    form: Form,
    typed: Mapping[str, object],
    inputs: Mapping[str, SlotInput],
    layouts: LayoutLibrary,
    find: FindAddress,
    current_day: int,
) -> Submission:
    """Checks values and addresses, and works out what is shown, needed and derived.

    Args:
        typed: as it was sent, by field key.
        inputs: what was sent for each slot.
        layouts: those that hold on the form.
        find: from an address id to the address and its edition's name.
        current_day: serial number of today.
    """
    read, faults = read_values(form, typed)
    reference = Reference(layouts, find, current_day)
    addresses = slot_addresses(form, read, inputs, reference)
    worked = work_out(form, read, addresses, current_day)
    if worked.stopped_at:
        return Submission({}, {}, [], [_stopped(worked.stopped_at)])
    values, problems = check_values(form, typed, read, faults, worked)
    captured, more = capture_slots(form, values, inputs, reference, worked)
    kept_otherwise = {
        key: text
        for key, value in values.items()
        if FIELD_TYPES[form.field(key).type].keeps_typed
        and (text := str(typed.get(key, "")).strip()) != value
    }
    return Submission(values, kept_otherwise, captured, [*problems, *more])


def _stopped(key: str) -> Problem:
    """What is said where the formulas had no steps left: nobody knows what the form comes to."""
    sentence = (
        "The texts here are too long for the formulas of this form, which may take "
        "{steps:,} steps. Shorten the longest ones. Should that not help, whoever made the form "
        "has to make its formulas simpler; they stopped at “{key}”."
    )
    return Problem("/values", said("too_many_steps", sentence, steps=MOST_STEPS, key=key))
