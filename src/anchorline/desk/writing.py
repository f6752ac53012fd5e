"""One address written into a program: a run in a thread of its own, gone on with and undone."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from anchorline.core.targets.programs import Part, Run, RunReport, StopRun
from anchorline.core.targets.programs.report import PartReport

from .accessible.tree import Tree
from .known_targets import AddressOfTarget, KnownTarget
from .x11.hands import X11Hands
from .x11.screen import open_display
from .x11.selections import Selections

# A slow walk waits so long for the key before it goes on by itself.
SLOW_SECONDS = 1.0


@dataclass(frozen=True, slots=True)
class Place:
    """A window, and what in it has the focus."""

    window: int
    focus: int


class Writing:
    """Writes one address by one plan; its calls return at once, `ended` is told from its thread.

    Args:
        values: texts of the parts, by key.
        by: a way of writing instead of the plan's.
        stepped: told what is about to be done, in words.
        is_slow: each step waits for `next_step`, or a second.
    """

    def __init__(
        self,
        target: KnownTarget,
        address: AddressOfTarget,
        values: Mapping[str, str],
        place: Place,
        selections: Selections,
        tree: Tree | None,
        ended: Callable[[RunReport], None],
        stepped: Callable[[str], None] = lambda says: None,  # noqa: ARG005
        by: str = "",
        is_slow: bool = False,
    ) -> None:
        self.target, self.address, self.values = target, address, dict(values)
        self._place, self._selections, self._tree = place, selections, tree
        self._ended, self._stepped, self._is_slow = ended, stepped, is_slow
        self._stop, self._step = threading.Event(), threading.Event()
        self.by = by or ("keys" if address.plan.by == "found" else address.plan.by)
        self._run: Run | None = None
        self._thread: threading.Thread | None = None

    def start(self) -> None:
        """Begins."""
        self._in_thread(lambda run: run.go())

    def go_on(self) -> None:
        """Carries on after a stop."""
        self._in_thread(lambda run: run.go_on())

    def undo(self) -> None:
        """Takes back what was written."""
        self._in_thread(lambda run: run.undo())

    def stop(self) -> None:
        """Stops before the next key."""
        self._stop.set()
        self._step.set()

    def next_step(self) -> None:
        """Of a slow walk: goes on to the next step now."""
        self._step.set()

    def wait(self, seconds: float) -> None:
        """Waits until it has ended."""
        if self._thread is not None:
            self._thread.join(seconds)

    def _in_thread(self, act: Callable[[Run], RunReport]) -> None:
        self._stop.clear()
        self._thread = threading.Thread(target=self._work, args=(act,), name="writing", daemon=True)
        self._thread.start()

    def _work(self, act: Callable[[Run], RunReport]) -> None:
        connection = open_display()
        try:
            plan = self.address.plan
            hands = X11Hands(
                connection, self._place.window, self._place.focus, self._selections, self._tree,
                plan.paste_key, plan.pace_ms, self._stop.is_set,
            )  # fmt: skip
            if self._run is None:
                self._run = Run(plan, self._parts(), hands, _clock_ms, self._observe, self.by)
            self._run.hands = hands
            report = self._carried_out(hands, self._run, act)
        finally:
            connection.close()
        self._ended(report)

    def _carried_out(self, hands: X11Hands, run: Run, act: Callable[[Run], RunReport]) -> RunReport:
        try:
            hands.begin(list(self.values.values()), self.address.plan.back_first)
        except StopRun as stop:
            return run.not_begun(stop)
        try:
            return act(run)
        finally:
            hands.end()

    def _parts(self) -> list[Part]:
        return [
            Part(key, label, self.values.get(key, ""), width)
            for key, label, width in self.target.parts
        ]

    def _observe(self, _at: int, says: str) -> None:
        self._stepped(says)
        if self._is_slow:
            self._step.clear()
            self._step.wait(SLOW_SECONDS)


def told_parts(report: RunReport) -> list[dict[str, str]]:
    """The parts of a report without their texts."""
    return [{"part": one.part, "label": one.label, "state": one.state} for one in report.parts]


def left_over(report: RunReport) -> list[PartReport]:
    """Parts that have no field here, and are offered."""
    return list(report.left_over())


def _clock_ms() -> float:
    return time.monotonic() * 1000
