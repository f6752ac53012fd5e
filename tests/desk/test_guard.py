"""Disturbed runs: no character in another window, and every report true."""

from bench.guarding import measure


def test_disturbed_runs_write_nowhere_else_and_report_what_stands_there():
    keys, untrue, stops = measure(runs=14, seed=7)
    assert keys == 0
    assert untrue == []
    assert sum(stops.values()) == 14
