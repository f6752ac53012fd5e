"""Runs that are disturbed: no character may reach another window, every report must be true.

python -m bench.guarding --runs 200

Writes into the stand-in contact window under an Xvfb of its own, while a thief takes the focus, a
message comes up, Escape is pressed, the program is frozen, the layout changes or Caps Lock goes on,
at a moment made by chance.
"""

from __future__ import annotations

import argparse
import collections
import os
import random
import signal
import threading
import time
from collections.abc import Mapping

from tests.desk.contacts import contacts_document
from tests.desk.desktop import Desktop, until
from tests.desk.writes import Write
from Xlib import XK, X, display
from Xlib.ext import xtest

from anchorline.client import ProgramTargetDocument
from anchorline.core.targets.programs import RunReport
from anchorline.desk.known_targets import known_target
from anchorline.desk.looking import Eyes
from anchorline.desk.writing import Place

VALUES = {
    "line1": "Résidence Les Noyers 14 bis", "line2": "Łódź Höfe", "town": "Brackwater",
    "postcode": "QV1 1QF", "country": "United Kingdom",
}  # fmt: skip
KINDS = ("thief", "box", "escape", "frozen", "layout", "caps", "none")
# What is on its way to a program is there after the one, on a busy machine after the other.
_SETTLES_SECONDS, _READS_SECONDS = 0.06, 3.0


class Thief:
    """A window of another program that takes the focus, and counts the keys that reach it."""

    def __init__(self, number: str) -> None:
        self._display = display.Display(number)
        screen = self._display.screen()
        self.window = screen.root.create_window(
            10, 10, 80, 60, 0, screen.root_depth, event_mask=X.KeyPressMask
        )
        self.window.set_wm_name("Thief")
        self.window.set_wm_class("thief", "Thief")
        self.keys = 0
        self._caps = self._display.keysym_to_keycode(XK.XK_Caps_Lock)

    def take(self) -> None:
        self.window.map()
        self._display.sync()
        until(self._is_shown, "the thief")
        self.window.set_input_focus(X.RevertToParent, X.CurrentTime)
        self._display.sync()

    def leave(self) -> None:
        while self._display.pending_events():
            one = self._display.next_event()
            # Caps Lock is put back as it was after a run: it is no character.
            if one.type == X.KeyPress and one.detail != self._caps:
                self.keys += 1
        self.window.unmap()
        self._display.sync()
        self._display.close()

    def own(self, of: int) -> None:
        """Becomes a message of the program's."""
        self.window.set_wm_transient_for(self._display.create_resource_object("window", of))
        self._display.sync()

    def _is_shown(self) -> bool:
        return bool(self.window.get_attributes().map_state == X.IsViewable)


