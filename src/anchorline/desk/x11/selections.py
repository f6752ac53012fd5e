"""Selections of X: what is marked (PRIMARY) and the clipboard, read and offered by one thread.

One lasting owner: programs fetch what is pasted when it suits them, some of them later than one
would think.
"""

from __future__ import annotations

import os
import select
import threading
from collections.abc import Callable
from concurrent.futures import Future, TimeoutError
from contextlib import suppress
from queue import SimpleQueue
from typing import TypeVar

from Xlib import X, Xatom, display, error
from Xlib.protocol import event, rq

_T = TypeVar("_T")
_ANSWER_SECONDS = 1.0


class Selections:
    """Reads and offers selections."""

    def __init__(self, connection: display.Display) -> None:
        self._display = connection
        screen = connection.screen()
        self._window = screen.root.create_window(0, 0, 1, 1, 0, screen.root_depth)
        self._atoms = {
            name: connection.intern_atom(name)
            for name in ("PRIMARY", "CLIPBOARD", "UTF8_STRING", "TARGETS", "ANCHORLINE_DESK")
        }
        self._texts: dict[int, bytes] = {}
        self._given: dict[int, int] = {}
        self._tasks: SimpleQueue[tuple[Callable[[], object], Future[object]]] = SimpleQueue()
        self._waiting: Future[str | None] | None = None
        self._woken, self._wake = os.pipe()
        self._running = True
        self._thread = threading.Thread(target=self._serve, name="selections", daemon=True)
        self._thread.start()

    def close(self) -> None:
        """Offers nothing any more."""
        self._running = False
        os.write(self._wake, b".")
        self._thread.join(2)
        os.close(self._woken)
        os.close(self._wake)
        self._display.close()

    def offer(self, selection: str, text: str) -> None:
        """Holds a selection with a text, until another program takes it."""
        self._do(lambda: self._offer(self._atoms[selection], text.encode()))

    def holds(self, selection: str, connection: display.Display) -> bool:
        """Whether no other program has taken what we offer, by the server's own word.

        Asked on the connection of whoever waits: what a program did before it answered there is
        known then, however busy this object's thread is.
        """
        holder = connection.get_selection_owner(self._atoms[selection])
        return not isinstance(holder, int) and holder.id == self._window.id

    def times_asked(self, selection: str) -> int:
        """How often programs have fetched what we offer so far."""
        return self._do(lambda: self._given.get(self._atoms[selection], 0))

    def read(self, selection: str) -> str | None:
        """What a selection holds; None where nobody answers."""
        return self.read_within(selection, _ANSWER_SECONDS)[0]

    def read_within(self, selection: str, seconds: float) -> tuple[str | None, bool]:
        """What a selection holds, and whether its holder was too slow to say."""
        waiting: Future[str | None] = Future()
        self._do(lambda: self._ask(self._atoms[selection], waiting))
        try:
            return waiting.result(seconds), False
        except TimeoutError:
            return None, True

    def _do(self, task: Callable[[], _T]) -> _T:
        done: Future[_T] = Future()
        self._tasks.put((task, done))  # type: ignore[arg-type]
        os.write(self._wake, b".")
        return done.result(_ANSWER_SECONDS * 3)

    def _serve(self) -> None:
        # With the display everything of it is gone; whoever needs it is told by its own connection.
        with suppress(error.ConnectionClosedError, OSError):
            self._serve_display()

    def _serve_display(self) -> None:
        while self._running:
            while self._display.pending_events():
                self._handle(self._display.next_event())
            select.select([self._display.fileno(), self._woken], [], [], 1)
            if select.select([self._woken], [], [], 0)[0]:
                os.read(self._woken, 64)
            while not self._tasks.empty():
                task, done = self._tasks.get()
                try:
                    done.set_result(task())
                except Exception as problem:
                    done.set_exception(problem)

    def _offer(self, selection: int, text: bytes) -> None:
        self._texts[selection] = text
        self._window.set_selection_owner(selection, X.CurrentTime)
        self._display.sync()

    def _ask(self, selection: int, waiting: Future[str | None]) -> None:
        self._waiting = waiting
        target, place = self._atoms["UTF8_STRING"], self._atoms["ANCHORLINE_DESK"]
        self._window.convert_selection(selection, target, place, X.CurrentTime)
        self._display.flush()

    def _handle(self, one: rq.Event) -> None:
        if one.type == X.SelectionClear:
            self._texts.pop(one.atom, None)
        elif one.type == X.SelectionRequest:
            self._hand_over(one)
        elif one.type == X.SelectionNotify and self._waiting is not None:
            waiting, self._waiting = self._waiting, None
            if not waiting.done():
                waiting.set_result(self._received(one))

    def _received(self, one: rq.Event) -> str | None:
        if one.property == X.NONE:
            return None
        found = self._window.get_full_property(one.property, X.AnyPropertyType)
        self._window.delete_property(one.property)
        if found is None:
            return None
        value = found.value
        return value.decode("utf-8", "replace") if isinstance(value, bytes) else str(value)

    def _hand_over(self, one: rq.Event) -> None:
        text = self._texts.get(one.selection)
        place = one.property or one.target
        if text is None:
            place = X.NONE
        elif one.target == self._atoms["TARGETS"]:
            offered = [self._atoms["TARGETS"], self._atoms["UTF8_STRING"], Xatom.STRING]
            self._put(one, place, Xatom.ATOM, 32, offered)
        elif one.target in (self._atoms["UTF8_STRING"], Xatom.STRING):
            self._put(one, place, one.target, 8, text)
            self._given[one.selection] = self._given.get(one.selection, 0) + 1
        else:
            place = X.NONE
        answer = event.SelectionNotify(
            time=one.time, requestor=one.requestor, selection=one.selection,
            target=one.target, property=place,
        )  # fmt: skip
        try:
            one.requestor.send_event(answer)
            self._display.flush()
        except error.BadWindow:
            return

    def _put(self, one: rq.Event, place: int, kind: int, size: int, value: object) -> None:
        try:
            one.requestor.change_property(place, kind, size, value)
        except error.BadWindow:
            return
