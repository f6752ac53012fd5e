"""The steps that a plan's table makes."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from .plan import EntryPlan, EntryRow
from .steps import Step
from .steps.clear import Clear
from .steps.expect_field import ExpectField
from .steps.next_field import Next
from .steps.read_back import ReadBack
from .steps.write import Write


def steps_of(plan: EntryPlan) -> tuple[Step, ...]:
    """The steps that carry a plan out: its own, or those of its table."""
    return plan.own_steps or tuple(_of_table(plan))


def boxes_of(rows: Sequence[EntryRow]) -> Iterator[list[EntryRow]]:
    """The rows that go into one field of the screen each."""
    box: list[EntryRow] = []
    for row in rows:
        box.append(row)
        if row.then == "next":
            yield box
            box = []
    if box:
        yield box


def _of_table(plan: EntryPlan) -> Iterator[Step]:
    boxes = list(boxes_of(plan.rows))
    for box in boxes:
        first, last = box[0], box[-1]
        if first.field:
            yield ExpectField(name=first.field)
        if first.clear != "no":
            yield Clear(how=first.clear)
        for row in box:
            then = "nothing" if row is last else row.then
            yield Write(part=row.part, then=then, keep=row.keep)
        if plan.check == "field":
            yield ReadBack()
        if last.then == "next" and box is not boxes[-1]:
            yield Next(times=last.times)
