"""A Qt dialog with tabs: a maximum length, forced capitals, a postcode that is written anew."""

from __future__ import annotations

import sys

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import (
    QApplication,
    QDialog,
    QFormLayout,
    QLineEdit,
    QPlainTextEdit,
    QTabWidget,
    QVBoxLayout,
    QWidget,
)

from .state import State, read_state

NAMES = ("line1", "line2", "town", "postcode", "country", "notes")
_LONGEST_LINE = 40


class CustomerDialog(QDialog):
    """The dialog; its address stands on the second tab."""

    def __init__(self, state: State) -> None:
        super().__init__()
        self.setWindowTitle(f"Customer {state.number}: Byrne & Daughters")
        self._state = state
        self.inputs = {name: QLineEdit(state.values.get(name, "")) for name in NAMES[:5]}
        for name in ("line1", "line2"):
            self.inputs[name].setMaxLength(_LONGEST_LINE)
        self.inputs["town"].textEdited.connect(self._capitals)
        self.inputs["postcode"].editingFinished.connect(self._postcode)
        notes = QPlainTextEdit(state.values.get("notes", ""))
        notes.setTabChangesFocus(True)
        self._notes = notes
        tabs = QTabWidget()
        tabs.addTab(self._page((("Name", QLineEdit("Byrne & Daughters")),)), "Customer")
        labels = ("Address line 1", "Address line 2", "Town", "Postcode", "Country")
        fields: list[tuple[str, QWidget]] = [
            (label, self.inputs[name]) for label, name in zip(labels, NAMES[:5], strict=True)
        ]
        tabs.addTab(self._page((*fields, ("Notes", notes))), "Address")
        tabs.setCurrentIndex(1)
        layout = QVBoxLayout(self)
        layout.addWidget(tabs)
        self.inputs["line1"].setFocus()
        self._timer = QTimer(self)
        self._timer.timeout.connect(self._keep)
        self._timer.start(15)

    def _page(self, fields: tuple[tuple[str, QWidget], ...]) -> QWidget:
        page = QWidget()
        form = QFormLayout(page)
        for label, widget in fields:
            form.addRow(label, widget)
        return page

    def _capitals(self, text: str) -> None:
        if text != text.upper():
            field, at = self.inputs["town"], self.inputs["town"].cursorPosition()
            field.setText(text.upper())
            field.setCursorPosition(at)

    def _postcode(self) -> None:
        field = self.inputs["postcode"]
        plain = field.text().replace(" ", "").upper()
        field.setText(f"{plain[:-3]} {plain[-3:]}" if len(plain) > 4 else plain)

    def _keep(self) -> None:
        values = {name: one.text() for name, one in self.inputs.items()}
        self._state.keep(values | {"notes": self._notes.toPlainText()})


def main() -> None:
    """Shows the dialog."""
    state = read_state(__doc__ or "", NAMES)
    sys.argv = sys.argv[:1]
    application = QApplication(sys.argv)
    dialog = CustomerDialog(state)
    dialog.show()
    application.exec()


if __name__ == "__main__":
    main()
