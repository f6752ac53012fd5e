"""What came of a run, true to the character: what stands where, and what was not written."""

from __future__ import annotations

import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass

OUTCOMES: dict[str, str] = {
    "verified": "written and verified",
    "unverified": "written, not verified",
    "differs": "differs here",
    "stopped": "stopped",
}
FIELD_STATES: dict[str, str] = {
    "verified": "written and verified",
    "written": "written, not verified",
    "shown": "on the screen; its field is not known",
    "differs": "stands there differently",
    "partly": "written in part",
    "missing": "not written",
    "no_field": "has no field here",
    "empty": "the address has none",
}


# States of a field into which all of its text was written.
_THERE = ("written", "verified", "shown", "differs")


@dataclass(frozen=True, slots=True)
class FieldReport:
    """What became of a field: a key of FIELD_STATES.

    Attributes:
        text: what it is filled with.
        found: of one that differs, what stands there.
        written: of one that was written in part, how many characters.
        offered: whether it is offered where the screen has no field for it.
    """

    field: str
    label: str
    text: str
    state: str
    found: str = ""
    written: int = 0
    offered: bool = True


@dataclass(frozen=True, slots=True)
class LogEntry:
    """A step that was begun.

    Attributes:
        at_ms: since the run began.
        failed: the run stopped in it.
    """

    at_ms: int
    says: str
    failed: bool = False


@dataclass(frozen=True, slots=True)
class RunReport:
    """What came of a run: a key of OUTCOMES.

    Attributes:
        stop: a key of STOPS; empty where the run came to its end.
        detail: why it stopped, with what to do.
        at: the step to go on from; the number of steps where it came to its end.
        ms: how long it took.
    """

    outcome: str
    stop: str
    detail: str
    at: int
    fields: tuple[FieldReport, ...]
    log: tuple[LogEntry, ...]
    ms: int

    def says(self) -> str:
        """The report in a sentence."""
        if not self.stop:
            different = [one.label for one in self.fields if one.state == "differs"]
            where = f": {', '.join(different)}" if different else ""
            return f"{OUTCOMES[self.outcome].capitalize()}{where}."
        if self.stop == "undone":
            return self.detail
        done = [one.label for one in self.fields if one.state in _THERE]
        partly = [f"{p.label} ({p.written} characters)" for p in self.fields if p.state == "partly"]
        said = [f"Written: {', '.join(done)}."] if done else []
        said += [f"In part: {', '.join(partly)}."] if partly else []
        return f"Stopped: {self.detail} {' '.join(said) or 'Nothing was written.'}"

    def left_over(self) -> Sequence[FieldReport]:
        """What the screen has no field for, and is offered."""
        return [one for one in self.fields if one.state == "no_field" and one.offered]


def normalised(text: str) -> str:
    """A text as it is compared after a program has had it in hand: without case and blanks."""
    return "".join(unicodedata.normalize("NFKC", text).casefold().split())
