"""What dies is started again; what dies again and again after longer and longer pauses."""

import threading
import time

import pytest

from anchorline.service.running.keeping import Keeper
from anchorline.service.space import room_left, why_not_start
from tests.waiting import wait_until


class Part:
    """Counts its starts; dies when told to, or at once."""

    def __init__(self, *, frail=False):
        self.starts, self.stopped, self.frail = [], False, frail
        self.living = threading.Event()

    def start(self):
        self.starts.append(time.monotonic())
        if not self.frail or len(self.starts) == 1:
            self.living.set()

    def alive(self):
        return self.living.is_set()

    def stop(self):
        self.stopped = True
        self.living.clear()


def test_a_part_that_dies_is_started_again_and_stopped_at_the_end():
    part = Part()
    keeper = Keeper("a part", part)
    keeper.begin()
    for count in (2, 3):
        part.living.clear()
        wait_until(lambda count=count: len(part.starts) == count)
    keeper.end()
    assert part.stopped
    assert len(part.starts) == 3


def test_a_part_that_stays_dead_is_tried_after_longer_and_longer_pauses():
    part = Part(frail=True)
    keeper = Keeper("a part", part)
    keeper.begin()
    part.living.clear()
    wait_until(lambda: len(part.starts) == 4, seconds=10)
    keeper.end()
    pauses = [b - a for a, b in zip(part.starts[1:], part.starts[2:], strict=False)]
    assert pauses == sorted(pauses)
    assert pauses[-1] >= 1.0


def test_what_the_first_start_raises_is_raised_and_nothing_is_kept_going():
    class Broken(Part):
        def start(self):
            raise RuntimeError("no port")

    keeper = Keeper("a part", Broken())
    with pytest.raises(RuntimeError, match="no port"):
        keeper.begin()


def test_a_later_start_that_raises_is_tried_again():
    class Sometimes(Part):
        def start(self):
            super().start()
            if len(self.starts) == 2:
                self.living.clear()
                raise RuntimeError("not yet")

    part = Sometimes()
    keeper = Keeper("a part", part)
    keeper.begin()
    part.living.clear()
    wait_until(lambda: len(part.starts) == 3 and part.alive())
    keeper.end()


def test_while_there_is_a_reason_against_it_nothing_is_started():
    part, against = Part(), ["the disk is full"]
    keeper = Keeper("a part", part, lambda: against[0])
    keeper.begin()
    part.living.clear()
    time.sleep(1.2)
    assert len(part.starts) == 1
    against[0] = None
    wait_until(lambda: len(part.starts) == 2)
    keeper.end()


def test_ending_does_not_wait_for_a_pause():
    part = Part(frail=True)
    keeper = Keeper("a part", part)
    keeper.begin()
    part.living.clear()
    time.sleep(2.5)
    began = time.monotonic()
    keeper.end()
    assert time.monotonic() - began < 2, "it waited for the pause to end"


def test_room_is_what_is_beyond_the_reserve(tmp_path):
    assert room_left(tmp_path, 0)()
    assert not room_left(tmp_path, 1 << 60)()
    assert why_not_start(tmp_path) is None
    assert "0.0 MB are free" in (why_not_start(tmp_path / "gone") or "")
