"""Working out a checked tree."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime

from .address_values import AddressValue
from .calendar import serial_of
from .functions import CONVERSIONS, FUNCTIONS
from .tree import Call, Constant, FieldValue, Node, SlotAddress
from .values import Date, Problem, Value

_NO_ADDRESS = AddressValue()


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


def evaluate(tree: Node, given: Given) -> Value:
    """What a checked tree comes to; where it comes to nothing else, a `Problem`."""
    found = _evaluate(tree, given)
    assert not isinstance(found, AddressValue), "an address is no value"
    return found


def _evaluate(node: Node, given: Given) -> Value | AddressValue:
    if isinstance(node, Constant):
        return node.value
    if isinstance(node, FieldValue):
        return given.values.get(node.key)
    if isinstance(node, SlotAddress):
        return given.slots.get(node.key, _NO_ADDRESS)
    return _call(node, given)


def _call(node: Call, given: Given) -> Value:
    convert = CONVERSIONS.get(node.name)
    if convert is not None:
        return convert(evaluate(node.of[0], given))
    if node.name == "TODAY":
        return Date(given.current_day)
    function = FUNCTIONS[node.name]
    if function.lazy:
        return function.rule(*(lambda part=part: evaluate(part, given) for part in node.of))
    arguments = [_evaluate(part, given) for part in node.of]
    if not function.holds_problems:
        for argument in arguments:
            if isinstance(argument, Problem):
                return argument
    return function.rule(*arguments)
