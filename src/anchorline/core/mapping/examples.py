"""Examples: addresses with what a mapping must make of them, run at every publish."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from .fill import Fill, fill
from .known import KnownAddress
from .rules import Receivers, Rule
from .sources import Link


@dataclass(frozen=True)
class Example:
    """One address with what must stand in fields.

    Attributes:
        values: by the receivers' keys; an empty text for one that must be empty.
    """

    name: str
    known: KnownAddress
    values: Mapping[str, str]


@dataclass(frozen=True)
class Difference:
    """A field in which something else stands than an example says."""

    field: str
    expected: str
    found: str


@dataclass(frozen=True)
class ExampleRun:
    """An example and what came of it."""

    example: Example
    made: Fill
    differences: tuple[Difference, ...]


def run_example(mapping: Sequence[Rule], receivers: Receivers, example: Example) -> ExampleRun:
    """Fills from an example's address and compares.

    Links are not compared: which records there are is no matter of the mapping.
    """
    made = fill(mapping, receivers, example.known)
    links = {rule.into[0] for rule in mapping if isinstance(rule.source, Link)}
    differences = tuple(
        Difference(key, expected, made.values.get(key, ""))
        for key, expected in example.values.items()
        if key not in links and made.values.get(key, "") != expected
    )
    return ExampleRun(example, made, differences)
