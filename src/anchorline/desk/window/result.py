"""What came of a run: what stands where, what was not written, and what can be done about it."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import QTimer, Signal
from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import QHBoxLayout, QPushButton

from anchorline.core.targets.programs.report import FIELD_STATES, FieldReport, RunReport

from .panel import Geometry, Panel, label
from .rows import Rows

_SHOWN_MS = 2500


class Notice(Panel):
    """A line that is shown for a while, and takes no focus."""

    def __init__(self) -> None:
        super().__init__("Anchorline", takes_focus=False)
        self._text = label("")
        self._hint = label("", "hint")
        self.rows.addWidget(self._text)
        self.rows.addWidget(self._hint)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self.hide)

    def say(self, text: str, geometry: Geometry, hint: str = "", ms: int = _SHOWN_MS) -> None:
        """Shows a text; 0 milliseconds for as long as nothing else is said."""
        self._text.setText(text)
        self._hint.setText(hint)
        self._hint.setVisible(bool(hint))
        self._timer.stop()
        self.show_beside(geometry)
        if ms:
            self._timer.start(ms)


class ResultWindow(Panel):
    """A run's end that needs the person: stopped, different, or with parts left over."""

    go_on = Signal()
    undo = Signal()
    copied = Signal(str)
    closed = Signal()

    def __init__(self) -> None:
        super().__init__("Anchorline: what was written")
        self._says = label("", "head")
        self._list = Rows("Parts of the address")
        self._hint = label("", "hint")
        self._go_on = QPushButton("Go on from here (Ctrl+G)")
        self._undo = QPushButton("Take back (Ctrl+Z)")
        self._close = QPushButton("Close (Esc)")
        buttons = QHBoxLayout()
        for one in (self._go_on, self._undo, self._close):
            one.setAutoDefault(True)
            buttons.addWidget(one)
        self.rows.addWidget(self._says)
        self.rows.addWidget(self._list)
        self.rows.addWidget(self._hint)
        self.rows.addLayout(buttons)
        self._go_on.clicked.connect(self.go_on)
        self._undo.clicked.connect(self.undo)
        self._close.clicked.connect(self.closed)
        self._texts: list[str] = []
        for keys, signal in (("Ctrl+G", self.go_on), ("Ctrl+Z", self.undo), ("Esc", self.closed)):
            QShortcut(QKeySequence(keys), self).activated.connect(signal)
        self._list.itemActivated.connect(lambda _item: self._copy())

    def render_report(self, report: RunReport) -> None:
        """Shows a report; parts that were not written come first, to be copied."""
        left = list(report.left_over())
        unwritten = [one for one in report.fields if one.state in ("missing", "partly", "differs")]
        shown = [*left, *unwritten]
        rows = [(_line(one), one.text) for one in shown]
        if not report.stop and left and report.outcome != "differs":
            says = f"{report.says()} These parts have no field here:"
        else:
            says = report.says()
        self._show(says, rows)
        self._go_on.setVisible(bool(report.stop))
        self._undo.setVisible(report.outcome in ("stopped", "differs"))

    def render_lines(self, says: str, lines: Sequence[str]) -> None:
        """Shows an address to be copied line by line."""
        self._show(says, [(line, line) for line in lines])
        self._go_on.hide()
        self._undo.hide()

    def _show(self, says: str, rows: Sequence[tuple[str, str]]) -> None:
        self._says.setText(says)
        self._texts = [text for _, text in rows]
        self._list.show_texts([line for line, _ in rows], 0)
        self._hint.setText("Enter copies the line and goes to the next one." if rows else "")
        self._hint.setVisible(bool(rows))
        (self._list if rows else self._close).setFocus()
        self.adjustSize()

    def _copy(self) -> None:
        at = self._list.currentRow()
        if not 0 <= at < len(self._texts):
            return
        self.copied.emit(self._texts[at])
        item = self._list.item(at)
        if not item.text().endswith("  ✓ copied"):
            item.setText(f"{item.text()}  ✓ copied")
        self._list.setCurrentRow(min(at + 1, len(self._texts) - 1))


def _line(part: FieldReport) -> str:
    state = FIELD_STATES[part.state]
    if part.state == "differs" and part.found:
        state = f"stands there as “{part.found}”"
    if part.state == "partly":
        state = f"{part.written} of {len(part.text)} characters are written"
    return f"{part.label}: {part.text}   ({state})"
