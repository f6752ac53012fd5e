"""`anchorline desk run`: the agent until it is stopped."""

from __future__ import annotations

import signal
import sys
import time
from collections.abc import Callable

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication

from anchorline.client import Client
from anchorline.core.targets.programs.keys import Chord

from .agent import Agent
from .agent_names import machine_name
from .known_targets import KnownTargets
from .looking import Eyes
from .service import DeskService
from .x11.hotkey import Hotkey
from .x11.screen import open_display


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
    service = DeskService(client, machine_name())
    heard: Hotkey | None = None
    try:
        agent = Agent(
            eyes, known, service, hotkey, may_change,
            (lambda ms: say(f"The finder took keys after {ms:.0f} ms.")) if timed else None,
        )  # fmt: skip
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
        service.close()
        eyes.close()
