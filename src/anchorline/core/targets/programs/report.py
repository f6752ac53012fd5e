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
PART_STATES: dict[str, str] = {
    "verified": "written and verified",
    "written": "written, not verified",
    "differs": "stands there differently",
    "partly": "written in part",
    "missing": "not written",
    "no_field": "has no field here",
    "empty": "the address has none",
}


@dataclass(frozen=True, slots=True)
class PartReport:
    """What became of a part: a key of PART_STATES.

    Attributes:
        text: what it is.
        found: of one that differs, what stands in its field.
        written: of one that was written in part, how many characters.
        offered: whether it is offered where it has no field.
    """

    part: str
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
    parts: tuple[PartReport, ...]
    log: tuple[LogEntry, ...]
    ms: int

    def says(self) -> str:
        """The report in a sentence."""
        if not self.stop:
            different = [one.label for one in self.parts if one.state == "differs"]
            where = f": {', '.join(different)}" if different else ""
            return f"{OUTCOMES[self.outcome].capitalize()}{where}."
        if self.stop == "undone":
            return self.detail
        done = [one.label for one in self.parts if one.state in ("written", "verified", "differs")]
        written = f"Written: {', '.join(done)}." if done else "Nothing was written."
        partly = [f"{p.label} ({p.written} characters)" for p in self.parts if p.state == "partly"]
        cut = f" In part: {', '.join(partly)}." if partly else ""
        return f"Stopped: {self.detail} {written}{cut}"

    def left_over(self) -> Sequence[PartReport]:
        """Parts of the address that have no field on the screen, and are offered."""
        return [one for one in self.parts if one.state == "no_field" and one.offered]


def normalised(text: str) -> str:
    """A text as it is compared after a program has had it in hand: without case and blanks."""
    return "".join(unicodedata.normalize("NFKC", text).casefold().split())
