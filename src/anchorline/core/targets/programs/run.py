"""A run: a plan's steps carried out on a screen, stopped at the first thing that is unexpected.

A run that was stopped can go on: from where the field in hand was begun, so that nothing stands
twice, or from the character where it stopped if that field is not cleared first. What it wrote can
be undone: each field is emptied again, and gets back what stood there where that was read.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

from .boxes import Box, Part
from .facts import folded
from .hands import Hands, StopRun
from .keys import read_chords
from .plan import THEN, EntryPlan
from .planning import steps_of
from .report import LogEntry, RunReport
from .signature import Condition
from .steps import Step
from .ways import FOUND, OF_THE_WAY, TRIED
from .written import Written, report_of, undone_detail

_STRENGTH = tuple(THEN)
_SIGNS = {"nothing": "", "blank": " ", "comma": ", ", "line": "\n"}
_LOOK_AGAIN_SECONDS = 0.05
_FIELD_SECONDS = 0.6


class Run:
    """One run of a plan.

    Args:
        by: a way of writing in place of the plan's; one of TRIED in `ways`.
        clock_ms: milliseconds from any beginning.
        observe: told each step before it is carried out; it may wait, and may raise StopRun.
    """

    def __init__(
        self,
        plan: EntryPlan,
        parts: Sequence[Part],
        hands: Hands,
        clock_ms: Callable[[], float],
        observe: Callable[[int, str], None] | None = None,
        by: str = "",
    ) -> None:
        self.hands = hands
        self.texts: Mapping[str, str] = {part.key: part.text for part in parts}
        self.labels: Mapping[str, str] = {part.key: part.label for part in parts}
        self._plan, self._parts = plan, parts
        self._widths = {part.key: part.max_length for part in parts}
        self._by = by or (TRIED[0] if plan.by == FOUND else plan.by)
        self._steps = steps_of(plan)
        self._clock, self._observe, self._began = clock_ms, observe, clock_ms()
        self._at = self._pressed = self._returned = 0
        self._boxes: list[Box] = []
        self._taken_back: list[Box] = []
        self._log: list[LogEntry] = []
        self._cut: dict[str, int] = {}

    def go(self) -> RunReport:
        """Carries the steps out, from the one where it stands."""
        try:
            while self._at < len(self._steps):
                step = self._steps[self._at]
                if not step.when or self.texts.get(step.when):
                    self._tell(step)
                    step.perform(self)
                self._at += 1
                self._pressed = 0
        except StopRun as stop:
            if self._log:
                last = self._log[-1]
                self._log[-1] = LogEntry(last.at_ms, last.says, failed=True)
            return self._report(stop)
        return self._report(None)

    def go_on(self) -> RunReport:
        """Carries on after a stop, from the beginning of the field in hand."""
        if self._boxes and self._boxes[-1].how and not self._boxes[-1].away:
            begun = self._boxes.pop()
            self._at, self._pressed = begun.begun, 0
            for part in begun.parts:
                self._cut.pop(part, None)
        return self.go()

    def not_begun(self, stop: StopRun) -> RunReport:
        """The report of a run whose window could not be made ready."""
        return self._report(stop)

    def undo(self) -> RunReport:
        """Takes back what was written: back through the fields, the last one first."""
        try:
            self._forth()
            for box in reversed(self._boxes):
                if box.away:
                    self._note(f"Go back to {self._named(box)}")
                    for _ in range(box.away):
                        self.hands.press(self._plan.previous_key)
                    box.away = 0
                if not box.touched:
                    continue
                self._note(f"Take back {self._named(box)}")
                self._put_back(box)
                box.text, box.found = box.before or "", None
        except StopRun as stop:
            return self._report(stop)
        self._taken_back = list(self._boxes)
        self._boxes.clear()
        self._cut.clear()
        self._at = self._pressed = 0
        return self._report(None, undone=True)

    def back_to_first(self) -> None:
        """Goes back to the field that the run began in, so that another one can; may stop."""
        while self._returned < sum(max(box.away, 0) for box in self._boxes):
            self.hands.press(self._plan.previous_key)
            self._returned += 1

    def _forth(self) -> None:
        """To the last field again, after `back_to_first`."""
        while self._returned:
            self.hands.press(self._plan.next_key)
            self._returned -= 1

    # What steps do (steps.step.Running).

    def put(self, part: str, text: str, then: str, keep: bool, way: str) -> None:
        """Writes a part, or a text of the plan's own, after the separator that is due."""
        box = self._box()
        wanted = self.texts.get(part, "") if part else text
        if not wanted and not keep:
            if box.due:
                box.due = max(box.due, then, key=_STRENGTH.index)
            return
        cut = self._cut.get(part, 0)
        if box.due and not cut:
            self._separate(box)
        if part and part not in box.parts:
            box.parts.append(part)
        box.touched = True
        try:
            self._put_text(wanted[cut:], way or self._by)
        except StopRun as stop:
            box.text += wanted[cut : cut + stop.written]
            if part and cut + stop.written:
                self._cut[part] = cut + stop.written
            raise
        self._cut.pop(part, None)
        box.text += wanted[cut:]
        box.due = then

    def clear(self, how: str) -> None:
        """Empties the field, which begins a new box."""
        box = Box(begun=self._at, how=how)
        self._boxes.append(box)
        box.before = self.hands.clear(self._plan.clear_chords(how))
        box.touched = True

    def move(self, times: int) -> None:
        """Goes so many fields on, or back where negative; not twice where a full one has jumped."""
        box = self._boxes[-1] if self._boxes else None
        if times > 0 and box and not box.away and self._has_jumped(box):
            box.away = self._pressed = 1
        chord = self._plan.next_key if times > 0 else self._plan.previous_key
        while self._pressed < abs(times):
            self.hands.press(chord)
            self._pressed += 1
            if box:
                box.away += 1 if times > 0 else -1

    def line_break(self) -> None:
        """A new line in the same box."""
        self.hands.press(self._plan.line_key)
        self._box().text += "\n"

    def press(self, keys: str, times: int) -> None:
        """Presses keys of the plan's own."""
        chords = list(read_chords(keys)) * times
        while self._pressed < len(chords):
            self.hands.press(chords[self._pressed])
            self._pressed += 1

    def read_back(self) -> None:
        """Compares what stands in the field with what was written into it."""
        box = self._box()
        if not self._has_jumped(box):
            chords = self._plan.clear_chords(box.how or "line") if box.how != "own" else ()
            box.found = self.hands.read_field(chords[:-1])

    def wait_for(self, kind: str, test: str, text: str, seconds: float) -> None:
        """Waits until the screen is so; with 0 seconds it must be now."""
        condition = Condition(kind, test, text)
        until = self._clock() + seconds * 1000
        while not condition.holds(self.hands.look()):
            if self._clock() >= until:
                waited = f" within {seconds} seconds" if seconds else ""
                raise StopRun("screen", f"It did not come{waited} that {condition.says()}.")
            self.hands.pause(_LOOK_AGAIN_SECONDS)

    def expect_field(self, name: str) -> None:
        """Stops where the program names another field."""
        until = self._clock() + _FIELD_SECONDS * 1000
        seen = self.hands.focused_field()
        # Programs tell of the focus a little after it has moved.
        while seen is not None and folded(seen) != folded(name) and self._clock() < until:
            self.hands.pause(_LOOK_AGAIN_SECONDS)
            seen = self.hands.focused_field()
        if seen is not None and folded(seen) != folded(name):
            detail = f"The field with the focus is “{seen}”, where “{name}” is expected."
            raise StopRun("field", detail)

    # What those share.

    def _box(self) -> Box:
        if not self._boxes or self._boxes[-1].away:
            self._boxes.append(Box(begun=self._at))
        return self._boxes[-1]

    def _separate(self, box: Box) -> None:
        signs = _SIGNS[box.due] if box.left is None else box.left
        try:
            self._put_text(signs, self._by)
        except StopRun as stop:
            box.text += signs[: stop.written]
            box.left = signs[stop.written :]
            raise
        box.text += signs
        box.due, box.left = "", None

    def _put_text(self, text: str, way: str) -> None:
        """Writes a text of several lines; each line break is a key of its own."""
        written = 0
        for number, line in enumerate(text.split("\n")):
            try:
                if number:
                    self.hands.press(self._plan.line_key)
                    written += 1
                if line:
                    self.hands.write(line, way)
            except StopRun as stop:
                stop.written += written
                raise
            written += len(line)

    def _put_back(self, box: Box) -> None:
        """Empties a field and writes what stood there, in another way where one is refused."""
        ways = list(dict.fromkeys((self._by, *TRIED)))
        for way in ways:
            self.hands.clear(self._plan.clear_chords(box.how or "line"))
            try:
                self._put_text(box.before or "", way)
                return
            except StopRun as stop:
                if stop.kind not in OF_THE_WAY or way is ways[-1]:
                    raise

    def _has_jumped(self, box: Box) -> bool:
        width = self._widths.get(box.parts[-1]) if box.parts else None
        return self._plan.jumps and width is not None and len(box.text) >= width

    def _named(self, box: Box) -> str:
        return ", ".join(self.labels.get(part, part) for part in box.parts) or "the field"

    def _tell(self, step: Step) -> None:
        self._note(step.says(self.labels))

    def _note(self, says: str) -> None:
        self._log.append(LogEntry(int(self._clock() - self._began), says))
        if self._observe:
            self._observe(self._at, says)

    def _report(self, stop: StopRun | None, undone: bool = False) -> RunReport:
        """What came of it so far."""
        taken_back = [box for box in self._taken_back if box.touched and box.before is None]
        stopped = stop
        if undone:
            stopped = StopRun("undone", undone_detail([self._named(box) for box in taken_back]))
        seen = Written(
            self._parts, self._boxes, self._steps, self._at, self._cut, self._plan.not_offered
        )
        reads = stop is None and not undone and self._plan.check == "screen"
        parts = seen.reports(self.hands if reads else None)
        ms = int(self._clock() - self._began)
        return report_of(stopped, self._at, parts, self._log, ms)
