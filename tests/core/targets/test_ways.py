"""Which way of writing is best: tried one after the other, and taken back between."""

from dataclasses import dataclass, field

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.targets.programs import FieldText, Run, StopRun
from anchorline.core.targets.programs.trying import try_ways
from anchorline.core.targets.programs.ways import TRIED, WayTried, best_way

from .fake_screen import FakeScreen
from .test_runs import FIELDS, STALE, TEXTS, plan_of

WRITTEN = ["4 Kiln Row", "Flat 2", "Brackwater", "QV1 1AA"]
# What a program may do with a way: how it takes it, and how long each text takes.
TAKES = st.sampled_from(["right", "wrong", "refuses"])
WAYS_OF_PROGRAM = st.fixed_dictionaries(
    {way: st.tuples(TAKES, st.integers(0, 900)) for way in TRIED}
)


@dataclass
class PickyScreen(FakeScreen):
    """A program that takes some ways of writing, and each in a time of its own."""

    ways_taken: dict = field(default_factory=dict)
    ms: int = 0

    def write(self, text, way):
        how, ms = self.ways_taken.get(way, ("right", 0))
        self.ms += ms
        if how == "refuses":
            raise StopRun("refused", "The program refuses it.")
        super().write(text if how == "right" else text[:-1], way)


def tried_on(screen):
    texts = [FieldText(key, key.title(), TEXTS[key]) for key in FIELDS]
    return try_ways(
        lambda way: Run(plan_of(by="found"), texts, screen, lambda: screen.ms, None, way)
    )


def test_keys_that_are_right_and_quick_are_the_only_try():
    screen = PickyScreen(list(STALE))
    found = tried_on(screen)
    assert (found.best, [one.way for one in found.tried]) == ("keys", ["keys"])
    assert screen.fields == WRITTEN


def test_slow_keys_give_way_to_what_is_quick():
    screen = PickyScreen(list(STALE), ways_taken={"keys": ("right", 700)})
    found = tried_on(screen)
    assert found.best == "paste"
    assert screen.fields == WRITTEN
    assert found.says() == (
        "typed key by key: written and verified, 2800 ms; "
        "pasted from the clipboard: written and verified, 0 ms"
    )


def test_a_program_that_cannot_be_read_is_typed_into():
    screen = PickyScreen(list(STALE), readable=False)
    found = tried_on(screen)
    assert (found.best, screen.ways[-1]) == ("keys", "keys")
    assert screen.fields == WRITTEN


@given(takes=WAYS_OF_PROGRAM)
def test_the_best_way_is_right_if_any_is(takes):
    screen = PickyScreen(list(STALE), ways_taken=takes)
    found = tried_on(screen)
    right = {way for way in TRIED if takes[way][0] == "right"}
    if right:
        assert found.best in right
        assert found.report.outcome == "verified"
        assert screen.fields == WRITTEN
    elif "refuses" not in {takes[way][0] for way in TRIED}:
        assert found.best == "keys"


@given(at=st.integers(1, 150), kind=st.sampled_from(["left", "box", "escape", "frozen"]))
def test_what_comes_between_ends_the_tries_and_is_reported(at, kind):
    takes = {"keys": ("right", 700), "paste": ("right", 600), "accessible": ("wrong", 0)}
    screen = PickyScreen(list(STALE), stops={at: kind}, ways_taken=takes)
    found = tried_on(screen)
    came = at not in screen.stops
    assert (found.report.stop, found.best) == ((kind, "") if came else ("", "paste"))
    assert found.way in (TRIED if came else ["paste"])


@pytest.mark.parametrize(
    ("tried", "best"),
    [
        ([], "keys"),
        ([("keys", "unverified", 10), ("paste", "differs", 10)], "keys"),
        ([("keys", "differs", 10), ("paste", "verified", 3000)], "paste"),
        ([("keys", "verified", 3000), ("paste", "verified", 2000)], "paste"),
        ([("keys", "verified", 1000), ("paste", "verified", 20)], "keys"),
        ([("keys", "verified", 1001), ("accessible", "verified", 20)], "accessible"),
    ],
)
def test_the_best_is_the_first_that_is_quick_enough_or_else_the_quickest(tried, best):
    assert best_way([WayTried(*one) for one in tried]) == best
