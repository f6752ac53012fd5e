"""The tree of a formula: what is worked out, from which values.

As plain data, for the published form: `{"value": 3}`, `{"field": "n"}`, `{"slot": "venue"}`,
`{"call": "ROUND", "of": […]}`. In a checked tree every conversion between kinds of values is a
call of its own (`number`, `text`, `yes_no`, `date`) and nothing is left out, so that whoever works
it out needs to know no signature.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True, slots=True)
class Constant:
    """A value that stands in the formula; None for an argument that is left empty."""

    value: float | str | bool | None
    at: int = 0


@dataclass(frozen=True, slots=True)
class FieldValue:
    """The value of a field."""

    key: str
    at: int = 0


@dataclass(frozen=True, slots=True)
class SlotAddress:
    """The address of a slot; only functions about addresses take one."""

    key: str
    at: int = 0


@dataclass(frozen=True, slots=True)
class Call:
    """A function or an operator with its arguments; `at` is its place in the text."""

    name: str
    of: tuple[Node, ...]
    at: int = 0


Node = Constant | FieldValue | SlotAddress | Call


def walk(node: Node) -> Iterator[Node]:
    """A node and all that it is made of."""
    waiting = [node]
    while waiting:
        one = waiting.pop()
        yield one
        if isinstance(one, Call):
            waiting.extend(one.of)


def depth_of(node: Node) -> int:
    """How many calls stand in each other, at most."""
    deepest, level = 0, [node]
    while level:
        calls = [one for one in level if isinstance(one, Call)]
        deepest += bool(calls)
        level = [part for call in calls for part in call.of]
    return deepest


def fields_of(node: Node) -> set[str]:
    """The keys of the fields whose values it needs."""
    return {part.key for part in walk(node) if isinstance(part, FieldValue)}


def slots_of(node: Node) -> set[str]:
    """The keys of the slots whose addresses it needs."""
    return {part.key for part in walk(node) if isinstance(part, SlotAddress)}


def to_data(node: Node) -> dict[str, Any]:
    """A tree as plain data."""
    if isinstance(node, Constant):
        return {"value": node.value}
    if isinstance(node, FieldValue):
        return {"field": node.key}
    if isinstance(node, SlotAddress):
        return {"slot": node.key}
    return {"call": node.name, "of": [to_data(part) for part in node.of]}


def from_data(data: Mapping[str, Any]) -> Node:
    """The tree of plain data that `to_data` gave."""
    if "call" in data:
        parts: Sequence[Mapping[str, Any]] = data["of"]
        return Call(data["call"], tuple(from_data(part) for part in parts))
    if "field" in data:
        return FieldValue(data["field"])
    if "slot" in data:
        return SlotAddress(data["slot"])
    value = data["value"]
    is_whole = isinstance(value, int) and not isinstance(value, bool)
    return Constant(float(value) if is_whole else value)
