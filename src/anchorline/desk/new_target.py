"""Making a target from the program in front, by keys alone: window, walk and service."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace

from PySide6.QtCore import QObject, Signal, Slot

from anchorline.client import AnchorlineError, ProgramTargetDocument
from anchorline.core.targets.programs import Look, RunReport, SeenField
from anchorline.core.targets.programs.signature import Condition
from anchorline.wire.program_proposals import ProgramProposalAnswer, ReadyMadeTargetSchema

from .known_targets import KnownTargets, known_target
from .looking import Eyes
from .scribe import Scribe, Walk
from .service import DeskService
from .setting_up import SettingUp, SetUp, sorted_looks, suggested_title, usual_countries
from .window.setup import SetupWindow
from .writing import Order, Place
from .x11.facts import SeenScreen

_USUAL_FIELDS = 5
_PATIENCE_SECONDS = 4.0
_TERMINAL_CLEAR = "Ctrl+U"


class NewTarget(QObject):
    """Goes through the pages of the window; what asks the service runs beside it."""

    _planned = Signal(object)
    lit = Signal(int, str)
    _proposed = Signal(object, list)
    _values = Signal(object)
    ended = Signal(object)
    _failed = Signal(str)
    _published = Signal(int)

    def __init__(
        self, eyes: Eyes, service: DeskService, scribe: Scribe, known: KnownTargets
    ) -> None:
        super().__init__()
        self._eyes, self._known = eyes, known
        self._service, self._scribe = service, scribe
        self._window = SetupWindow()
        self._setup: SetUp | None = None
        self._asking = SettingUp(service.client)
        self._is_walking = False
        self._count = 0
        self._document: ProgramTargetDocument | None = None
        self._order: Order | None = None
        window = self._window
        window.named.connect(self._name)
        window.field_said.connect(self._say_field)
        window.tried.connect(self._try)
        window.again.connect(self._try)
        window.taken_back.connect(self._take_back)
        window.published.connect(self._publish)
        window.closed.connect(self.end)
        self._planned.connect(self._ask_name)
        self.lit.connect(self._ask_field)
        self._proposed.connect(self._show_proposal)
        self._values.connect(self._write)
        self.ended.connect(self._show_end)
        self._failed.connect(self._show_problem)
        self._published.connect(self._say_published)

    @Slot(object, object)
    def begin(self, seen: SeenScreen, earlier: Sequence[Look]) -> None:
        """Begins with a screen, and looks that were taken before."""
        self._setup = SetUp(seen, sorted_looks(seen.look, earlier))
        self._asking = SettingUp(self._service.client)
        self._document = self._order = None
        self._is_walking = False

        def work() -> None:
            if not seen.fields:
                self._require().seen = self._looked_again(seen)
            self._planned.emit(self._service.client.programs.ready_made())

        self._beside(work)

    def _looked_again(self, seen: SeenScreen) -> SeenScreen:
        """The screen with fields that its program was too slow to tell of before."""
        self._eyes.activate(seen.window, seen.focus)
        again = self._eyes.look(seen.focus, patience=_PATIENCE_SECONDS)
        return replace(seen, fields=again.fields, focused=again.focused)

    def end(self) -> None:
        """Hides the window; what stood in the fields is put back."""
        self._window.hide()
        self._order = None
        if self._is_walking:
            self._stop_walking()
        elif self._setup is not None:
            self._eyes.activate(self._setup.seen.window, self._setup.seen.focus)

    # Its pages.

    def _ask_name(self, plans: list[ReadyMadeTargetSchema]) -> None:
        setup = self._require()
        count = len(setup.named_fields()) or _USUAL_FIELDS
        listed = [(one.name, one.title) for one in plans]
        title = suggested_title(setup.seen.look)
        self._window.ask_name(title, listed, count, usual_countries(self._known.targets))
        self._show()

    def _name(self, title: str, like: str, count: int, countries: list[str]) -> None:
        setup = self._require()
        setup.title, setup.like, self._count = title, like or None, count
        setup.countries = countries
        setup.fields = []
        named = setup.named_fields()[:count]
        if like:
            self._propose()
        elif named:
            setup.fields = named
            self._propose()
        else:
            self._is_walking = True
            self._light(1)

    def _light(self, number: int) -> None:
        self._window.hide()
        clear = _TERMINAL_CLEAR if self._require().is_terminal else ""
        self._scribe.walk(Walk(self._place(), clear, number))

    def _stop_walking(self) -> None:
        self._light(0)
        self._is_walking = False

    def _ask_field(self, number: int, problem: str) -> None:
        setup = self._require()
        if number == 0:
            # The fields are as they were.
            if self._setup is not None and len(self._setup.fields) == self._count:
                self._propose()
            return
        if problem:
            self._show_problem(problem)
            return
        self._window.ask_field(number, self._count, setup.is_terminal)
        self._show()

    def _say_field(self, name: str, holds: str, width: int) -> None:
        setup = self._require()
        seen = SeenField(
            label=name,
            is_named=False,
            max_length=width or None,
            several_lines=holds == "lines",
            is_whole=holds in ("lines", "commas"),
        )
        setup.fields.append(seen)
        if len(setup.fields) < self._count:
            self._light(len(setup.fields) + 1)
            return
        self._stop_walking()

    def _propose(self) -> None:
        setup = self._require()

        def work() -> None:
            proposal = self._asking.propose(setup)
            problems = self._asking.keep(proposal.document)
            self._proposed.emit(proposal, list(problems))

        self._beside(work)

    def _show_proposal(self, proposal: ProgramProposalAnswer, problems: list[str]) -> None:
        self._document = proposal.document
        self._window.show_proposal(_in_words(proposal), problems)
        self._show()

    def _try(self) -> None:
        document = self._document
        if document is None:
            return
        self._window.hide()
        self._beside(lambda: self._values.emit(self._asking.practice_values(document)))

    def _write(self, values: Mapping[str, str]) -> None:
        if self._document is None:
            return
        target = known_target(self._document, 0)
        address = target.addresses[0]
        by = address.plan.by
        # It can be tried again, and used at once: the cursor is to stand where it stood.
        self._order = Order(
            target, address, values, self._place(), by, is_practice=True, returns=True
        )
        self._scribe.write(self._order)

    def _show_end(self, report: RunReport) -> None:
        if self._order is None:
            return
        self._service.report(self._order, report)
        if report.stop == "undone":
            self._window.say_problem(report.detail)
        else:
            self._window.show_end(report)
        self._show()

    def _take_back(self) -> None:
        self._window.hide()
        self._scribe.undo()

    def _publish(self) -> None:
        document = self._document
        if document is None:
            return

        def work() -> None:
            version = self._asking.publish(document.key)
            self._known.refresh_quietly()
            self._published.emit(version)

        self._beside(work)

    def _say_published(self, _version: int) -> None:
        self.end()

    def _show_problem(self, text: str) -> None:
        self._window.say_problem(text)
        self._show()

    # What they share.

    @property
    def is_writing(self) -> bool:
        """Whether a run that ends is of this window."""
        return self._order is not None

    def _require(self) -> SetUp:
        assert self._setup is not None, "begin comes first"
        return self._setup

    def _place(self) -> Place:
        seen = self._require().seen
        return Place(seen.window, seen.focus)

    def _show(self) -> None:
        geometry = self._eyes.geometry(self._require().seen.window)
        self._window.show_beside(geometry)
        self._window.take_focus(self._eyes)

    def _beside(self, work: Callable[[], None]) -> None:
        def guarded() -> None:
            try:
                work()
            except AnchorlineError as error:
                self._failed.emit(str(error))

        self._service.run(guarded)


def _in_words(proposal: ProgramProposalAnswer) -> list[str]:
    lines = []
    for one in proposal.conditions:
        condition = Condition(one.condition.kind, one.condition.test, one.condition.text)
        lines.append(f"{_first_upper(condition.says())}. {one.because}")
    labels = {one.key: one.label or one.key for one in proposal.document.fields}
    # Lines of one box have one reason.
    together: dict[str, list[str]] = {}
    for key, because in proposal.because.items():
        together.setdefault(because, []).append(labels.get(key, key))
    lines += [f"{', '.join(names)}: {because}" for because, names in together.items()]
    if proposal.left:
        lines.append(f"Left alone: {', '.join(one or 'a field' for one in proposal.left)}.")
    return lines


def _first_upper(text: str) -> str:
    return text[:1].upper() + text[1:]
