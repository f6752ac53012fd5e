"""Working out a checked tree."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime

from .address_values import AddressValue
from .budget import Budget, UsedUpError
from .calendar import serial_of
from .functions import CONVERSIONS, FUNCTIONS
from .tree import Call, Constant, FieldValue, Node, SlotAddress
from .values import Date, Problem, Value, within_limits

_NO_ADDRESS = AddressValue()
_USED_UP = Problem("too-many-steps")


@dataclass(frozen=True, slots=True)
class Given:
    """What a formula is worked out from.

    Attributes:
        values: by field key; what is not in it was not given.
        slots: by slot key.
        current_day: serial number of today.
    """

    values: Mapping[str, Value] = field(default_factory=dict)
    slots: Mapping[str, AddressValue] = field(default_factory=dict)
    current_day: int = 0


def today(now: datetime) -> int:
    """The serial number of a moment's day, in UTC."""
    day = now.astimezone(UTC)
    return serial_of(day.year, day.month, day.day)


def evaluate(tree: Node, given: Given, budget: Budget | None = None) -> Value:
    """What a checked tree comes to; where it comes to nothing else, a `Problem`.

    Args:
        budget: that of the form which the formula belongs to; None: one for this formula alone.
            Once it is used up, every formula comes to the problem that says so.
    """
    budget = budget or Budget()
    if budget.is_used_up:
        return _USED_UP
    try:
        found = _evaluate(tree, given, budget)
    except UsedUpError:
        return _USED_UP
    assert not isinstance(found, AddressValue), "an address is no value"
    return found


def _evaluate(node: Node, given: Given, budget: Budget) -> Value | AddressValue:
    if isinstance(node, SlotAddress):
        budget.spend(None)
        return given.slots.get(node.key, _NO_ADDRESS)
    return _value(node, given, budget)


def _value(node: Node, given: Given, budget: Budget) -> Value:
    if isinstance(node, Constant):
        found: Value = node.value
    elif isinstance(node, FieldValue):
        found = given.values.get(node.key)
    else:
        assert isinstance(node, Call)
        found = _call(node, given, budget)
    found = within_limits(found)
    budget.spend(found)
    return found


def _call(node: Call, given: Given, budget: Budget) -> Value:
    convert = CONVERSIONS.get(node.name)
    if convert is not None:
        return convert(_value(node.of[0], given, budget))
    if node.name == "TODAY":
        return Date(given.current_day)
    function = FUNCTIONS[node.name]
    if function.lazy:
        return function.rule(*(lambda part=part: _value(part, given, budget) for part in node.of))
    arguments = [_evaluate(part, given, budget) for part in node.of]
    if not function.holds_problems:
        for argument in arguments:
            if isinstance(argument, Problem):
                return argument
    return function.rule(*arguments)
