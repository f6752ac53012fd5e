"""What a run has written, judged: part by part, true to the character."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from .boxes import Box, Part
from .hands import Hands, StopRun
from .report import LogEntry, PartReport, RunReport, normalised
from .steps import Step
from .steps.put import Put

_SCREEN_READS = 6
_READ_AGAIN_SECONDS = 0.1


@dataclass(frozen=True, slots=True)
class Written:
    """A run so far.

    Attributes:
        at: the step where it stands.
        cut: of parts that were written in part, how many characters.
    """

    parts: Sequence[Part]
    boxes: Sequence[Box]
    steps: Sequence[Step]
    at: int
    cut: Mapping[str, int]
    not_offered: Sequence[str]

    def reports(self, hands: Hands | None) -> tuple[PartReport, ...]:
        """What became of each part; with hands, what the screen shows is read."""
        screen = self._screen(hands) if hands is not None else None
        return tuple(self._of(part, screen) for part in self.parts)

    def _of(self, part: Part, screen: str | None) -> PartReport:
        state, found, written = self._state(part, screen)
        offered = part.key not in self.not_offered
        return PartReport(part.key, part.label, part.text, state, found, written, offered)

    def _state(self, part: Part, screen: str | None) -> tuple[str, str, int]:
        if not part.text:
            return "empty", "", 0
        cut = self.cut.get(part.key, 0)
        if cut:
            return "partly", "", cut
        boxes = [box for box in self.boxes if part.key in box.parts]
        if not boxes:
            return ("missing" if self._writes(part.key) else "no_field"), "", 0
        is_last = boxes[-1] is self.boxes[-1]
        if self.at < len(self.steps) and is_last and not boxes[-1].text:
            return "missing", "", 0
        if screen is not None:
            return ("verified" if _is_in(screen, part.text) else "differs"), "", 0
        for box in boxes:
            if box.found is None:
                return "written", "", 0
            if normalised(box.found) != normalised(box.text):
                return "differs", box.found, 0
        return "verified", "", 0

    def _writes(self, part: str) -> bool:
        return any(isinstance(step, Put) and step.part == part for step in self.steps)

    def _screen(self, hands: Hands) -> str | None:
        """What the screen shows, when it shows all parts, or after a while."""
        shown: str | None = None
        texts = [part.text for part in self.parts if self._writes(part.key)]
        for again in range(_SCREEN_READS):
            if again:
                hands.pause(_READ_AGAIN_SECONDS)
            shown = hands.screen_text()
            if shown is None or all(_is_in(shown, text) for text in texts):
                break
        return shown


def report_of(
    stop: StopRun | None,
    at: int,
    parts: tuple[PartReport, ...],
    log: Sequence[LogEntry],
    ms: int,
) -> RunReport:
    """The report of a run that came to its end, or was stopped."""
    states = {one.state for one in parts}
    outcome = "verified"
    if stop is not None:
        outcome = "stopped"
    elif "differs" in states:
        outcome = "differs"
    elif "written" in states:
        outcome = "unverified"
    kind, detail = (stop.kind, stop.detail) if stop is not None else ("", "")
    return RunReport(outcome, kind, detail, at, parts, tuple(log), ms)


def undone_detail(unknown: Sequence[str]) -> str:
    """What is said of a run taken back; `unknown` are fields that could not be read before."""
    said = "What was written is taken back."
    return said + (
        f" What stood in {', '.join(unknown)} before could not be read." if unknown else ""
    )


def _is_in(screen: str, text: str) -> bool:
    """Whether every line of a text stands on a screen."""
    return all(normalised(line) in normalised(screen) for line in text.split("\n"))
