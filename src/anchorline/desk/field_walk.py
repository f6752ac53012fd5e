"""Walking through a screen's fields while a target is set up: each is lit up in turn.

A field is lit up by its number, written into it; what stood there is put back before the next one.
"""

from __future__ import annotations

import threading
from collections.abc import Callable

from anchorline.core.targets.programs import StopRun
from anchorline.core.targets.programs.fields import EMPTIES
from anchorline.core.targets.programs.keys import Chord, read_chords

from .accessible.tree import Tree
from .writing import Place
from .x11.hands import X11Hands
from .x11.screen import open_display
from .x11.selections import Selections

# A walk is in no hurry, and puts back what stood in each field: a slow program gets its time to say
# what that is.
_MARK_SECONDS = 0.4
_NEXT, _PASTE = Chord((), "Tab"), Chord(("Ctrl",), "v")


class FieldWalk:
    """Lights fields up, one after the other; its calls return at once.

    Args:
        clear_keys: of a program that has its own, such as a form in a terminal.
        done: told the field's number when it is lit up, or what came between.
    """

    def __init__(
        self,
        selections: Selections,
        tree: Tree | None,
        place: Place,
        clear_keys: str,
        done: Callable[[int, str], None],
    ) -> None:
        self._selections, self._tree = selections, tree
        self._place, self._done = place, done
        self._clear = read_chords(clear_keys or EMPTIES["line"])
        self._before: str | None = None
        self._number = 0
        self._one_at_a_time = threading.Lock()

    def light(self, number: int) -> None:
        """Lights up a field: the first one, or the next after the one that is lit up."""
        self._start(lambda hands: self._light(hands, number), number)

    def leave(self) -> None:
        """Puts back what stood in the field that is lit up, and goes to the first one."""
        self._start(self._leave, 0)

    def _start(self, act: Callable[[X11Hands], None], number: int) -> None:
        def work() -> None:
            with self._one_at_a_time:
                walk()

        def walk() -> None:
            connection = open_display()
            try:
                hands = X11Hands(
                    connection, self._place.window, self._place.focus, self._selections,
                    self._tree, _PASTE, mark_seconds=_MARK_SECONDS,
                )  # fmt: skip
                try:
                    hands.begin([f"‹{number}›", self._before or ""], bring_back=True)
                    act(hands)
                finally:
                    hands.end()
            except StopRun as stop:
                self._done(number, stop.detail)
            else:
                self._done(number, "")
            finally:
                connection.close()

        threading.Thread(target=work, name="walk", daemon=True).start()

    def _light(self, hands: X11Hands, number: int) -> None:
        if self._number:
            self._put_back(hands)
            hands.press(_NEXT)
        self._before = hands.clear(self._clear)
        hands.write(f"‹{number}›", "keys")
        self._number = number

    def _leave(self, hands: X11Hands) -> None:
        if self._number:
            self._put_back(hands)
        for _ in range(self._number - 1):
            hands.press(Chord(("Shift",), "Tab"))
        self._number = 0

    def _put_back(self, hands: X11Hands) -> None:
        hands.clear(self._clear)
        for at, line in enumerate((self._before or "").split("\n")):
            if at:
                hands.press(Chord((), "Return"))
            if line:
                hands.write(line, "keys")
        self._before = None
