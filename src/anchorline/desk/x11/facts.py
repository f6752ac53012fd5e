"""A look at the screen in front: what X says, what the program tells, what a terminal shows."""

from __future__ import annotations

import time
from collections.abc import Iterator
from dataclasses import dataclass, field

from Xlib import X
from Xlib.ext import xtest

from anchorline.core.targets.programs import Fact, Look, SeenField

from ..accessible.tree import Thing, Tree
from .screen import Screen, WindowFacts, in_terminal, program_name
from .selections import Selections

# Classes of windows that are terminals.
TERMINALS = frozenset({"xterm", "XTerm", "UXTerm", "URxvt", "st-256color", "Rxvt"})
_MOST_TEXTS, _LONGEST = 120, 200
_MARK_SECONDS = 0.4
# Somebody waits for the finder meanwhile.
ASKED_SECONDS = 0.4


@dataclass(frozen=True, slots=True)
class SeenScreen:
    """A look, with the window and the field that had the focus, and the fields of the window."""

    look: Look
    window: int
    focus: int
    pid: int
    focused: Thing | None = None
    fields: tuple[SeenField, ...] = ()
    dialogs: tuple[str, ...] = field(default=())


class Looker:
    """Takes looks; used by one thread.

    Args:
        tree: None where programs cannot be asked.
    """

    def __init__(self, screen: Screen, selections: Selections, tree: Tree | None) -> None:
        self._screen, self._selections, self._tree = screen, selections, tree

    def look(
        self, focus: int | None = None, deep: bool = True, patience: float = ASKED_SECONDS
    ) -> SeenScreen:
        """The screen as it is now.

        Args:
            focus: the window with the focus, where it has moved on by now.
            deep: the program is asked, and a terminal read, which takes longer.
            patience: how long a program may take to tell of itself, in seconds.
        """
        focus = self._screen.focus() if focus is None else focus
        window = self._screen.top(focus)
        facts = self._screen.facts(window)
        is_terminal = bool(TERMINALS & set(facts.window_class))
        found = list(self._plain(window, focus, facts, is_terminal))
        things: list[Thing] = []
        if deep and self._tree is not None and facts.pid and not is_terminal:
            things = self._tree.things(facts.pid, patience)
            found += self._told(things)
        if deep and is_terminal:
            lines = (self.terminal_text(window) or "").splitlines()
            found += [Fact("terminal", line.strip()) for line in lines if line.strip()]
        return SeenScreen(
            look=Look(tuple(dict.fromkeys(_short(one) for one in found if one.text.strip()))),
            window=window,
            focus=focus,
            pid=facts.pid,
            focused=next((one for one in things if one.is_focused and one.is_field), None),
            fields=tuple(
                SeenField(
                    label=one.name,
                    is_named=bool(one.name),
                    several_lines=one.takes_lines,
                )
                for one in things
                if one.is_field
            ),
            dialogs=tuple(one.name for one in things if one.is_active_dialog),
        )

    def terminal_text(self, window: int) -> str | None:
        """The text that a terminal shows: it is marked from corner to corner, and read."""
        left, top, width, height = self._screen.geometry(window)
        if not width:
            return None
        display = self._screen.display
        before = self._screen.root.query_pointer()
        self._selections.offer("PRIMARY", "")
        for x, y, kind in (
            (left + 2, top + 2, X.ButtonPress),
            (left + width - 3, top + height - 3, X.ButtonRelease),
        ):
            xtest.fake_input(display, X.MotionNotify, x=x, y=y)
            xtest.fake_input(display, kind, 1)
        xtest.fake_input(display, X.MotionNotify, x=before.root_x, y=before.root_y)
        display.sync()
        until = time.monotonic() + _MARK_SECONDS
        while self._selections.holds("PRIMARY", display):
            if time.monotonic() > until:
                return None
            time.sleep(0.003)
        return self._selections.read("PRIMARY")

    def _plain(
        self, window: int, focus: int, facts: WindowFacts, is_terminal: bool
    ) -> Iterator[Fact]:
        if not window:
            return
        if facts.pid:
            yield Fact("program", program_name(facts.pid))
            inside = in_terminal(facts.pid) if is_terminal else ""
            if inside:
                yield Fact("program", inside)
        yield Fact("title", facts.title)
        part = self._screen.title(focus) if focus != window else ""
        if part and part != facts.title:
            yield Fact("part_title", part)
        for name in facts.window_class:
            yield Fact("window_class", name)
        yield Fact("dialog", "yes" if facts.is_dialog else "no")
        for name in self._screen.programs():
            if name != program_name(facts.pid):
                yield Fact("running", name)

    def _told(self, things: list[Thing]) -> Iterator[Fact]:
        texts = 0
        for one in things:
            if one.is_open_tab:
                yield Fact("tab", one.name)
            elif one.is_focused and one.is_field:
                yield Fact("field", one.name)
            if one.name and texts < _MOST_TEXTS:
                texts += 1
                yield Fact("text", one.name)


def _short(fact: Fact) -> Fact:
    return Fact(fact.kind, " ".join(fact.text.split())[:_LONGEST])
