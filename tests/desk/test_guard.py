"""Disturbed runs: no character in another window, and every report true."""

from bench.guarding import Disturbing, measure


def test_disturbed_runs_write_nowhere_else_and_report_what_stands_there():
    keys, untrue, stops = measure(runs=14, seed=7)
    assert keys == 0
    assert untrue == []
    assert sum(stops.values()) == 14


def test_a_key_held_as_people_hold_it_takes_no_character_away():
    """While Escape is down all keys go to whoever has asked for it: none may be counted meanwhile."""
    disturbing = Disturbing(seed=5)
    try:
        found = [disturbing.once("escape") for _ in range(12)]
    finally:
        disturbing.close()
    assert "escape" in [stop for stop, _, _ in found]
    assert [untrue for _, _, untrue in found if untrue] == []
