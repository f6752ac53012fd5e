"""The window of setting a target up: its name, its fields, what is proposed, what came of it."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import Signal
from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QSpinBox,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from anchorline.core.targets.programs.report import FIELD_STATES, RunReport

from ..setting_up import WHAT_IT_IS
from .panel import Panel, label

_MOST_FIELDS = 30


class SetupWindow(Panel):
    """Four pages, one after the other; Enter goes on, Escape ends it. Signals: what was said."""

    named = Signal(str, str, int, list)
    field_said = Signal(str, str, int)
    tried = Signal()
    published = Signal()
    again = Signal()
    taken_back = Signal()
    closed = Signal()

    def __init__(self) -> None:
        super().__init__("Anchorline: a new target")
        self._pages = QStackedWidget()
        self.rows.addWidget(self._pages)
        self._name_page()
        self._field_page()
        self._proposal_page()
        self._end_page()
        QShortcut(QKeySequence("Esc"), self).activated.connect(self.closed)

    def ask_name(
        self,
        suggested: str,
        plans: Sequence[tuple[str, str]],
        count: int,
        countries: Sequence[str],
    ) -> None:
        """Asks what the screen is called and how its plan is made.

        Args:
            plans: names and titles of ready-made plans.
            count: how many fields there may be.
            countries: codes that stand there to begin with.
        """
        self._title.setText(suggested)
        self._title.selectAll()
        self._like.clear()
        self._like.addItem("From its fields, one after the other", "")
        for name, title in plans:
            self._like.addItem(f"Ready-made: {title}", name)
        self._count.setValue(count)
        self._countries.setText(", ".join(countries))
        self._show(0, self._title)

    def ask_field(self, number: int, of: int, is_terminal: bool) -> None:
        """Asks what the field is that is lit up."""
        self._field_head.setText(f"Field {number} of {of}: what is it?")
        self._field_hint.setText(
            f"It is the one in which ‹{number}› stands now. What stood there is put back."
        )
        # Letters that chose in the field before are no beginning of what is chosen here.
        self._what.view().keyboardSearch("")
        self._what.setCurrentIndex(min(number - 1, len(WHAT_IT_IS) - 1))
        for one in (self._width_label, self._width):
            one.setVisible(is_terminal)
        self._width.setValue(0)
        self._show(1, self._what)

    def show_proposal(self, lines: Sequence[str], problems: Sequence[str]) -> None:
        """Shows what is proposed, and what stands against it."""
        self._proposed.setText("\n".join(f"• {line}" for line in lines))
        self._problems.setText("\n".join(problems))
        self._problems.setVisible(bool(problems))
        self._show(2, self._try)

    def show_end(self, report: RunReport) -> None:
        """Shows what came of trying it."""
        self._end_head.setText(report.says())
        self._end_text.setText(
            "\n".join(
                f"{one.label}: {one.text or '–'}   ({FIELD_STATES[one.state]})"
                for one in report.fields
            )
        )
        self._publish.setEnabled(report.outcome in ("verified", "unverified"))
        self._show(3, self._publish if self._publish.isEnabled() else self._again)

    def say_problem(self, text: str) -> None:
        """Shows what went wrong, above the page."""
        self._problem.setText(text)
        self._problem.setVisible(bool(text))
        self.adjustSize()

    def _show(self, page: int, first: QWidget) -> None:
        self.say_problem("")
        self._pages.setCurrentIndex(page)
        # The window is as high as its page, not as the highest one.
        shown = self._pages.widget(page)
        if shown is not None:
            self._pages.setFixedHeight(shown.sizeHint().height())
        first.setFocus()
        self.adjustSize()

    def _page(self, head: str) -> QVBoxLayout:
        page = QWidget()
        rows = QVBoxLayout(page)
        rows.setContentsMargins(0, 0, 0, 0)
        if head:
            rows.addWidget(label(head, "head"))
        self._pages.addWidget(page)
        return rows

    def _name_page(self) -> None:
        self._problem = label("", "problem")
        self._problem.hide()
        self.rows.insertWidget(0, self._problem)
        rows = self._page("This screen is to be a target")
        self._title, self._like, self._count = QLineEdit(), QComboBox(), QSpinBox()
        self._countries = QLineEdit()
        self._countries.setPlaceholderText("all countries")
        self._title.setMaxLength(60)
        self._count.setRange(1, _MOST_FIELDS)
        for text, widget in (
            ("What it is called", self._title),
            ("How its plan is made", self._like),
            ("Fields, from the one with the cursor on", self._count),
            ("Countries, by two letters each, such as GB, IE", self._countries),
        ):
            rows.addWidget(label(text))
            widget.setAccessibleName(text)
            rows.addWidget(widget)
        rows.addLayout(
            self._buttons(("Go on (Enter)", self._name_said), ("End (Esc)", self.closed))
        )
        for one in (self._title, self._countries):
            one.returnPressed.connect(self._name_said)

    def _name_said(self) -> None:
        title = self._title.text().strip()
        if not title:
            self.say_problem("Say first what it is called.")
            return
        countries = self._countries.text().upper().replace(",", " ").split()
        odd = [one for one in countries if len(one) != 2 or not one.isalpha()]
        if odd:
            self.say_problem(f"{odd[0]} is no country's code: give two letters each, as GB, IE.")
            return
        like = str(self._like.currentData() or "")
        self.named.emit(title, like, self._count.value(), list(dict.fromkeys(countries)))

    def _field_page(self) -> None:
        rows = self._page("")
        self._field_head, self._field_hint = label("", "head"), label("", "hint")
        self._what, self._width = QComboBox(), QSpinBox()
        self._what.setAccessibleName("What the field is")
        for shown, _, _ in WHAT_IT_IS:
            self._what.addItem(shown)
        self._width_label = label("Characters that it takes; 0 where that is not known")
        self._width.setRange(0, 999)
        self._width.setAccessibleName("Characters that it takes")
        for one in (
            self._field_head, self._field_hint, self._what, self._width_label, self._width,
        ):  # fmt: skip
            rows.addWidget(one)
        rows.addLayout(
            self._buttons(("Go on (Enter)", self._say_field), ("End (Esc)", self.closed))
        )
        QShortcut(QKeySequence("Return"), self._what).activated.connect(self._say_field)

    def _say_field(self) -> None:
        _, name, holds = WHAT_IT_IS[self._what.currentIndex()]
        self.field_said.emit(name, holds, self._width.value())

    def _proposal_page(self) -> None:
        rows = self._page("This is proposed")
        self._proposed, self._problems = label(""), label("", "problem")
        rows.addWidget(self._proposed)
        rows.addWidget(self._problems)
        rows.addWidget(label("A practice address is written into the screen now.", "hint"))
        buttons = self._buttons(("Try it (Enter)", self.tried), ("End (Esc)", self.closed))
        self._try = self._last_buttons[0]
        rows.addLayout(buttons)

    def _end_page(self) -> None:
        rows = self._page("")
        self._end_head, self._end_text = label("", "head"), label("")
        rows.addWidget(self._end_head)
        rows.addWidget(self._end_text)
        rows.addLayout(
            self._buttons(
                ("Publish (Enter)", self.published),
                ("Try again", self.again),
                ("Take back", self.taken_back),
                ("Keep as a draft (Esc)", self.closed),
            )
        )
        self._publish, self._again = self._last_buttons[:2]

    def _buttons(self, *given: tuple[str, object]) -> QHBoxLayout:
        row = QHBoxLayout()
        self._last_buttons = []
        for text, does in given:
            button = QPushButton(text)
            button.setAutoDefault(True)
            button.clicked.connect(does)
            row.addWidget(button)
            self._last_buttons.append(button)
        row.addStretch()
        return row
