"""What a run needs of the screen that it writes into, and how a run is stopped.

The desktop agent has hands for X11; tests have hands that write into a list of fields. Every method
stops the run rather than touch another window than the one that the run began in.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Protocol

from .facts import Look
from .keys import Chord

# Why a run stops, as a report names it.
STOPS: dict[str, str] = {
    "left": "another window has the focus",
    "box": "a message or a dialog of the program has come up",
    "field": "another field has the focus than the one expected",
    "screen": "the screen is not as the plan expects it",
    "frozen": "the program does not answer",
    "gone": "the window is gone",
    "escape": "Escape was pressed",
    "keys": "keys are held down",
    "layout": "the keyboard cannot type this",
    "undone": "what was written is taken back",
    "refused": "the program refuses what is written",
}


class StopRun(Exception):  # noqa: N818 - it ends a run, and is no error of the program
    """A run must end here.

    Attributes:
        kind: a key of STOPS.
        detail: a sentence for the person, with what to do.
        written: characters of the text in hand that were written before.
    """

    def __init__(self, kind: str, detail: str, written: int = 0) -> None:
        super().__init__(detail)
        self.kind, self.detail, self.written = kind, detail, written


class Hands(Protocol):
    """Writes into one window, and reads what stands there. All methods may raise StopRun."""

    def press(self, chord: Chord) -> None:
        """Presses a key, if the window still has the focus."""

    def write(self, text: str, way: str) -> None:
        """Writes a text of one line into the field with the focus.

        Args:
            way: one of TRIED in `ways`.
        """

    def clear(self, chords: Sequence[Chord]) -> str | None:
        """Empties the field with the focus; returns what stood there, None where that is unknown.

        Args:
            chords: keys that select everything, and the one that deletes last.
        """

    def focused_field(self) -> str | None:
        """The name of the field with the focus; None where it cannot be read."""

    def read_field(self, select: Sequence[Chord]) -> str | None:
        """What stands in the field with the focus; None where it cannot be read.

        Args:
            select: keys that mark everything in it; none where the plan has no such keys.
        """

    def look(self) -> Look:
        """The facts of the screen as it is now."""

    def screen_text(self) -> str | None:
        """All text on the screen, as a terminal has it; None where it cannot be read."""

    def pause(self, seconds: float) -> None:
        """Waits, and stops where the person does."""
