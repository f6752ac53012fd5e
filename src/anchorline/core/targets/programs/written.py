"""What a run has written, judged: field by field, true to the character."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from .hands import Hands, StopRun
from .report import FieldReport, LogEntry, RunReport, normalised
from .steps import Step
from .steps.put import Put
from .visits import FieldText, Visit

_SCREEN_READS = 6
_READ_AGAIN_SECONDS = 0.1


@dataclass(frozen=True, slots=True)
class Written:
    """A run so far.

    Attributes:
        at: the step where it stands.
        cut: of texts that were written in part, how many characters, by field.
    """

    texts: Sequence[FieldText]
    visits: Sequence[Visit]
    steps: Sequence[Step]
    at: int
    cut: Mapping[str, int]

    def reports(self, hands: Hands | None) -> tuple[FieldReport, ...]:
        """What became of each field; with hands, what the screen shows is read."""
        screen = self._screen(hands) if hands is not None else None
        return tuple(self._of(one, screen) for one in self.texts)

    def _of(self, one: FieldText, screen: str | None) -> FieldReport:
        state, found, written = self._state(one, screen)
        offered = one.where == "offered"
        return FieldReport(one.key, one.label, one.text, state, found, written, offered)

    def _state(self, one: FieldText, screen: str | None) -> tuple[str, str, int]:
        if not one.text:
            return "empty", "", 0
        cut = self.cut.get(one.key, 0)
        if cut:
            return "partly", "", cut
        visits = [visit for visit in self.visits if one.key in visit.fields]
        if not visits:
            return ("missing" if self._writes(one.key) else "no_field"), "", 0
        is_last = visits[-1] is self.visits[-1]
        if self.at < len(self.steps) and is_last and not visits[-1].text:
            return "missing", "", 0
        if screen is not None:
            return (*_on_screen(one, screen), 0)
        for visit in visits:
            if visit.found is None:
                return "written", "", 0
            if normalised(visit.found) != normalised(visit.text):
                return "differs", visit.found, 0
        return "verified", "", 0

    def _writes(self, field: str) -> bool:
        return any(isinstance(step, Put) and step.field == field for step in self.steps)

    def _screen(self, hands: Hands) -> str | None:
        """What the screen shows, when it shows all texts, or after a while."""
        shown: str | None = None
        texts = [one.text for one in self.texts if self._writes(one.key)]
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
    fields: tuple[FieldReport, ...],
    log: Sequence[LogEntry],
    ms: int,
) -> RunReport:
    """The report of a run that came to its end, or was stopped."""
    states = {one.state for one in fields}
    outcome = "verified"
    if stop is not None:
        outcome = "stopped"
    elif "differs" in states:
        outcome = "differs"
    elif states & {"written", "shown"}:
        outcome = "unverified"
    kind, detail = (stop.kind, stop.detail) if stop is not None else ("", "")
    return RunReport(outcome, kind, detail, at, fields, tuple(log), ms)


def undone_detail(unknown: Sequence[str]) -> str:
    """What is said of a run taken back; `unknown` are fields that could not be read before."""
    said = "What was written is taken back."
    return said + (
        f" What stood in {', '.join(unknown)} before could not be read." if unknown else ""
    )


def _on_screen(one: FieldText, screen: str) -> tuple[str, str]:
    """What became of a text that is looked for on the screen, and what stands in its cells.

    A text that stands somewhere else than in its own field verifies nothing.
    """
    if one.cells is not None:
        found = one.cells.text_in(screen)
        holds = normalised(found) == normalised(one.text)
        return ("verified", "") if holds else ("differs", found.strip())
    return ("shown" if _is_in(screen, one.text) else "differs"), ""


def _is_in(screen: str, text: str) -> bool:
    """Whether every line of a text stands on a screen."""
    return all(normalised(line) in normalised(screen) for line in text.split("\n"))
