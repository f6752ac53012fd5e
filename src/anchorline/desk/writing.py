"""One address written into a program: a run in a thread of its own, gone on with and undone."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Mapping
from contextlib import suppress
from dataclasses import dataclass

from anchorline.core.targets.programs import FieldText, Run, RunReport, StopRun
from anchorline.core.targets.programs.trying import Found, try_ways
from anchorline.core.targets.programs.ways import FOUND

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


@dataclass(frozen=True, slots=True)
class Order:
    """An address that is to be written.

    Attributes:
        values: texts of the fields, by key.
        by: the way of writing; FOUND tries one after the other.
        is_slow: each step waits for `next_step`, or a second.
        returns: to the field that it began in, after a run that was not stopped.
    """

    target: KnownTarget
    address: AddressOfTarget
    values: Mapping[str, str]
    place: Place
    by: str
    is_slow: bool = False
    is_practice: bool = False
    returns: bool = False


class Writing:
    """Writes one address by one plan; its calls return at once, `ended` is told from its thread.

    Args:
        stepped: told what is about to be done, in words.
        found: told what came of trying the ways, before `ended` is.
    """

    def __init__(
        self,
        order: Order,
        selections: Selections,
        tree: Tree | None,
        ended: Callable[[RunReport], None],
        stepped: Callable[[str], None],
        found: Callable[[Found], None],
    ) -> None:
        self._order, self._selections, self._tree = order, selections, tree
        self._ended, self._stepped, self._found = ended, stepped, found
        self._stop, self._step = threading.Event(), threading.Event()
        self._run: Run | None = None

    def start(self) -> None:
        """Begins."""
        self._in_thread(self._begin)

    def go_on(self) -> None:
        """Carries on after a stop."""
        self._in_thread(lambda hands: self._run_with(hands).go_on())

    def undo(self) -> None:
        """Takes back what was written."""
        self._in_thread(lambda hands: self._run_with(hands).undo())

    def stop(self) -> None:
        """Stops before the next key."""
        self._stop.set()
        self._step.set()

    def next_step(self) -> None:
        """Of a slow walk: goes on to the next step now."""
        self._step.set()

    def _in_thread(self, act: Callable[[X11Hands], RunReport]) -> None:
        self._stop.clear()
        threading.Thread(target=self._work, args=(act,), name="writing", daemon=True).start()

    def _work(self, act: Callable[[X11Hands], RunReport]) -> None:
        connection = open_display()
        try:
            order, plan = self._order, self._order.address.plan
            hands = X11Hands(
                connection, order.place.window, order.place.focus, self._selections, self._tree,
                plan.paste_key, plan.pace_ms, self._stop.is_set,
            )  # fmt: skip
            report = self._carried_out(hands, act)
        finally:
            connection.close()
        self._ended(report)

    def _carried_out(self, hands: X11Hands, act: Callable[[X11Hands], RunReport]) -> RunReport:
        try:
            hands.begin(list(self._order.values.values()), self._order.address.plan.back_first)
        except StopRun as stop:
            return self._run_with(hands).not_begun(stop)
        try:
            return act(hands)
        finally:
            hands.end()

    def _begin(self, hands: X11Hands) -> RunReport:
        if self._order.by != FOUND:
            report = self._run_with(hands).go()
        else:
            found = try_ways(lambda way: self._new_run(hands, way))
            self._found(found)
            report = found.report
        if self._order.returns and not report.stop:
            # What comes between now is for the person to see: the run has had its end.
            with suppress(StopRun):
                self._run_with(hands).back_to_first()
        return report

    def _run_with(self, hands: X11Hands) -> Run:
        """The run that goes on; a new one where none has begun."""
        if self._run is None:
            return self._new_run(hands, "" if self._order.by == FOUND else self._order.by)
        self._run.hands = hands
        return self._run

    def _new_run(self, hands: X11Hands, by: str) -> Run:
        plan = self._order.address.plan
        self._run = Run(plan, self._texts(), hands, _clock_ms, self._observe, by)
        return self._run

    def _texts(self) -> list[FieldText]:
        values = self._order.values
        return [
            FieldText(
                one.key,
                one.field.label,
                values.get(one.key, ""),
                one.field.max_length,
                one.where,
                one.cells,
            )
            for one in self._order.target.fields
        ]

    def _observe(self, _at: int, says: str) -> None:
        self._stepped(says)
        if self._order.is_slow:
            self._step.clear()
            self._step.wait(SLOW_SECONDS)


def told_fields(report: RunReport) -> list[dict[str, str]]:
    """The fields of a report without their texts."""
    return [{"field": one.field, "label": one.label, "state": one.state} for one in report.fields]


def _clock_ms() -> float:
    return time.monotonic() * 1000
