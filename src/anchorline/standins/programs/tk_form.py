"""A Tk window with labelled fields; Tk tells nobody what they are called."""

from __future__ import annotations

import tkinter as tk
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from tkinter import ttk

from .state import State

_WIDTH = 34


@dataclass(frozen=True)
class TkField:
    """A field: `rows` more than one for a box of lines; `is_plain` for one without a label."""

    key: str
    label: str
    rows: int = 1
    width: int = _WIDTH


class TkForm:
    """A window of fields, whose contents are kept at every change.

    Attributes:
        inputs: the widgets, by key.
    """

    def __init__(self, title: str, heading: str, fields: Sequence[TkField], state: State) -> None:
        self.root = tk.Tk()
        self.root.title(title)
        self.root.minsize(420, 120)
        self._state, self._fields = state, fields
        self._status = tk.StringVar(value="Ctrl+S saves")
        frame = ttk.Frame(self.root, padding=16)
        frame.grid(sticky="nsew")
        ttk.Label(frame, text=heading, font=("TkDefaultFont", 13, "bold")).grid(
            row=0, column=0, columnspan=2, sticky="w", pady=(0, 10)
        )
        self.inputs: dict[str, tk.Entry | tk.Text] = {}
        for row, one in enumerate(fields, 1):
            ttk.Label(frame, text=one.label).grid(row=row, column=0, sticky="nw", padx=(0, 12))
            self.inputs[one.key] = self._input(frame, one)
            self.inputs[one.key].grid(row=row, column=1, sticky="ew", pady=3)
        ttk.Label(frame, textvariable=self._status).grid(
            row=len(fields) + 1, column=0, columnspan=2, sticky="w", pady=(10, 0)
        )
        self.root.bind("<Control-s>", lambda _event: self._status.set("Saved"))
        self.inputs[fields[0].key].focus_set()

    def run(self, on_change: Callable[[], None] = lambda: None) -> None:
        """Shows the window until it is closed."""
        self._on_change = on_change
        self._watch()
        self.root.mainloop()

    def text(self, key: str) -> str:
        """What stands in a field."""
        widget = self.inputs[key]
        return widget.get("1.0", "end-1c") if isinstance(widget, tk.Text) else widget.get()

    def _watch(self) -> None:
        self._state.keep({one.key: self.text(one.key) for one in self._fields})
        self._on_change()
        self.root.after(15, self._watch)

    def _input(self, frame: ttk.Frame, one: TkField) -> tk.Entry | tk.Text:
        value = self._state.values.get(one.key, "")
        if one.rows == 1:
            entry = tk.Entry(frame, width=one.width)
            entry.insert(0, value)
            return entry
        box = tk.Text(frame, width=one.width, height=one.rows, font="TkTextFont")
        box.insert("1.0", value)
        # As in most programs: Tab goes to the next field, and stays out of the text.
        box.bind("<Tab>", _next)
        box.bind("<Shift-Tab>", _previous)
        box.bind("<ISO_Left_Tab>", _previous)
        return box


def _next(event: tk.Event[tk.Misc]) -> str:
    following = event.widget.tk_focusNext()
    if following:
        following.focus_set()
    return "break"


def _previous(event: tk.Event[tk.Misc]) -> str:
    before = event.widget.tk_focusPrev()
    if before:
        before.focus_set()
    return "break"
