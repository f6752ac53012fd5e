"""A program target: screens of a program that is not ours, and how an address is written there."""

from __future__ import annotations

from dataclasses import dataclass

from ...errors import Problem
from ...faults import Faults
from ...forms import Form, Slot, read_unfinished
from ...layouts import LayoutLibrary
from ..receivers import Document, as_form, of_target
from .plan import EntryPlan, read_plan
from .recognition import Candidate
from .signature import Signature, read_signature
from .wording import with_wording


@dataclass(frozen=True, slots=True)
class ProgramTarget:
    """A program target.

    Attributes:
        screens: each tells the target by itself.
        plans: by the keys of its addresses.
        form: the parts as fields, and the addresses as slots.
    """

    key: str
    title: str
    screens: tuple[Signature, ...]
    plans: dict[str, EntryPlan]
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
    parts = [entry["key"] for entry in document.get("parts") or ()]
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
        entry["key"]: read_plan(entry.get("plan") or {}, parts, f"/addresses/{at}/plan", faults)
        for at, entry in enumerate(addresses)
    }
    target = ProgramTarget(document["key"], document["title"], screens, plans, form)
    return target, [*faults.problems, *(of_target(one, document) for one in problems)]
