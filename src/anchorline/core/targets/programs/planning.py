"""The steps that the fields of a plan make."""

from __future__ import annotations

from collections.abc import Iterator

from .plan import WritingPlan
from .steps import Step
from .steps.clear import Clear
from .steps.expect_field import ExpectField
from .steps.next_field import Next
from .steps.read_back import ReadBack
from .steps.write import Write


def steps_of(plan: WritingPlan) -> tuple[Step, ...]:
    """The steps that carry a plan out: its own, or those of its fields."""
    return plan.own_steps or tuple(_of_fields(plan))


def _of_fields(plan: WritingPlan) -> Iterator[Step]:
    away = 0
    is_first = True
    for one in plan.fields:
        if one.where != "screen":
            continue
        away += one.further
        if one.key not in plan.visited:
            continue
        if not is_first:
            yield Next(times=away)
        if one.name:
            yield ExpectField(name=one.name)
        if one.empty != "no":
            yield Clear(how=one.empty, field=one.key)
        yield Write(field=one.key)
        if plan.check == "field":
            yield ReadBack()
        away, is_first = 0, False
