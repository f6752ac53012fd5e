"""Hands for X11: a run's keys, guarded; what stands in a field; the clipboard."""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from contextlib import suppress

from Xlib import X, display
from Xlib.protocol import event

from anchorline.core.targets.programs import Look, StopRun
from anchorline.core.targets.programs.keys import Chord

from ..accessible.tree import Thing, Tree
from .facts import Looker
from .keyboard import KeyboardError, NoRoomError
from .screen import Screen
from .selections import Selections
from .typing import GuardedKeys

_ALIVE_SECONDS = 3.0
_FRONT_SECONDS = 1.0
# A program that has answered may still be about to say what is marked: so long, or some times as
# long as it took at most so far, whichever is longer.
_MARK_SECONDS, _MARK_TIMES = 0.06, 4
# What was just written is surely there: a slow program gets longer to say so.
_READ_SECONDS = 0.4
_PASTE_SECONDS = 1.5
# For programs that cannot be asked whether they have read all keys so far.
_SETTLE_SECONDS = 0.05
_PASTED = ("CLIPBOARD", "PRIMARY")
_END = Chord((), "End")


class X11Hands:
    """Writes into one window of an X display; used by one thread.

    Args:
        window: the program's window; nothing is sent to any other.
        focus: the window inside it that has the focus.
        paste_key: of the plan.
        is_stopped: whether somebody else has stopped the run.
        mark_seconds: how long a program that lives may take to mark what stands in a field.
    """

    def __init__(
        self,
        connection: display.Display,
        window: int,
        focus: int,
        selections: Selections,
        tree: Tree | None,
        paste_key: Chord,
        pace_ms: int = 2,
        is_stopped: Callable[[], bool] = lambda: False,
        mark_seconds: float = _MARK_SECONDS,
    ) -> None:
        self._display, self._window, self._focus = connection, window, focus
        self._selections, self._tree, self._paste_key = selections, tree, paste_key
        self.keys = GuardedKeys(connection, window, is_stopped)
        self.keys.pace = pace_ms / 1000
        self._screen: Screen = self.keys.screen
        self._looker = Looker(self._screen, selections, tree)
        self._pid = self._screen.pid(window)
        self._answers = False
        # Toolkits send their answer with one or the other of these.
        answers = X.SubstructureNotifyMask | X.StructureNotifyMask
        self._screen.root.change_attributes(event_mask=answers)
        self._can_mark = False
        self._mark_seconds, self._slowest_mark = mark_seconds, 0.0
        self._clipboard: str | None = None
        self._asked = 0

    def begin(self, texts: Sequence[str], bring_back: bool) -> None:
        """Makes ready to write some texts: the window in front, the keyboard with all characters.

        Raises:
            StopRun: the window does not come, keys are held, or the program does not answer.
        """
        if bring_back and self._screen.front() != self._window:
            self._screen.activate(self._window, self._focus)
        until = time.monotonic() + _FRONT_SECONDS
        while self._screen.front() != self._window:
            if time.monotonic() > until:
                raise self.keys.lost(self._screen.focus())
            time.sleep(0.003)
        self.keys.begin()
        if self.keys.keyboard.group:
            self.keys.keyboard.load()
        # For all of them at once, where there is room; else for each before it is typed.
        with suppress(NoRoomError):
            self.keys.keyboard.prepare(texts)
        self._require_answer()

    def end(self) -> None:
        """Leaves the keyboard and the clipboard as they were."""
        self.keys.end()
        if self._clipboard is not None:
            self._selections.offer("CLIPBOARD", self._clipboard)
            self._clipboard = None

    def press(self, chord: Chord) -> None:
        """Presses a key, if the window still has the focus."""
        try:
            stroke = self.keys.keyboard.chord(chord)
        except KeyboardError as error:
            raise StopRun("layout", str(error)) from None
        if str(chord) == "Escape":
            self.keys.press_escape(stroke)
        else:
            self.keys.send(stroke)

    def write(self, text: str, way: str) -> None:
        """Writes a text of one line."""
        if way == "paste":
            self._paste(text)
        elif way == "accessible":
            self._set(text)
        else:
            self._type(text)

    def clear(self, chords: Sequence[Chord]) -> str | None:
        """Empties the field; returns what stood there, None where that is unknown."""
        self._require_answer()
        *select, last = chords
        if not select:
            self.press(last)
            return None
        before = self._marked(select, self._mark_seconds)
        self.press(last)
        return before

    def focused_field(self) -> str | None:
        """The name of the field with the focus; None where the program does not say."""
        focused = self._focused()
        return (focused.name or None) if focused is not None else None

    def read_field(self, select: Sequence[Chord]) -> str | None:
        """What stands in the field; None where it cannot be read."""
        if select:
            found = self._marked(select, _READ_SECONDS)
            self.press(_END)
            if found is not None:
                return found
        focused = self._focused()
        return None if focused is None or self._tree is None else self._tree.text(focused)

    def look(self) -> Look:
        """The facts of the screen as it is now."""
        return self._looker.look().look

    def screen_text(self) -> str | None:
        """All text that a terminal shows."""
        return self._looker.terminal_text(self._window)

    def pause(self, seconds: float) -> None:
        """Waits, and stops where the person does."""
        self.keys.check()
        time.sleep(seconds)

    def _type(self, text: str) -> None:
        # More odd characters in one text than there are keys to spare: the rest is pasted.
        with suppress(NoRoomError):
            self._make_room(text)
        for place, sign in enumerate(text):
            try:
                self.keys.send(self.keys.keyboard.stroke(sign))
            except KeyboardError:
                self._paste(text[place:], place)
                return
            except StopRun as stop:
                stop.written = place
                raise

    def _make_room(self, text: str) -> None:
        if not self.keys.keyboard.is_ready_for(text):
            # What was typed before is to be read with the keys that it was typed with.
            if not self._require_answer():
                time.sleep(_SETTLE_SECONDS)
            self.keys.keyboard.prepare([text])

    def _paste(self, text: str, before: int = 0) -> None:
        if self._clipboard is None:
            self._clipboard = self._selections.read("CLIPBOARD") or ""
        # Terminals take what is marked, all others what is copied.
        for selection in _PASTED:
            self._selections.offer(selection, text)
        asked = self._times_asked()
        try:
            self.press(self._paste_key)
        except StopRun as stop:
            stop.written = before
            raise
        until = time.monotonic() + _PASTE_SECONDS
        while self._times_asked() == asked:
            self.keys.check()
            if time.monotonic() > until:
                detail = f"The program takes nothing from the clipboard at {self._paste_key}."
                raise StopRun("refused", detail, before)
            time.sleep(0.003)
        self._require_answer()

    def _times_asked(self) -> int:
        return sum(self._selections.times_asked(selection) for selection in _PASTED)

    def _set(self, text: str) -> None:
        focused = self._focused()
        if focused is None or self._tree is None:
            detail = "The program does not tell which field has the focus: write by keys instead."
            raise StopRun("refused", detail)
        if self._screen.front() != self._window:
            raise self.keys.lost(self._screen.focus())
        there = self._tree.text(focused) or ""
        if not self._tree.set_text(focused, there + text):
            detail = f"The field “{focused.name}” takes no text but by keys."
            raise StopRun("refused", detail)

    def _focused(self) -> Thing | None:
        if self._tree is None or not self._pid:
            return None
        return self._tree.focused(self._pid)

    def _marked(self, select: Sequence[Chord], patience: float) -> str | None:
        """What stands in the field, after it is marked; None where that is not to be learned."""
        self._selections.offer("PRIMARY", "")
        for chord in select:
            self.press(chord)
        pressed = time.monotonic()
        answered = self._require_answer()
        until = time.monotonic() + max(patience, _MARK_TIMES * self._slowest_mark)
        while self._selections.holds("PRIMARY", self._display):
            if time.monotonic() > until:
                # Nothing was marked: the field is empty, or the program never says.
                return "" if self._can_mark and answered else None
            time.sleep(0.002)
        self._can_mark = True
        self._slowest_mark = max(self._slowest_mark, time.monotonic() - pressed)
        text, is_slow = self._selections.read_within("PRIMARY", _ALIVE_SECONDS)
        if is_slow:
            raise StopRun("frozen", "The program does not answer. Wait until it does, and go on.")
        return text

    def _can_answer(self) -> bool:
        """Whether the window takes part in the window manager's question if it lives."""
        protocols = self._screen.protocols(self._window)
        return self._screen.atom("_NET_WM_PING") in protocols

    def _require_answer(self) -> bool:
        """Waits until the program has handled all keys so far, where it can be asked.

        Raises:
            StopRun: it does not answer.
        """
        # Some say that they can be asked only a while after their window has come.
        self._answers = self._answers or self._can_answer()
        if not self._answers:
            return False
        self._asked += 1
        stamp = 0x40000000 + self._asked
        message = event.ClientMessage(
            window=self._display.create_resource_object("window", self._window),
            client_type=self._screen.atom("WM_PROTOCOLS"),
            data=(32, [self._screen.atom("_NET_WM_PING"), stamp, self._window, 0, 0]),
        )
        self._display.send_event(self._window, message)
        self._display.flush()
        until = time.monotonic() + _ALIVE_SECONDS
        while not self.keys.has_answered(stamp):
            if time.monotonic() > until:
                detail = "The program does not answer. Wait until it does, and go on."
                raise StopRun("frozen", detail)
            time.sleep(0.001)
        return True
