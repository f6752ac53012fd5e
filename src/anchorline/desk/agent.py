"""The agent: from the key over the finder to what was written, and back to the program."""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace

from PySide6.QtCore import QObject, QTimer, Signal, Slot

from anchorline.core.targets.programs import Look, RunReport
from anchorline.core.targets.programs.keys import Chord
from anchorline.core.targets.programs.trying import Found
from anchorline.core.targets.programs.ways import WAYS
from anchorline.wire.filling import FillAnswer
from anchorline.wire.finding import SuggestionSchema

from .best_ways import BestWays
from .choice import Choices
from .finding import Finding, answered, left, moved, opened, typed
from .known_targets import AddressOfTarget, KnownTargets
from .looking import Eyes
from .scribe import Scribe
from .service import DeskService
from .window.finder import FinderWindow
from .window.panel import Geometry
from .window.result import Notice, ResultWindow
from .writing import Order, Place
from .x11.facts import SeenScreen

_REFRESH_MS = 30_000
_LOOKS = 20


class Agent(QObject):
    """Ties the windows to the screen and to the service.

    Args:
        may_change: whether new targets can be made from here.
        timed: told milliseconds from the key to a finder that takes keys.
    """

    pressed = Signal(int, float)
    wants_target = Signal(object, object)
    _suggested = Signal(int, list, str)
    _filled = Signal(object, str)
    _lined = Signal(list, str)
    _told = Signal(str)
    ended = Signal(object)
    stepped = Signal(str)
    found = Signal(object)
    lost = Signal()

    def __init__(
        self,
        eyes: Eyes,
        known: KnownTargets,
        ways: BestWays,
        service: DeskService,
        scribe: Scribe,
        hotkey: Chord,
        may_change: bool,
        timed: Callable[[float], None] | None = None,
    ) -> None:
        super().__init__()
        self._eyes, self._known, self._ways = eyes, known, ways
        self._service, self._scribe = service, scribe
        self._hotkey, self._may_change, self._timed = hotkey, may_change, timed
        self._finder, self._result, self._notice = FinderWindow(), ResultWindow(), Notice()
        self._finding = Finding()
        self._seen: SeenScreen | None = None
        # Looks since the agent was started, for telling screens from each other.
        self._looks: deque[Look] = deque(maxlen=_LOOKS)
        self._choices = Choices(known)
        self._found: Found | None = None
        # Why the targets could not be asked for last; empty where they could.
        self._problem = ""
        self._is_slow = False
        self._is_practice = self._is_writing = self._is_stopped = False
        self._order: Order | None = None
        self._geometry: Geometry = (0, 0, 0, 0)
        self._connect()
        self._timer = QTimer(self)
        self._timer.timeout.connect(lambda: service.run(self._refresh))
        self._timer.start(_REFRESH_MS)

    @property
    def seen(self) -> SeenScreen | None:
        """The screen that the finder was opened over."""
        return self._seen

    def close_finder(self) -> None:
        """Hides the finder; the program has the focus again."""
        self._finder.hide()
        if self._seen is not None:
            self._eyes.activate(self._seen.window, self._seen.focus)

    def _connect(self) -> None:
        finder, result = self._finder, self._result
        self.pressed.connect(self._open)
        self._suggested.connect(self._take_answer)
        self._filled.connect(self._write)
        self._lined.connect(self._show_lines)
        self.ended.connect(self._show_report)
        self.stepped.connect(self._show_step)
        self.found.connect(self._remember_way)
        self.lost.connect(self._say_lost)
        finder.typed.connect(self._type)
        finder.moved.connect(lambda by: self._show(moved(self._finding, by)))
        finder.back.connect(lambda: self._ask(left(self._finding)))
        finder.taken.connect(self._take)
        finder.closed.connect(self.close_finder)
        finder.switched.connect(self._switch)
        finder.slow_walk.connect(self._toggle_slow)
        finder.new_target.connect(self._want_target)
        finder.send_look.connect(self._send_look)
        self._told.connect(lambda text: self._notice.say(text, self._geometry, ms=6000))
        result.go_on.connect(self._go_on)
        result.undo.connect(self._undo)
        result.copied.connect(lambda text: self._eyes.selections.offer("CLIPBOARD", text))
        result.closed.connect(self._close_result)

    # The key.

    @Slot(int, float)
    def _open(self, focus: int, at: float) -> None:
        if self._is_writing and self._is_slow:
            self._scribe.next_step()
            return
        own = {int(self._finder.winId()), int(self._result.winId())}
        front = self._eyes.screen.top(focus)
        if front in own:
            return
        is_there = self._seen is not None and front == self._seen.window and self._is_stopped
        if self._result.isVisible() and is_there:
            self._result.take_focus(self._eyes)
            return
        self._result.hide()
        self._notice.hide()
        # A slow walk is for one run.
        self._is_slow = False
        self._seen = self._eyes.look(focus)
        self._looks.append(self._seen.look)
        self._geometry = self._eyes.geometry(self._seen.window)
        self._choices = Choices(self._known, self._seen.look)
        self._finding = Finding()
        self._finder.render_finding(self._finding)
        self._say_whose()
        self._finder.show_over(self._geometry)
        self._finder.take_focus(self._eyes)
        self._service.run(self._refresh)
        if self._timed is not None:
            self._when_it_takes_keys(at)

    def _when_it_takes_keys(self, at: float) -> None:
        if self._timed is not None and self._finder.has_focus(self._eyes):
            self._timed((time.monotonic() - at) * 1000)
        elif self._finder.isVisible():
            QTimer.singleShot(2, lambda: self._when_it_takes_keys(at))

    def _say_whose(self) -> None:
        head, about = self._choices.says(self._ways, self._is_slow, self._problem)
        self._finder.say(head, about, self._choices.keys(self._is_slow, self._may_change))

    # Typing and choosing.

    def _type(self, text: str) -> None:
        self._ask(typed(self._finding, text))

    def _ask(self, state: Finding) -> None:
        self._show(state)
        if state.is_asking:
            self._service.suggest(state, self._address, self._suggested.emit)

    def _take_answer(self, asked: int, found: list[SuggestionSchema], problem: str) -> None:
        self._show(answered(self._finding, asked, found, problem))

    def _show(self, state: Finding) -> None:
        self._finding = state
        self._finder.render_finding(state)

    @property
    def _address(self) -> AddressOfTarget | None:
        current = self._choices.current
        return current.address if current else None

    def _switch(self) -> None:
        if self._choices.turn():
            self._say_whose()
            self._ask(typed(self._finding, self._finding.text))

    def _want_target(self) -> None:
        if self._may_change and self._seen is not None and self._seen.window:
            self._finder.hide()
            self.wants_target.emit(self._seen, list(self._looks)[:-1])

    def _send_look(self) -> None:
        if self._seen is not None and self._seen.window:
            self.close_finder()
            self._service.send_look(self._seen.look, self._told.emit)

    def _toggle_slow(self) -> None:
        self._is_slow = not self._is_slow
        self._say_whose()

    def _take(self) -> None:
        picked = self._finding.chosen
        if picked is None or self._finding.is_waiting:
            return
        if picked.count > 1:
            self._ask(opened(self._finding, picked))
            return
        self._finder.hide()
        self._is_practice = picked.id.startswith("practice:")
        choice = self._choices.current
        if choice is None:
            self._service.lines(picked.id, self._lined.emit)
            return
        self._service.fill(choice.target, choice.address, picked.id, self._filled.emit)

    # Writing.

    def _write(self, fill: FillAnswer | None, problem: str) -> None:
        choice = self._choices.current
        if fill is None or self._seen is None or choice is None:
            self._notice.say(f"Nothing was written: {problem}", self._geometry, ms=6000)
            self.close_finder()
            return
        values = {key: str(text) for key, text in fill.values.items() if text is not None}
        way = choice.way(self._ways, may_try=self._is_practice and not self._is_slow)
        self._order = Order(
            choice.target, choice.address, values, Place(self._seen.window, self._seen.focus),
            way, self._is_slow, self._is_practice,
        )  # fmt: skip
        self._is_writing, self._found = True, None
        self._scribe.write(self._order)

    def _remember_way(self, found: Found) -> None:
        if self._order is None:
            return
        self._order = replace(self._order, by=found.way)
        if found.best:
            with suppress(OSError):
                self._ways.remember(self._order.target, self._order.address, found.best)
            self._found = found

    def _show_step(self, says: str) -> None:
        if self._is_slow:
            hint = f"{self._hotkey} goes on at once, Escape stops"
            self._notice.say(f"Next: {says}", self._geometry, hint, ms=0)

    def _show_report(self, report: RunReport) -> None:
        order, self._is_writing = self._order, False
        if order is None:
            return
        self._notice.hide()
        self._service.report(order, report)
        self._is_stopped = report.stop not in ("", "gone", "undone")
        if report.stop == "undone":
            self._notice.say(report.detail, self._geometry)
            self._result.hide()
            return
        if not report.stop and report.outcome != "differs" and not report.left_over():
            self._notice.say(report.says(), self._geometry, self._says_found())
            return
        self._result.render_report(report)
        self._result.show_beside(self._geometry)
        if report.stop in ("", "escape", "field", "screen", "refused", "layout"):
            # The program is at rest: nothing is taken from whoever types elsewhere.
            self._result.take_focus(self._eyes)

    def _says_found(self) -> str:
        if self._found is None or self._order is None:
            return ""
        return f"Best here: {WAYS[self._order.by]} ({self._found.says()})."

    def _say_lost(self) -> None:
        if self._is_writing:
            self._is_writing = False
            text = "What wrote has ended unexpectedly. Look through the fields before you go on."
            self._notice.say(text, self._geometry, ms=10_000)

    def _show_lines(self, lines: list[str], problem: str) -> None:
        if problem:
            self._notice.say(problem, self._geometry, ms=6000)
            return
        self._result.render_lines("This screen is not known: copy what you need.", lines)
        self._result.show_over(self._geometry)
        self._result.take_focus(self._eyes)

    def _go_on(self) -> None:
        self._result.hide()
        self._is_writing = True
        self._scribe.go_on()

    def _undo(self) -> None:
        self._result.hide()
        self._is_writing = True
        self._scribe.undo()

    def _close_result(self) -> None:
        self._result.hide()
        if self._seen is not None:
            self._eyes.activate(self._seen.window, self._seen.focus)

    def _refresh(self) -> None:
        self._problem = self._known.refresh_quietly()
