"""What the agent's windows share: a small window above all others, placed over a program's."""

from __future__ import annotations

from typing import Protocol

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QGuiApplication
from PySide6.QtWidgets import QLabel, QVBoxLayout, QWidget

from .style import STYLE, WIDTH

_ASK_AGAIN_MS, _MOST_ASKED = 25, 60
Geometry = tuple[int, int, int, int]
_FLAGS = Qt.WindowType.FramelessWindowHint | Qt.WindowType.WindowStaysOnTopHint


class Windows(Protocol):
    """The windows of the display."""

    def front(self) -> int:
        """The one with the focus."""

    def activate(self, window: int) -> None:
        """Brings one to the front."""


class Panel(QWidget):
    """A window without a frame; `takes_focus` False for one that only shows something."""

    def __init__(self, title: str, takes_focus: bool = True) -> None:
        flags = _FLAGS | Qt.WindowType.Dialog
        if not takes_focus:
            flags |= Qt.WindowType.WindowDoesNotAcceptFocus
        super().__init__(None, flags)
        self.setObjectName("desk")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        if not takes_focus:
            self.setAttribute(Qt.WidgetAttribute.WA_ShowWithoutActivating)
        self.setWindowTitle(title)
        self.setStyleSheet(STYLE)
        self.setFixedWidth(WIDTH)
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(14, 12, 14, 12)
        self.rows.setSpacing(8)

    def show_beside(self, geometry: Geometry) -> None:
        """Shows the window above another one, or below it, so that its fields are seen."""
        self._fit()
        left, top, width, height = geometry
        gap = 34
        above, below = top - gap - self.height(), top + height + gap
        self.show_over((left, (above if above > 0 else below) - 40, width, 0))

    def _fit(self) -> None:
        """As high as its rows are with their lines wrapped, so that it stands where it is put."""
        self.rows.activate()
        self.adjustSize()
        high = self.rows.totalHeightForWidth(WIDTH) if self.rows.hasHeightForWidth() else 0
        self.resize(WIDTH, max(self.height(), high))

    def take_focus(self, windows: Windows) -> None:
        """Asks for the keyboard until it has it: a window manager hears only of what it shows."""
        self._asked = 0

        def ask() -> None:
            if not self.isVisible() or self.has_focus(windows) or self._asked > _MOST_ASKED:
                return
            self._asked += 1
            self.activateWindow()
            windows.activate(int(self.winId()))
            QTimer.singleShot(_ASK_AGAIN_MS, ask)

        ask()

    def has_focus(self, windows: Windows) -> bool:
        """Whether keys come here: Qt can be behind what the display knows."""
        return self.isActiveWindow() and windows.front() == int(self.winId())

    def show_over(self, geometry: Geometry) -> None:
        """Shows the window near the top of another one, inside the screen."""
        self._fit()
        left, top, width, _height = geometry
        screen = QGuiApplication.primaryScreen().availableGeometry()
        x = left + (width - WIDTH) // 2 if width else (screen.width() - WIDTH) // 2
        x = max(screen.left() + 8, min(x, screen.right() - WIDTH - 8))
        y = max(screen.top() + 8, min(top + 40, screen.bottom() - self.height() - 8))
        self.move(x, y)
        self.show()
        self.raise_()


def label(text: str, name: str = "") -> QLabel:
    """A text that wraps; `name` is its style."""
    made = QLabel(text)
    made.setObjectName(name)
    made.setWordWrap(True)
    made.setTextFormat(Qt.TextFormat.PlainText)
    return made
