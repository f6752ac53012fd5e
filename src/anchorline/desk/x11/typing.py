"""Keys sent to one window and to no other.

The server is held for each key: who has the focus is asked, and the key is sent only if it is the
window's; nothing can come between. A key that finds another window there is never sent.
"""

from __future__ import annotations

import time
from collections.abc import Callable

from Xlib import XK, X, display, error
from Xlib.ext import xtest

from anchorline.core.targets.programs import StopRun

from .keyboard import Keyboard, Stroke
from .screen import Screen

_UP_WITHIN = 2.0
_TRIES = 4
# With one of these on, a key would be another one.
_CHANGES_KEYS = X.ShiftMask | X.LockMask | X.ControlMask | X.Mod1Mask | X.Mod4Mask
# Stands beside those for any key that is held down.
_HELD = 1 << 30
_ALL_MODIFIERS = (0, X.LockMask, X.Mod2Mask, X.LockMask | X.Mod2Mask)


class GuardedKeys:
    """Sends keys to a window, and listens for Escape meanwhile.

    Args:
        is_stopped: asked before each key, for whoever else can stop the run.
    """

    def __init__(
        self, connection: display.Display, window: int, is_stopped: Callable[[], bool]
    ) -> None:
        self._display, self._window, self._is_stopped = connection, window, is_stopped
        self.screen = Screen(connection)
        self.keyboard = Keyboard(connection)
        self._own: set[int] = set()
        self._escape = int(connection.keysym_to_keycode(XK.XK_Escape))
        self._was_caps_locked = False
        # Modifiers that were on when a key was to be sent, and _HELD.
        self._in_the_way = 0
        self.pace = 0.002
        self._answered = 0
        self._protocols = self.screen.atom("WM_PROTOCOLS")

    def begin(self) -> None:
        """Makes the keyboard ready: nothing held, no Caps Lock; Escape stops from here on.

        Raises:
            StopRun: keys are held down.
        """
        self._listen()
        self.wait_until_up()
        if self.keyboard.is_caps_locked():
            self._was_caps_locked = True
            self._toggle_caps()

    def end(self) -> None:
        """Leaves the keyboard as it was."""
        if self._was_caps_locked and not self.keyboard.is_caps_locked():
            self._toggle_caps()
        self._was_caps_locked = False
        for modifiers in _ALL_MODIFIERS:
            self.screen.root.ungrab_key(self._escape, modifiers)
        self._display.sync()

    def wait_until_up(self) -> None:
        """Waits until no key is held: what is typed would be changed by it."""
        until = time.monotonic() + _UP_WITHIN
        while self.keyboard.down():
            if time.monotonic() > until:
                raise StopRun("keys", "A key is held down. Let go of it, and go on.")
            time.sleep(0.005)

    def send(self, stroke: Stroke) -> None:
        """Presses a key, if the window has the focus.

        Raises:
            StopRun: it has not, or Escape was pressed.
        """
        self.check()
        for _ in range(_TRIES):
            focus = self._send_if(self._own, stroke)
            if focus is None:
                time.sleep(self.pace)
                return
            if self._in_the_way:
                self._clear_the_way()
                continue
            if self.screen.top(focus) != self._window:
                raise self.lost(focus)
            self._own.add(focus)
        raise StopRun("left", "The focus moves too often to write. Try again.")

    def check(self) -> None:
        """StopRun where Escape was pressed, or the layout changed; reads what has happened."""
        while self._display.pending_events():
            one = self._display.next_event()
            if one.type == X.KeyPress and one.detail == self._escape:
                raise StopRun("escape", "Escape was pressed.")
            if one.type == X.ClientMessage and one.client_type == self._protocols:
                self._answered = max(self._answered, int(one.data[1][1]))
            if one.type == X.MappingNotify:
                self._display.refresh_keyboard_mapping(one)
        if self._is_stopped():
            raise StopRun("escape", "It was stopped.")

    def has_answered(self, stamp: int) -> bool:
        """Whether the program has answered a question if it lives, sent with this stamp."""
        self.check()
        return self._answered >= stamp

    def lost(self, focus: int) -> StopRun:
        """Why the window has not the focus any more."""
        if not self.screen.exists(self._window):
            return StopRun("gone", "The window is gone.")
        front = self.screen.top(focus)
        facts, own = self.screen.facts(front), self.screen.facts(self._window)
        if front and (facts.owner == self._window or (facts.pid and facts.pid == own.pid)):
            named = f" “{facts.title}”" if facts.title else ""
            return StopRun("box", f"The program shows a window of its own{named}. Answer it first.")
        named = f"“{facts.title}” has" if facts.title else "Another window has"
        return StopRun("left", f"{named} the focus now.")

    def press_escape(self, stroke: Stroke) -> None:
        """Sends Escape to the window itself."""
        for modifiers in _ALL_MODIFIERS:
            self.screen.root.ungrab_key(self._escape, modifiers)
        self._display.sync()
        try:
            self.send(stroke)
        finally:
            self._display.sync()
            self._listen()

    def _listen(self) -> None:
        taken = error.CatchError(error.BadAccess)
        for modifiers in _ALL_MODIFIERS:
            self.screen.root.grab_key(
                self._escape, modifiers, True, X.GrabModeAsync, X.GrabModeAsync, onerror=taken
            )
        self._display.sync()

    def _clear_the_way(self) -> None:
        """Waits for keys that somebody holds down; Caps Lock is switched off.

        Raises:
            StopRun: a key is held for long.
        """
        locked, self._in_the_way = self._in_the_way & X.LockMask, 0
        if locked:
            self._was_caps_locked = True
            self._toggle_caps()
        self.wait_until_up()

    def _toggle_caps(self) -> None:
        stroke = self.keyboard.caps_lock()
        if stroke is None:
            raise StopRun("keys", "Caps Lock is on. Switch it off, and go on.")
        xtest.fake_input(self._display, X.KeyPress, stroke.code)
        xtest.fake_input(self._display, X.KeyRelease, stroke.code)
        self._display.sync()

    def _send_if(self, own: set[int], stroke: Stroke) -> int | None:
        """Sends a key if one of some windows has the focus; returns the window that has, else."""
        connection = self._display
        connection.grab_server()
        try:
            found = connection.get_input_focus().focus
            focus = found if isinstance(found, int) else found.id
            if focus not in own:
                return focus
            self._in_the_way = int(self.screen.root.query_pointer().mask) & _CHANGES_KEYS
            # While somebody holds a key that a program has asked for (Escape is one, of ours), all
            # keys go to that program, whichever window has the focus.
            if self._in_the_way or self.keyboard.down():
                self._in_the_way |= _HELD
                return focus
            for code in (*stroke.held, stroke.code):
                xtest.fake_input(connection, X.KeyPress, code)
            for code in (stroke.code, *reversed(stroke.held)):
                xtest.fake_input(connection, X.KeyRelease, code)
        finally:
            connection.ungrab_server()
            # Not flushed, the server would stay held and every program stand still.
            connection.sync()
        return None
