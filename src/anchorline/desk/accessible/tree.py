"""Programs' windows as trees of accessible objects: names, roles, states, texts."""

from __future__ import annotations

import time
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from jeepney import DBusAddress, Message, Properties, new_method_call

from .bus import Bus

_ROOT = ("org.a11y.atspi.Registry", "/org/a11y/atspi/accessible/root")
_ACCESSIBLE = "org.a11y.atspi.Accessible"
_TEXT = "org.a11y.atspi.Text"
_EDITABLE = "org.a11y.atspi.EditableText"
# Numbers of states and roles (AT-SPI specification, Accessible).
_ACTIVE, _EDITABLE_STATE, _FOCUSED, _MULTI_LINE, _SELECTED = 1, 7, 12, 17, 23
_SHOWING = 25
_ENTRY, _PASSWORD = 79, 40
_TAB, _DIALOGS = 37, frozenset({2, 16})
_PARTS = 400


@dataclass(frozen=True, slots=True)
class Thing:
    """An accessible object: where it is on the bus, and what it says of itself."""

    bus_name: str
    path: str
    name: str = ""
    role: int = 0
    states: frozenset[int] = frozenset()

    @property
    def is_field(self) -> bool:
        """Whether it takes text."""
        return _EDITABLE_STATE in self.states or self.role in (_ENTRY, _PASSWORD)

    @property
    def is_focused(self) -> bool:
        """Whether it has the focus."""
        return _FOCUSED in self.states

    @property
    def is_open_tab(self) -> bool:
        """Whether it is the tab that is open."""
        return self.role == _TAB and _SELECTED in self.states

    @property
    def takes_lines(self) -> bool:
        """Whether it is a field of several lines."""
        return _MULTI_LINE in self.states

    @property
    def is_active_dialog(self) -> bool:
        """Whether it is a dialog that is shown."""
        return self.role in _DIALOGS and _SHOWING in self.states


class Tree:
    """Reads the objects of programs."""

    def __init__(self, bus: Bus) -> None:
        self._bus = bus
        self._fields: dict[int, list[Thing]] = {}

    def things(self, pid: int, seconds: float = 0.4) -> list[Thing]:
        """The objects of a process's windows, in their order, as far as they come in time."""
        until = time.monotonic() + seconds
        apps = [one for one in self._children([_ROOT], seconds)[0] if self._bus.pid(one[0]) == pid]
        found: list[Thing] = []
        level: list[tuple[str, str]] = apps
        while level and len(found) < _PARTS:
            left = until - time.monotonic()
            if left <= 0:
                break
            found += self._described(level, left)
            below = self._children(level, max(until - time.monotonic(), 0.01))
            level = [one for children in below for one in children][: _PARTS - len(found)]
        return found

    def focused(self, pid: int, seconds: float = 0.4) -> Thing | None:
        """The field of a process that has the focus: asked of those known, then of all."""
        known = self._fields.get(pid, [])
        calls = [new_method_call(_at(one.bus_name, one.path), "GetState") for one in known]
        for one, words in zip(known, self._bus.ask(calls, seconds), strict=True):
            if _FOCUSED in _bits(words):
                return one
        self._fields[pid] = [one for one in self.things(pid, seconds) if one.is_field]
        return next((one for one in self._fields[pid] if one.is_focused), None)

    def text(self, thing: Thing, seconds: float = 0.4) -> str | None:
        """What stands in a field; None where it does not say."""
        at = DBusAddress(thing.path, bus_name=thing.bus_name, interface=_TEXT)
        answer = self._bus.ask([new_method_call(at, "GetText", "ii", (0, -1))], seconds)[0]
        return None if answer is None else str(answer)

    def set_text(self, thing: Thing, text: str, seconds: float = 1.0) -> bool:
        """Puts a text into a field; False where it does not let anybody."""
        at = DBusAddress(thing.path, bus_name=thing.bus_name, interface=_EDITABLE)
        call = new_method_call(at, "SetTextContents", "s", (text,))
        return bool(self._bus.ask([call], seconds)[0])

    def _children(
        self, parents: Sequence[tuple[str, str]], seconds: float
    ) -> list[list[tuple[str, str]]]:
        calls = [new_method_call(_at(*one), "GetChildren") for one in parents]
        return [
            [(str(name), str(path)) for name, path in answer or ()]
            for answer in self._bus.ask(calls, seconds)
        ]

    def _described(self, places: Iterable[tuple[str, str]], seconds: float) -> list[Thing]:
        listed = list(places)
        calls: list[Message] = []
        for one in listed:
            at = _at(*one)
            calls += [
                Properties(at).get("Name"),
                new_method_call(at, "GetRole"),
                new_method_call(at, "GetState"),
            ]
        answers = self._bus.ask(calls, seconds)
        found = []
        for at, (bus_name, path) in enumerate(listed):
            name, role, states = _read(*answers[3 * at : 3 * at + 3])
            found.append(Thing(bus_name, path, name, role, states))
        return found


def _at(name: str, path: str) -> DBusAddress:
    return DBusAddress(path, bus_name=name, interface=_ACCESSIBLE)


def _read(name: Any, role: Any, states: Any) -> tuple[str, int, frozenset[int]]:
    text = str(name[1]) if isinstance(name, tuple) and len(name) == 2 else ""
    return text, int(role or 0), _bits(states)


def _bits(states: Any) -> frozenset[int]:
    words = states or ()
    return frozenset(
        32 * at + bit for at, word in enumerate(words) for bit in range(32) if int(word) >> bit & 1
    )
