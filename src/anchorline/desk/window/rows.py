"""A list of short texts, of which one is chosen."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QListWidget, QListWidgetItem

_HEIGHT = 34


class Rows(QListWidget):
    """Rows of text, no wider than the window.

    Args:
        name: what screen readers call it.
        most: how many rows are shown at once; more are scrolled to.
    """

    def __init__(self, name: str, most: int = 9) -> None:
        super().__init__()
        self._most = most
        self.setAccessibleName(name)
        self.setTextElideMode(Qt.TextElideMode.ElideRight)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)

    def show_texts(self, texts: Sequence[str], at: int, message: str = "") -> None:
        """Shows texts, of which one is chosen (-1: none), and a message that cannot be."""
        self.clear()
        for text in texts:
            item = QListWidgetItem(text)
            item.setToolTip(text)
            self.addItem(item)
        if message:
            item = QListWidgetItem(message)
            item.setFlags(Qt.ItemFlag.NoItemFlags)
            self.addItem(item)
        self.setVisible(self.count() > 0)
        self.setFixedHeight(min(self.count(), self._most) * _HEIGHT + 4)
        self.setCurrentRow(at)
