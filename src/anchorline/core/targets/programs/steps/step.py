"""What all steps share: words for people, checks, and carrying them out in a run."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Protocol

from ....faults import Faults
from ..hands import Hands
from ..keys import KeyNameError, read_chords


class Running(Protocol):
    """The run that carries steps out."""

    hands: Hands
    texts: Mapping[str, str]
    labels: Mapping[str, str]

    def put(self, field: str, text: str, way: str) -> None:
        """Writes what a field is filled with, or a text of the plan's own."""

    def clear(self, how: str, field: str) -> None:
        """Empties the field with the focus, which begins a new visit."""

    def move(self, times: int) -> None:
        """Goes so many fields on, or back where negative."""

    def line_break(self) -> None:
        """A new line in the same field."""

    def press(self, keys: str, times: int) -> None:
        """Presses keys of the plan's own."""

    def read_back(self) -> None:
        """Compares what stands in the field with what was written into it."""

    def wait_for(self, kind: str, test: str, text: str, seconds: float) -> None:
        """Waits until a condition on the screen holds; with 0 seconds it must hold now."""

    def expect_field(self, name: str) -> None:
        """Stops where another field has the focus, as far as that can be read."""


@dataclass(frozen=True, slots=True)
class Step(ABC):
    """A step.

    Attributes:
        when: a field; the step is left out where it is filled with nothing.
    """

    when: str = ""

    @abstractmethod
    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words; `labels` are those of the fields, by key."""

    @abstractmethod
    def perform(self, run: Running) -> None:
        """Carries the step out; StopRun where the run has to end."""

    def check(self, fields: Sequence[str], pointer: str, faults: Faults) -> None:
        """Says what is wrong with the step."""
        if self.when:
            faults.one_of("field", self.when, fields, f"{pointer}/when")


def check_keys(keys: str, pointer: str, faults: Faults) -> None:
    """Says where a text names no keys."""
    try:
        if not read_chords(keys):
            faults.say(pointer, "Name a key, such as Tab or Ctrl+S.")
    except KeyNameError as error:
        faults.say(pointer, str(error))
