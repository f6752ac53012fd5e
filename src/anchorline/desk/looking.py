"""Looks at the screen in front, on connections of their own; may be asked from any thread."""

from __future__ import annotations

import threading

from .accessible.bus import Bus
from .accessible.tree import Tree
from .errors import NoBusError
from .x11.facts import ASKED_SECONDS, Looker, SeenScreen
from .x11.screen import Screen, open_display
from .x11.selections import Selections


class Eyes:
    """Looks at the screen.

    Attributes:
        selections: what is marked, and the clipboard.
        tree: what programs tell of themselves; None where they cannot be asked.
        without_tree: why they cannot; empty where they can.
    """

    def __init__(self) -> None:
        self._display = open_display()
        self._lock = threading.Lock()
        self.screen = Screen(self._display)
        self.selections = Selections(open_display())
        self.tree: Tree | None = None
        self.without_tree = ""
        self._bus: Bus | None = None
        try:
            self._bus = Bus.open()
            self.tree = Tree(self._bus)
        except NoBusError as error:
            self.without_tree = str(error)
        self._looker = Looker(self.screen, self.selections, self.tree)

    def look(
        self, focus: int | None = None, deep: bool = True, patience: float = ASKED_SECONDS
    ) -> SeenScreen:
        """The screen as it is now; see `Looker.look`."""
        with self._lock:
            self.screen.forget()
            return self._looker.look(focus, deep, patience)

    def activate(self, window: int, focus: int = 0) -> None:
        """Brings a window to the front."""
        with self._lock:
            self.screen.activate(window, focus)

    def front(self) -> int:
        """The window with the focus."""
        with self._lock:
            self.screen.forget()
            return self.screen.front()

    def geometry(self, window: int) -> tuple[int, int, int, int]:
        """Where a window is: left, top, width, height in pixels."""
        with self._lock:
            return self.screen.geometry(window)

    def close(self) -> None:
        """Ends all connections."""
        self.selections.close()
        if self._bus is not None:
            self._bus.close()
        self._display.close()