class Disturbing:
    """A desktop, a program and what comes between."""

    def __init__(self, seed: int) -> None:
        self.chance = random.Random(seed)
        self.desktop = Desktop()
        os.environ["DISPLAY"] = self.desktop.environment["DISPLAY"]
        os.environ["DBUS_SESSION_BUS_ADDRESS"] = self.desktop.environment[
            "DBUS_SESSION_BUS_ADDRESS"
        ]
        self.eyes = Eyes()
        self.program = self.desktop.stand_in("contacts")
        self.place = Place(self.program.window, self.desktop.screen.focus())
        self.target = known_target(_document(), 1)
        self._display = display.Display(self.desktop.environment["DISPLAY"])

    def close(self) -> None:
        self._display.close()
        self.eyes.close()
        self.program.close()
        self.desktop.close()

    def once(self, kind: str) -> tuple[str, int, list[str]]:
        """One disturbed run: how it was stopped, keys in a wrong window, what was untrue."""
        self._back_to_the_beginning()
        thief = Thief(self.desktop.environment["DISPLAY"])
        write = Write(self.eyes, self.target, self.place, VALUES)
        after = self.chance.uniform(0.0, 0.28)
        ended = threading.Event()
        disturbing = threading.Thread(target=self._disturb, args=(kind, after, thief, ended))
        disturbing.start()
        write.begin()
        report = write.wait()
        stop = report.stop
        ended.set()
        disturbing.join()
        time.sleep(0.05)
        thief.leave()
        untrue = [f"{kind}: {one}" for one in self._untrue(report)]
        if report.stop:
            self.eyes.activate(self.place.window, self.place.focus)
            until(lambda: self.eyes.look(deep=False).window == self.place.window, "the front")
            report = write.go_on()
            while report.stop == "frozen":
                # The machine itself stood still: a person waits, and goes on.
                report = write.go_on()
            if report.stop:
                untrue.append(f"did not go on after {kind}: {report.says()}")
            else:
                untrue += self._untrue(report)
        return stop, thief.keys, untrue

    def _untrue(self, report: RunReport) -> list[str]:
        """What the report says and the program's own file does not, once the program has read all.

        The run has stopped: what is true of it stays true, and a busy program comes to it late.
        """
        time.sleep(_SETTLES_SECONDS)
        last = time.monotonic() + _READS_SECONDS
        while (wrong := _differing(report, self.program.fields)) and time.monotonic() < last:
            time.sleep(0.02)
        return wrong

    def _disturb(self, kind: str, after: float, thief: Thief, ended: threading.Event) -> None:
        ended.wait(after)
        if kind == "thief":
            thief.take()
        elif kind == "box":
            thief.own(self.place.window)
            thief.take()
        elif kind == "escape":
            self.desktop.person.press("Escape")
        elif kind == "frozen":
            os.kill(self.program.process.pid, signal.SIGSTOP)
            ended.wait(4.0)
            os.kill(self.program.process.pid, signal.SIGCONT)
        elif kind == "layout":
            self._display.change_keyboard_mapping(
                self._display.keysym_to_keycode(XK.XK_Pause), [(XK.XK_Pause,)]
            )
            self._display.sync()
        elif kind == "caps":
            code = self._display.keysym_to_keycode(XK.XK_Caps_Lock)
            for press in (X.KeyPress, X.KeyRelease):
                xtest.fake_input(self._display, press, code)
            self._display.sync()

    def _back_to_the_beginning(self) -> None:
        """A new program each time: nothing of the run before is left."""
        self.program.close()
        self.program = self.desktop.stand_in("contacts")
        self.place = Place(self.program.window, self.desktop.screen.focus())


def _differing(report: RunReport, shown: Mapping[str, str]) -> list[str]:
    wrong = []
    for one in report.fields:
        there = shown.get(one.field, "")
        if one.state in ("verified", "written") and there != one.text:
            wrong.append(f"{one.field}: said {one.state}, but {there!r} stands there")
        if one.state == "partly" and there != one.text[: one.written]:
            wrong.append(f"{one.field}: said {one.written} characters, but {there!r}")
        if one.state == "missing" and there == one.text:
            wrong.append(f"{one.field}: said missing, but it stands there")
    return wrong


def _document() -> ProgramTargetDocument:
    return ProgramTargetDocument.model_validate(contacts_document())


def measure(runs: int, seed: int) -> tuple[int, list[str], collections.Counter[str]]:
    """Disturbed runs: keys in a wrong window, what was untrue, how the runs were stopped."""
    disturbing = Disturbing(seed)
    keys, untrue, stops = 0, [], collections.Counter[str]()
    try:
        for number in range(runs):
            kind = KINDS[number % len(KINDS)]
            stop, wrong, said = disturbing.once(kind)
            keys += wrong
            untrue += said
            stops[f"{kind}: {stop or 'to its end'}"] += 1
    finally:
        disturbing.close()
    return keys, untrue, stops


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--runs", type=int, default=200)
    parser.add_argument("--seed", type=int, default=2026)
    given = parser.parse_args()
    keys, untrue, stops = measure(given.runs, given.seed)
    print(f"{given.runs} disturbed runs: {keys} characters in a wrong window")
    print(f"{len(untrue)} reports that were not true")
    for line in untrue[:20]:
        print("  ", line)
    for kind, count in sorted(stops.items()):
        print(f"  {count:4} {kind}")


if __name__ == "__main__":
    main()
