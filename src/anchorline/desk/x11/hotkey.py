"""A key that is heard whatever program has the focus."""

from __future__ import annotations

import os
import select
import threading
import time
from collections.abc import Callable

from Xlib import XK, X, display, error

from anchorline.core.targets.programs.keys import Chord

from ..errors import HotkeyTakenError
from .screen import Screen

_MASKS = {
    "Ctrl": X.ControlMask, "Alt": X.Mod1Mask, "Shift": X.ShiftMask, "Super": X.Mod4Mask,
}  # fmt: skip
# A person lets go of keys within this; who holds them longer waits no further.
_HELD_SECONDS = 2.0
_LOOK_SECONDS = 0.004
# Caps Lock and Num Lock do not matter.
_LOCKS = (0, X.LockMask, X.Mod2Mask, X.LockMask | X.Mod2Mask)


class Hotkey:
    """Listens for one key on a connection of its own.

    Args:
        pressed: told the window with the focus, from a thread of its own.

    Raises:
        HotkeyTakenError: another program has it, or the keyboard has no such key.
    """

    def __init__(
        self, connection: display.Display, chord: Chord, pressed: Callable[[int], None]
    ) -> None:
        self._display, self._pressed = connection, pressed
        self._screen = Screen(connection)
        code = connection.keysym_to_keycode(XK.string_to_keysym(_symbol(chord.key)))
        if not code:
            raise HotkeyTakenError(f"The keyboard has no key {chord.key}: choose another --hotkey.")
        held = 0
        for one in chord.held:
            held |= _MASKS[one]
        taken = error.CatchError(error.BadAccess)
        for lock in _LOCKS:
            self._screen.root.grab_key(
                code, held | lock, False, X.GrabModeAsync, X.GrabModeAsync, onerror=taken
            )
        connection.sync()
        if taken.get_error():
            connection.close()
            raise HotkeyTakenError(
                f"Another program has the key {chord}: choose another one with --hotkey, such as "
                "--hotkey Ctrl+Shift+F9."
            )
        self._code = code
        self._woken, self._wake = os.pipe()
        self._thread = threading.Thread(target=self._listen, name="hotkey", daemon=True)
        self._thread.start()

    def close(self) -> None:
        """Listens no more."""
        os.write(self._wake, b".")
        self._thread.join(2)
        os.close(self._woken)
        os.close(self._wake)
        self._display.close()

    def _listen(self) -> None:
        while True:
            while self._display.pending_events():
                one = self._display.next_event()
                if one.type == X.KeyPress and one.detail == self._code:
                    focus = self._screen.focus()
                    self._wait_until_up()
                    self._pressed(focus)
            ready = select.select([self._display.fileno(), self._woken], [], [])[0]
            if self._woken in ready:
                return

    def _wait_until_up(self) -> None:
        """Waits until no key is held: nothing can be asked of a screen while they are.

        A terminal is read by marking it, and held keys make something else of that.
        """
        until = time.monotonic() + _HELD_SECONDS
        while any(self._display.query_keymap()) and time.monotonic() < until:
            time.sleep(_LOOK_SECONDS)


def _symbol(key: str) -> str:
    return {"Space": "space", "PageUp": "Prior", "PageDown": "Next", "Backspace": "BackSpace"}.get(
        key, key.lower() if len(key) == 1 else key
    )
