"""What is shown and needed on a form, and what its formulas come to.

What is not shown counts as not given, whatever was typed into it before. The embedded form works
out the same from the same trees; both are held to one set of vectors.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from ..formula import AddressValue, Budget, Date, Formula, Given, Value, evaluate
from ..formula.json_values import to_plain
from ..formula.values import to_date, to_yes_no
from .field_types.choices import BETWEEN
from .field_types.registry import DATE, FIELD_TYPES
from .model import Field, Form, Slot


@dataclass(frozen=True)
class Worked:
    """What a form comes to on some values.

    Attributes:
        values: of the fields that are shown, as formulas have them.
        shown: keys of the fields and slots that are shown.
        needed: keys of those that must be filled.
        stopped_at: the key of the field or slot whose formulas had no steps left; empty where all
            was worked out. Nothing is known then of what comes behind it.
    """

    values: Mapping[str, Value]
    shown: frozenset[str]
    needed: frozenset[str]
    stopped_at: str = ""


def work_out(
    form: Form,
    typed: Mapping[str, object],
    slots: Mapping[str, AddressValue],
    current_day: int,
) -> Worked:
    """What is shown, needed and worked out.

    Args:
        typed: values as they are kept, by field key.
        slots: addresses by slot key; of those not shown too.
        current_day: serial number of today.
    """
    values: dict[str, Value] = {}
    addresses: dict[str, AddressValue] = {}
    shown: set[str] = set()
    needed: set[str] = set()
    given, budget = Given(values, addresses, current_day), Budget()
    for key in form.order:
        item = form.item(key)
        is_within = all(other in shown for other in form.within(key))
        if is_within and _holds(item.shown_when, given, budget, True):
            shown.add(key)
            if item.required or _holds(item.required_when, given, budget, False):
                needed.add(key)
            if isinstance(item, Slot):
                addresses[key] = slots.get(key, AddressValue())
            elif item.formula is not None:
                values[key] = evaluate(item.formula.tree, given, budget)
            else:
                values[key] = as_formula_value(item, typed.get(key))
        if budget.is_used_up:
            return Worked(values, frozenset(shown), frozenset(needed), key)
    return Worked(values, frozenset(shown), frozenset(needed))


def _holds(condition: Formula | None, given: Given, budget: Budget, without: bool) -> bool:
    if condition is None:
        return without
    return to_yes_no(evaluate(condition.tree, given, budget)) is True


def as_formula_value(field: Field, value: object) -> Value:
    """A kept value as formulas have it."""
    if value is None or value == "":
        return None
    if isinstance(value, list):
        return BETWEEN.join(value) or None
    if FIELD_TYPES[field.type].kinds == DATE:
        date = to_date(str(value))
        return date if isinstance(date, Date) else None
    if isinstance(value, bool | str):
        return value
    return float(value) if isinstance(value, int | float) else None


def as_kept(value: Value) -> object:
    """What a formula came to as it is kept with a record; None: nothing is."""
    kept = to_plain(value)
    return None if kept == "" else kept


def formulas_of(item: Field | Slot) -> Iterable[tuple[str, Formula]]:
    """The formulas of a field or slot by the name of their setting."""
    for name in ("formula", "shown_when", "required_when"):
        formula = getattr(item, name, None)
        if formula is not None:
            yield name, formula
