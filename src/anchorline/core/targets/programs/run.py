"""A run: a plan's steps carried out on a screen, stopped at the first thing that is unexpected.

A run that was stopped can go on: from where the field in hand was begun, so that nothing stands
twice, or from the character where it stopped if that field is not cleared first. What it wrote can
be undone: each field is emptied again, and gets back what stood there where that was read.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

from .facts import folded
from .hands import Hands, StopRun
from .keys import Chord, read_chords
from .plan import WritingPlan
from .planning import steps_of
from .report import LogEntry, RunReport
from .signature import Condition
from .steps import Step
from .visits import FieldText, Visit
from .ways import FOUND, OF_THE_WAY, TRIED
from .written import Written, report_of, undone_detail

_LOOK_AGAIN_SECONDS = 0.05
_FIELD_SECONDS = 0.6
# Ways to empty a field that do not mark what stands in it.
_KEEP_NO_MARK = ("own", "erase")


class Run:
    """One run of a plan.

    Args:
        by: a way of writing in place of the plan's; one of TRIED in `ways`.
        clock_ms: milliseconds from any beginning.
        observe: told each step before it is carried out; it may wait, and may raise StopRun.
    """

    def __init__(
        self,
        plan: WritingPlan,
        texts: Sequence[FieldText],
        hands: Hands,
        clock_ms: Callable[[], float],
        observe: Callable[[int, str], None] | None = None,
        by: str = "",
    ) -> None:
        self.hands = hands
        self.texts: Mapping[str, str] = {one.key: one.text for one in texts}
        self.labels: Mapping[str, str] = {one.key: one.label for one in texts}
        self._plan, self._wanted = plan, texts
        self._widths = {one.key: one.max_length for one in texts}
        self._by = by or (TRIED[0] if plan.by == FOUND else plan.by)
        self._steps = steps_of(plan)
        self._clock, self._observe, self._began = clock_ms, observe, clock_ms()
        self._at = self._pressed = self._returned = 0
        self._visits: list[Visit] = []
        self._taken_back: list[Visit] = []
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
        if self._visits and self._visits[-1].how and not self._visits[-1].away:
            begun = self._visits.pop()
            self._at, self._pressed = begun.begun, 0
            for field in begun.fields:
                self._cut.pop(field, None)
        return self.go()

    def not_begun(self, stop: StopRun) -> RunReport:
        """The report of a run whose window could not be made ready."""
        return self._report(stop)

    def undo(self) -> RunReport:
        """Takes back what was written: back through the fields, the last one first."""
        try:
            self._forth()
            for visit in reversed(self._visits):
                if visit.away:
                    self._note(f"Go back to {self._named(visit)}")
                    for _ in range(visit.away):
                        self.hands.press(self._plan.previous_key)
                    visit.away = 0
                if not visit.touched:
                    continue
                self._note(f"Take back {self._named(visit)}")
                self._put_back(visit)
                visit.text, visit.found = visit.before or "", None
        except StopRun as stop:
            return self._report(stop)
        self._taken_back = list(self._visits)
        self._visits.clear()
        self._cut.clear()
        self._at = self._pressed = 0
        return self._report(None, undone=True)

    def back_to_first(self) -> None:
        """Goes back to the field that the run began in, so that another one can; may stop."""
        while self._returned < sum(max(visit.away, 0) for visit in self._visits):
            self.hands.press(self._plan.previous_key)
            self._returned += 1

    def _forth(self) -> None:
        """To the last field again, after `back_to_first`."""
        while self._returned:
            self.hands.press(self._plan.next_key)
            self._returned -= 1

    # What steps do (steps.step.Running).

    def put(self, field: str, text: str, way: str) -> None:
        """Writes what a field is filled with, or a text of the plan's own."""
        visit = self._visit()
        wanted = self.texts.get(field, "") if field else text
        if field and field not in visit.fields:
            visit.fields.append(field)
        if not wanted:
            return
        cut = self._cut.get(field, 0)
        visit.touched = True
        try:
            self._put_text(wanted[cut:], way or self._by)
        except StopRun as stop:
            visit.text += wanted[cut : cut + stop.written]
            if field and cut + stop.written:
                self._cut[field] = cut + stop.written
            raise
        self._cut.pop(field, None)
        visit.text += wanted[cut:]

    def clear(self, how: str, field: str) -> None:
        """Empties the field with the focus, which begins a new visit."""
        visit = Visit(begun=self._at, how=how, fields=[field] if field else [])
        self._visits.append(visit)
        visit.before = self.hands.clear(self._plan.chords(how, self._widths.get(field)))
        visit.touched = True

    def move(self, times: int) -> None:
        """Goes so many fields on, or back where negative; not twice where a full one has jumped."""
        visit = self._visits[-1] if self._visits else None
        if times > 0 and visit and not visit.away and self._has_jumped(visit):
            visit.away = self._pressed = 1
        chord = self._plan.next_key if times > 0 else self._plan.previous_key
        while self._pressed < abs(times):
            self.hands.press(chord)
            self._pressed += 1
            if visit:
                visit.away += 1 if times > 0 else -1

    def line_break(self) -> None:
        """A new line in the same field."""
        self.hands.press(self._plan.line_key)
        self._visit().text += "\n"

    def press(self, keys: str, times: int) -> None:
        """Presses keys of the plan's own."""
        chords = list(read_chords(keys)) * times
        while self._pressed < len(chords):
            self.hands.press(chords[self._pressed])
            self._pressed += 1

    def read_back(self) -> None:
        """Compares what stands in the field with what was written into it."""
        visit = self._visit()
        if not self._has_jumped(visit):
            chords = self._chords(visit) if visit.how not in _KEEP_NO_MARK else ()
            visit.found = self.hands.read_field(chords[:-1])

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

    def _visit(self) -> Visit:
        if not self._visits or self._visits[-1].away:
            self._visits.append(Visit(begun=self._at))
        return self._visits[-1]

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

    def _put_back(self, visit: Visit) -> None:
        """Empties a field and writes what stood there, in another way where one is refused."""
        ways = list(dict.fromkeys((self._by, *TRIED)))
        for way in ways:
            self.hands.clear(self._chords(visit))
            try:
                self._put_text(visit.before or "", way)
                return
            except StopRun as stop:
                if stop.kind not in OF_THE_WAY or way is ways[-1]:
                    raise

    def _chords(self, visit: Visit) -> Sequence[Chord]:
        """The keys that empty a field that the run is in."""
        widths = [self._widths.get(field) for field in visit.fields]
        return self._plan.chords(visit.how or "line", next(iter(widths), None))

    def _has_jumped(self, visit: Visit) -> bool:
        width = self._widths.get(visit.fields[-1]) if visit.fields else None
        return self._plan.jumps and width is not None and len(visit.text) >= width

    def _named(self, visit: Visit) -> str:
        return ", ".join(self.labels.get(field, field) for field in visit.fields) or "the field"

    def _tell(self, step: Step) -> None:
        self._note(step.says(self.labels))

    def _note(self, says: str) -> None:
        self._log.append(LogEntry(int(self._clock() - self._began), says))
        if self._observe:
            self._observe(self._at, says)

    def _report(self, stop: StopRun | None, undone: bool = False) -> RunReport:
        """What came of it so far."""
        taken_back = [visit for visit in self._taken_back if visit.touched and visit.before is None]
        stopped = stop
        if undone:
            stopped = StopRun("undone", undone_detail([self._named(visit) for visit in taken_back]))
        seen = Written(self._wanted, self._visits, self._steps, self._at, self._cut)
        reads = stop is None and not undone and self._plan.check == "screen"
        fields = seen.reports(self.hands if reads else None)
        ms = int(self._clock() - self._began)
        return report_of(stopped, self._at, fields, self._log, ms)
