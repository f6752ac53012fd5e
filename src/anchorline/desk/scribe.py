"""Writing in a process of its own.

Whoever holds the X server for a key must not wait for anybody who waits for the server: in one
process with the windows, both would wait for Python's lock, and every program would stand still.
"""

from __future__ import annotations

import contextlib
import multiprocessing
import signal
import threading
from collections.abc import Callable
from dataclasses import dataclass
from multiprocessing.connection import Connection
from multiprocessing.context import SpawnProcess

from anchorline.core.targets.programs import RunReport
from anchorline.core.targets.programs.trying import Found

from .accessible.bus import Bus
from .accessible.tree import Tree
from .errors import NoBusError
from .field_walk import FieldWalk
from .writing import Order, Place, Writing
from .x11.keyboard import Keyboard
from .x11.screen import open_display
from .x11.selections import Selections


@dataclass(frozen=True, slots=True)
class Walk:
    """A field that is to be lit up: number 1 begins anew, 0 puts everything back."""

    place: Place
    clear_keys: str
    number: int


@dataclass(frozen=True, slots=True)
class Lit:
    """A field is lit up, or what came between."""

    number: int
    problem: str


class Scribe:
    """The process that writes, as the agent sees it; one address at a time.

    Args:
        ended, stepped, found, lit: told from a thread of this object.
        lost: told that the process is gone in the middle of its work.
    """

    def __init__(
        self,
        ended: Callable[[RunReport], None],
        stepped: Callable[[str], None],
        found: Callable[[Found], None],
        lit: Callable[[int, str], None],
        lost: Callable[[], None],
    ) -> None:
        self._ended, self._stepped, self._found = ended, stepped, found
        self._lit, self._lost = lit, lost
        self._closing = False
        self._start()

    def write(self, order: Order) -> None:
        """Writes an address."""
        self._send(order)

    def go_on(self) -> None:
        """Carries on after a stop."""
        self._send("go_on")

    def undo(self) -> None:
        """Takes back what was written."""
        self._send("undo")

    def stop(self) -> None:
        """Stops before the next key."""
        self._send("stop")

    def next_step(self) -> None:
        """Of a slow walk: goes on now."""
        self._send("next_step")

    def walk(self, walk: Walk) -> None:
        """Lights a field up."""
        self._send(walk)

    def close(self) -> None:
        """Ends the process."""
        self._closing = True
        self._connection.close()
        self._process.join(3)
        if self._process.is_alive():
            self._process.terminate()

    @property
    def pid(self) -> int:
        """The process's number."""
        return self._process.pid or 0

    def _start(self) -> None:
        context = multiprocessing.get_context("spawn")
        self._connection, theirs = context.Pipe()
        self._process: SpawnProcess = context.Process(
            target=serve, args=(theirs,), name="scribe", daemon=True
        )
        self._process.start()
        theirs.close()
        threading.Thread(
            target=self._hear, args=(self._connection,), name="hearing", daemon=True
        ).start()

    def _send(self, message: object) -> None:
        try:
            self._connection.send(message)
        except OSError:
            # It has just gone: whoever hears starts it anew.
            return

    def _hear(self, connection: Connection) -> None:
        while True:
            try:
                message = connection.recv()
            except (EOFError, OSError):
                break
            if isinstance(message, RunReport):
                self._ended(message)
            elif isinstance(message, Found):
                self._found(message)
            elif isinstance(message, Lit):
                self._lit(message.number, message.problem)
            else:
                self._stepped(str(message))
        if not self._closing:
            self._start()
            self._lost()


def serve(connection: Connection) -> None:
    """Writes what is ordered, until the other end is closed."""
    # Ctrl-C in a terminal goes to both: the agent says when to end.
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    selections = Selections(open_display())
    tree = None
    with contextlib.suppress(NoBusError):
        tree = Tree(Bus.open())
    lock = threading.Lock()

    def tell(message: object) -> None:
        with lock, contextlib.suppress(OSError):
            connection.send(message)

    writing: Writing | None = None
    walk: FieldWalk | None = None
    while True:
        try:
            message = connection.recv()
        except (EOFError, OSError):
            break
        if isinstance(message, Order):
            writing = Writing(message, selections, tree, tell, tell, tell)
            writing.start()
        elif isinstance(message, Walk):
            if message.number == 1:
                walk = FieldWalk(
                    selections, tree, message.place, message.clear_keys,
                    lambda number, problem: tell(Lit(number, problem)),
                )  # fmt: skip
            if walk is not None:
                walk.leave() if message.number == 0 else walk.light(message.number)
        elif writing is not None:
            getattr(writing, str(message))()
    # The keys that were borrowed are given back.
    with contextlib.suppress(Exception):
        Keyboard(open_display()).give_back()
