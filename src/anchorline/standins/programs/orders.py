"""A full-screen order form in a terminal: full fields pass on, Ctrl+U clears, Tab goes on."""

from __future__ import annotations

import curses
import locale
from dataclasses import dataclass

from .state import State, read_state

_LEFT, _TOP = 20, 5
_TAB, _BACK_TAB, _CLEAR, _RETURN, _DELETE = "\t", curses.KEY_BTAB, "\x15", "\n", 127


@dataclass(frozen=True)
class TerminalField:
    """A field of so many columns."""

    key: str
    label: str
    width: int


FIELDS = (
    TerminalField("line1", "Line 1", 30),
    TerminalField("line2", "Line 2", 30),
    TerminalField("town", "Town", 25),
    TerminalField("postcode", "Postcode", 10),
    TerminalField("country", "Country code", 2),
)


class OrderScreen:
    """The screen: its fields, and the one that the cursor is in."""

    def __init__(self, window: curses.window, state: State) -> None:
        self._window, self._state, self._at = window, state, 0
        self._texts = {one.key: state.values.get(one.key, "") for one in FIELDS}

    def run(self) -> None:
        """Draws, and takes keys, until F10."""
        while True:
            self._draw()
            key = self._window.get_wch()
            if key == curses.KEY_F10:
                return
            self._take(key)
            self._state.keep(self._texts)

    def _take(self, key: int | str) -> None:
        one = FIELDS[self._at]
        if key in (_TAB, _RETURN, curses.KEY_DOWN):
            self._move(1)
        elif key in (_BACK_TAB, curses.KEY_UP):
            self._move(-1)
        elif key == _CLEAR:
            self._texts[one.key] = ""
        elif key in (curses.KEY_BACKSPACE, chr(_DELETE), "\b"):
            self._texts[one.key] = self._texts[one.key][:-1]
        elif isinstance(key, str) and key.isprintable():
            self._texts[one.key] += key
            if len(self._texts[one.key]) >= one.width:
                self._move(1)

    def _move(self, by: int) -> None:
        self._at = (self._at + by) % len(FIELDS)

    def _draw(self) -> None:
        window = self._window
        window.erase()
        window.addstr(1, 2, f"ORDER {self._state.number}", curses.A_BOLD)
        window.addstr(2, 2, "Deliver to")
        for row, one in enumerate(FIELDS):
            window.addstr(_TOP + row, 4, one.label)
            style = curses.A_REVERSE if row == self._at else curses.A_UNDERLINE
            text = self._texts[one.key]
            window.addstr(_TOP + row, _LEFT, " " * one.width, style)
            window.addstr(_TOP + row, _LEFT, text, style)
        window.addstr(_TOP + len(FIELDS) + 2, 4, "Tab next   Ctrl+U clear   F10 leave")
        window.move(_TOP + self._at, _LEFT + min(len(self._texts[FIELDS[self._at].key]), 40))
        window.refresh()


def main() -> None:
    """Shows the form in the terminal that it is started in."""
    state = read_state(__doc__ or "", tuple(one.key for one in FIELDS))
    locale.setlocale(locale.LC_ALL, "")
    curses.wrapper(lambda window: _run(window, state))


def _run(window: curses.window, state: State) -> None:
    curses.raw()
    OrderScreen(window, state).run()


if __name__ == "__main__":
    main()
