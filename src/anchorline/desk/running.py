"""`anchorline desk run`: the agent until it is stopped."""

from __future__ import annotations

import signal
import sys
import time
from collections.abc import Callable

from PySide6.QtCore import QObject, QTimer, Signal
from PySide6.QtWidgets import QApplication

from anchorline.client import Client
from anchorline.core.targets.programs.keys import Chord

from .agent import Agent
from .agent_names import machine_name
from .best_ways import BestWays
from .known_targets import KnownTargets
from .looking import Eyes
from .new_target import NewTarget
from .scribe import Scribe
from .service import DeskService
from .x11.hotkey import Hotkey
from .x11.screen import open_display


class Told(QObject):
    """What the writing process tells, in the thread of the windows, to whom it belongs."""

    ended = Signal(object)
    stepped = Signal(str)
    found = Signal(object)
    lit = Signal(int, str)
    lost = Signal()

    def tell(self, agent: Agent, new_target: NewTarget) -> None:
        """Passes everything on from now on."""
        self.ended.connect(
            lambda report: (new_target if new_target.is_writing else agent).ended.emit(report)
        )
        self.stepped.connect(agent.stepped)
        self.found.connect(lambda found: None if new_target.is_writing else agent.found.emit(found))
        self.lit.connect(new_target.lit)
        self.lost.connect(agent.lost)
        agent.wants_target.connect(new_target.begin)


def run_agent(
    client: Client,
    url: str,
    hotkey: Chord,
    may_change: bool,
    say: Callable[[str], None],
    timed: bool = False,
) -> None:
    """Runs the agent until Ctrl-C or SIGTERM.

    Raises:
        NoDisplayError: there is no display that can be used.
        HotkeyTakenError: another program has the key.
    """
    eyes = Eyes()
    application = QApplication(sys.argv[:1])
    application.setApplicationName("anchorline-desk")
    application.setQuitOnLastWindowClosed(False)
    known = KnownTargets(client, url)
    ways = BestWays(known.kept_in.with_name(known.kept_in.name.replace("targets", "ways")))
    service = DeskService(client, machine_name())
    told = Told()
    scribe = Scribe(
        told.ended.emit, told.stepped.emit, told.found.emit, told.lit.emit, told.lost.emit
    )  # fmt: skip
    heard: Hotkey | None = None
    try:
        agent = Agent(
            eyes, known, ways, service, scribe, hotkey, may_change,
            (lambda ms: say(f"The finder took keys after {ms:.0f} ms.")) if timed else None,
        )  # fmt: skip
        new_target = NewTarget(eyes, service, scribe, known)
        told.tell(agent, new_target)
        heard = Hotkey(
            open_display(), hotkey, lambda focus: agent.pressed.emit(focus, time.monotonic())
        )
        problem = known.refresh_quietly()
        if problem:
            say(f"The service cannot be asked: {problem}")
        count = len(known.targets)
        known_now = "one target is" if count == 1 else f"{count} targets are"
        say(f"Ready: press {hotkey} in any program; {known_now} known. Ctrl-C ends it.")
        if eyes.without_tree:
            say(eyes.without_tree)
        for number in (signal.SIGINT, signal.SIGTERM):
            signal.signal(number, lambda *_: application.quit())
        # Python's handlers run only when Python does.
        waking = QTimer()
        waking.timeout.connect(lambda: None)
        waking.start(200)
        application.exec()
    finally:
        if heard is not None:
            heard.close()
        scribe.close()
        service.close()
        eyes.close()
