"""A program target: screens of a program that is not ours, and how an address is written there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ...errors import Problem
from ...faults import Faults
from ...forms import Form, Slot, read_unfinished
from ...layouts import LayoutLibrary
from ...mapping import mapping_fills
from ..receivers import Document, as_form, of_target
from .fields import ProgramField, read_program_field
from .plan import WritingPlan, read_plan
from .planning import steps_of
from .recognition import Candidate
from .signature import Signature, read_signature
from .wording import with_wording


@dataclass(frozen=True, slots=True)
class ProgramTarget:
    """A program target.

    Attributes:
        screens: each tells the target by itself.
        fields: of the screens, in the order of the key that goes from one to the next.
        plans: by the keys of its addresses.
        form: its fields, and the addresses as slots.
    """

    key: str
    title: str
    screens: tuple[Signature, ...]
    fields: tuple[ProgramField, ...]
    plans: dict[str, WritingPlan]
    form: Form

    def address(self, key: str) -> Slot | None:
        """An address with its mapping."""
        return self.form.slot(key)

    @property
    def addresses(self) -> tuple[Slot, ...]:
        """Its addresses."""
        return self.form.slots

    def candidate(self) -> Candidate:
        """The target as recognition sees it."""
        return Candidate(self.key, self.title, self.screens)


def read_program_target(
    document: Document, layouts: LayoutLibrary
) -> tuple[ProgramTarget, list[Problem]]:
    """A target as far as its document can be read, and what is wrong with it."""
    faults = Faults()
    form, problems = read_unfinished(as_form(with_wording(document)), layouts)
    fields = tuple(
        read_program_field(entry, f"/fields/{at}", faults)
        for at, entry in enumerate(document.get("fields") or ())
    )
    screens = tuple(
        read_signature(entry, f"/screens/{at}", faults)
        for at, entry in enumerate(document.get("screens") or ())
    )
    if not screens:
        faults.say("/screens", "Say how the screen is recognised: add one, with its conditions.")
    addresses = document.get("addresses") or ()
    if not addresses:
        faults.say("/addresses", "Say which address is captured: its countries and its mapping.")
    plans = {
        entry["key"]: _plan(entry, fields, f"/addresses/{at}", faults)
        for at, entry in enumerate(addresses)
    }
    target = ProgramTarget(document["key"], document["title"], screens, fields, plans, form)
    return target, [*faults.problems, *map(of_target, problems)]


def _plan(
    entry: Document, fields: Sequence[ProgramField], pointer: str, faults: Faults
) -> WritingPlan:
    visited = mapping_fills(entry.get("mapping") or ())
    plan = read_plan(entry.get("writing") or {}, fields, visited, f"{pointer}/writing", faults)
    if entry.get("mapping") and not steps_of(plan):
        faults.say(f"{pointer}/mapping", "Let a rule fill a field that is on the screen.")
    return plan
