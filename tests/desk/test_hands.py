"""What stands in a field is known before it is written over, however slow anybody is."""

import queue
import signal
import threading
import time

import pytest

from anchorline.core.targets.programs.fields import EMPTIES
from anchorline.core.targets.programs.keys import Chord, read_chords
from anchorline.desk.field_walk import FieldWalk
from anchorline.desk.writing import Place
from anchorline.desk.x11.hands import X11Hands
from anchorline.desk.x11.screen import open_display

from .desktop import PATIENCE

VALUES = {"line1": "first", "line2": "", "town": "third"}
NEXT, PASTE = Chord((), "Tab"), Chord(("Ctrl",), "v")


@pytest.fixture
def form(desktop):
    opened = desktop.stand_in("contacts", VALUES)
    yield opened
    opened.close()


@pytest.fixture
def hands(desktop, eyes, form):
    connection = open_display()
    made = X11Hands(
        connection, form.window, desktop.screen.focus(), eyes.selections, eyes.tree, PASTE
    )
    made.begin([], bring_back=True)
    yield made
    made.end()
    connection.close()


def test_it_is_known_while_the_thread_that_holds_selections_is_busy(hands, form, eyes):
    is_over = threading.Event()

    def keep_busy():
        while not is_over.wait(0.005):
            eyes.selections._do(lambda: time.sleep(0.15))

    busy = threading.Thread(target=keep_busy)
    busy.start()
    found = []
    try:
        for _ in VALUES:
            found.append(hands.clear(read_chords(EMPTIES["line"])))
            hands.press(NEXT)
    finally:
        is_over.set()
        busy.join()
    assert found == list(VALUES.values())
    form.wait_for(dict.fromkeys(VALUES, ""))


def test_a_walk_puts_back_what_a_slow_program_holds(desktop, form, eyes):
    is_over, lit = threading.Event(), queue.Queue()
    place = Place(form.window, desktop.screen.focus())
    walk = FieldWalk(eyes.selections, eyes.tree, place, "", lambda *told: lit.put(told))

    def stutter():
        while not is_over.wait(0.02):
            form.process.send_signal(signal.SIGSTOP)
            time.sleep(0.2)
            form.process.send_signal(signal.SIGCONT)

    slow = threading.Thread(target=stutter)
    slow.start()
    try:
        for number in range(1, len(VALUES) + 1):
            walk.light(number)
            assert lit.get(timeout=PATIENCE) == (number, "")
        walk.leave()
        assert lit.get(timeout=PATIENCE) == (0, "")
    finally:
        is_over.set()
        slow.join()
    form.wait_for(VALUES, PATIENCE)
