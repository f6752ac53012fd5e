"""A desktop of its own: Xvfb, a window manager, a session bus, and a person at the keyboard."""

from __future__ import annotations

import json
import os
import random
import shutil
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from Xlib import XK, X, display
from Xlib.ext import xtest

from anchorline.desk.x11.keyboard import Keyboard
from anchorline.desk.x11.screen import Screen

PATIENCE = 30
# How long a person holds a key.
HELD_SECONDS = (0.06, 0.14)


def until(true, what, seconds=PATIENCE, more=lambda: ""):
    """Waits until something is true; fails, and says what was waited for."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        found = true()
        if found:
            return found
        time.sleep(0.01)
    raise AssertionError(f"It did not come: {what}. {more()}")


class Desktop:
    """An X session; `environment` is what its programs run in."""

    def __init__(self, window_manager="openbox"):
        self.folder = Path(tempfile.mkdtemp(prefix="anchorline-desk-"))
        self.started: list[subprocess.Popen] = []
        read, write = os.pipe()
        self._spawn(
            ["Xvfb", "-displayfd", str(write), "-screen", "0", "1280x800x24", "-nolisten", "tcp"],
            pass_fds=[write],
        )
        os.close(write)
        with os.fdopen(read) as numbers:
            number = numbers.readline().strip()
        assert number, "Xvfb did not start"
        for name in ("home", "run"):
            (self.folder / name).mkdir(mode=0o700)
        self.environment = {
            **{k: v for k, v in os.environ.items() if not k.startswith(("ANCHORLINE_", "WAYLAND"))},
            "PATH": f"{Path(sys.executable).parent}:{os.environ['PATH']}",
            "DISPLAY": f":{number}",
            "HOME": str(self.folder / "home"),
            "XDG_RUNTIME_DIR": str(self.folder / "run"),
            "XDG_SESSION_TYPE": "x11",
        }
        for name in ("XDG_CACHE_HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME"):
            self.environment.pop(name, None)
        address = self.folder / "run" / "bus"
        # The accessibility bus that it starts has its place in this session's folder.
        session = ["dbus-daemon", "--session", f"--address=unix:path={address}", "--nofork"]
        self._spawn(session, env=self.environment)
        until(address.exists, "the session bus")
        self.environment["DBUS_SESSION_BUS_ADDRESS"] = f"unix:path={address}"
        if window_manager:
            self._spawn([window_manager], env=self.environment)
        self.display = display.Display(f":{number}")
        self.screen = Screen(self.display)
        self.person = Person(self.display)
        if window_manager:
            until(self.screen._is_managed, window_manager)

    def _spawn(self, command, **more):
        process = subprocess.Popen(
            command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, start_new_session=True,
            **more,
        )  # fmt: skip
        self.started.append(process)
        return process

    def run(self, *command, **more):
        """A command in the session, to its end."""
        return subprocess.run(
            command, env=self.environment | more.pop("env", {}), capture_output=True, text=True,
            timeout=60, check=False, **more,
        )  # fmt: skip

    def start(self, *command, **more):
        """A program in the session, in the background."""
        process = subprocess.Popen(
            command, env=self.environment | more.pop("env", {}), start_new_session=True,
            stderr=more.pop("stderr", subprocess.DEVNULL), **more,
        )  # fmt: skip
        self.started.append(process)
        return process

    def front_title(self):
        self.screen.forget()
        return self.screen.title(self.screen.front())

    def wait_for_front(self, part, more=lambda: ""):
        return until(
            lambda: self.screen.front() if part in self.front_title() else 0,
            f"a window “{part}” in front, but “{self.front_title()}”",
            more=more,
        )

    def stand_in(self, name, values=None, number=1042):
        """A stand-in program, in front and with the focus in its first field."""
        return StandIn(self, name, values or {}, number)

    def close(self):
        self.display.close()
        for process in reversed(self.started):
            end(process)
        shutil.rmtree(self.folder, ignore_errors=True)


def end(process):
    """Ends a process that was started here, and all that it has started."""
    if process.poll() is None:
        for number in (signal.SIGTERM, signal.SIGKILL):
            try:
                os.killpg(process.pid, number)
            except ProcessLookupError:
                break
            try:
                process.wait(3)
                break
            except subprocess.TimeoutExpired:
                continue
    process.wait(5)


TITLES = {
    "contacts": "Contact", "firms": "Firm", "letters": "Letter", "labels": "Label",
    "parcels": "Parcel", "orders": "orders", "customers": "Customer", "weborders": "Web order",
}  # fmt: skip


class StandIn:
    """A stand-in that runs; `fields` is what stands in its file."""

    def __init__(self, desktop, name, values, number):
        self.desktop, self.name = desktop, name
        self._file = desktop.folder / f"{name}-{time.monotonic_ns()}.json"
        command = [
            sys.executable, "-m", f"anchorline.standins.programs.{name}", "--file", str(self._file),
            "--values", json.dumps(values), "--number", str(number),
        ]  # fmt: skip
        if name == "orders":
            command = ["xterm", "-T", f"orders {number}", "-geometry", "90x24", "-e", *command]
        self.process = desktop.start(*command)
        self.window = desktop.wait_for_front(f"{TITLES[name]} {number}")
        until(self._file.exists, "the stand-in's file")
        until(lambda: desktop.screen.focus() and desktop.screen.front() == self.window, "focus")

    @property
    def fields(self):
        return json.loads(self._file.read_text("utf-8"))

    def wait_for(self, expected, seconds=5):
        """Waits until the fields are so, as far as they are named."""

        def shown():
            found = self.fields
            return {key: found.get(key) for key in expected}

        end_at = time.monotonic() + seconds
        while time.monotonic() < end_at:
            if shown() == expected:
                return
            time.sleep(0.02)
        assert shown() == expected

    def close(self):
        end(self.process)


class Person:
    """Somebody at the keyboard: keys go to what has the focus, held as people hold them."""

    def __init__(self, connection):
        self._display = connection
        self._hold = random.Random(7)

    def press(self, *chords):
        """Presses keys, such as `Ctrl+Alt+A`."""
        from anchorline.core.targets.programs.keys import read_chord

        keyboard = Keyboard(self._display)
        for text in chords:
            self._send(keyboard.chord(read_chord(text)))

    def type(self, text):
        """Types a text."""
        keyboard = Keyboard(self._display)
        keyboard.prepare([text])
        for sign in text:
            self._send(keyboard.stroke(sign))

    def hold(self, name, down=True):
        code = self._display.keysym_to_keycode(XK.string_to_keysym(name))
        xtest.fake_input(self._display, X.KeyPress if down else X.KeyRelease, code)
        self._display.sync()

    def _send(self, stroke):
        for code in (*stroke.held, stroke.code):
            xtest.fake_input(self._display, X.KeyPress, code)
        self._display.sync()
        time.sleep(self._hold.uniform(*HELD_SECONDS))
        for code in (stroke.code, *reversed(stroke.held)):
            xtest.fake_input(self._display, X.KeyRelease, code)
        self._display.sync()
        time.sleep(0.002)
