"""The finder's window: type, choose, Enter. It shows a `Finding`, and tells what keys ask for."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtGui import QCloseEvent, QKeyEvent
from PySide6.QtWidgets import QLineEdit, QListWidgetItem

from anchorline.wire.finding import SuggestionSchema

from ..finding import Finding
from .panel import Panel, label
from .rows import Rows

_KEYS = "Enter takes · ↑ ↓ choose · Esc back to the program"


class FinderWindow(Panel):
    """The finder. Signals: what was typed, how far to move, and keys by name."""

    typed = Signal(str)
    moved = Signal(int)
    taken = Signal()
    back = Signal()
    closed = Signal()
    switched = Signal()
    slow_walk = Signal()
    new_target = Signal()
    send_look = Signal()

    def __init__(self) -> None:
        super().__init__("Anchorline: find an address")
        self._head, self._hint = label("", "head"), label(_KEYS, "hint")
        self._about = label("", "hint")
        self._input = QLineEdit()
        self._input.setAccessibleName("Find an address")
        self._input.setPlaceholderText("Postcode, street, town or firm")
        self._list = Rows("Suggestions")
        self._list.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._list.itemClicked.connect(self._clicked)
        for one in (self._head, self._input, self._list, self._about, self._hint):
            self.rows.addWidget(one)
        self._input.textEdited.connect(self.typed)
        self._input.installEventFilter(self)

    def say(self, head: str, about: str, keys: str = "") -> None:
        """Says whose screen it is, what should be known, and which further keys there are."""
        self._head.setText(head)
        self.setWindowTitle(f"Anchorline: find an address ({head})")
        self._about.setText(about)
        self._about.setVisible(bool(about))
        self._hint.setText(" · ".join(one for one in (_KEYS, keys) if one))
        self.adjustSize()

    def render_finding(self, state: Finding) -> None:
        """Shows a state."""
        if self._input.text() != state.text:
            self._input.setText(state.text)
        message = ""
        if state.problem:
            message = state.problem
        elif not state.suggestions and state.is_asking and not state.is_waiting:
            message = "Nothing is found. Try fewer letters, or the postcode alone."
        self._list.show_texts([_row(one) for one in state.suggestions], state.at, message)
        place = " › ".join(group.label for group in state.groups)
        self._input.setPlaceholderText(f"In {place}" if place else "Postcode, street, town or firm")
        self.adjustSize()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:  # noqa: N802 - Qt's name
        """Keys of the list and of the window, while the input has the focus."""
        if event.type() == QEvent.Type.KeyPress and isinstance(event, QKeyEvent):
            return self._key(event)
        return super().eventFilter(watched, event)

    def closeEvent(self, event: QCloseEvent) -> None:  # noqa: N802 - Qt's name
        """Closed by the window manager: the same as Escape."""
        event.ignore()
        self.closed.emit()

    def _key(self, event: QKeyEvent) -> bool:
        key = event.key()
        if key == Qt.Key.Key_Down:
            self.moved.emit(1)
        elif key == Qt.Key.Key_Up:
            self.moved.emit(-1)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.taken.emit()
        elif key == Qt.Key.Key_Escape:
            self.closed.emit()
        elif key == Qt.Key.Key_F2:
            self.switched.emit()
        elif key == Qt.Key.Key_F3:
            self.new_target.emit()
        elif key == Qt.Key.Key_F4:
            self.send_look.emit()
        elif key == Qt.Key.Key_F8:
            self.slow_walk.emit()
        elif key == Qt.Key.Key_Backspace and not self._input.text():
            self.back.emit()
        else:
            return False
        return True

    def _clicked(self, item: QListWidgetItem) -> None:
        self.moved.emit(self._list.row(item) - self._list.currentRow())
        self.taken.emit()


def _row(one: SuggestionSchema) -> str:
    return f"{one.label}   {one.count:,} addresses ›" if one.count > 1 else one.label
