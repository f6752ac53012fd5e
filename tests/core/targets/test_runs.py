"""Runs of entry plans on a screen that is a list of fields: written, stopped, gone on with, undone."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.faults import Faults
from anchorline.core.targets.programs import Fact, Part, Run
from anchorline.core.targets.programs.plan import read_plan
from anchorline.core.targets.programs.planning import steps_of
from anchorline.core.targets.programs.steps import as_entry

from .fake_screen import FakeScreen

PARTS = ["street", "unit", "town", "postcode", "firm"]
TEXTS = {"street": "4 Kiln Row", "unit": "Flat 2", "town": "Brackwater", "postcode": "QV1 1AA"}
STALE = ["old 1", "old 2", "old 3", "old 4"]
LINES = [
    {"part": "street", "then": "next"},
    {"part": "unit", "then": "next"},
    {"part": "town", "then": "next"},
    {"part": "postcode", "then": "nothing"},
]
BOX = [
    {"part": "unit", "clear": "box", "then": "comma"},
    {"part": "street", "clear": "box", "then": "line"},
    {"part": "firm", "clear": "box", "then": "blank"},
    {"part": "town", "clear": "box", "then": "next"},
    {"part": "postcode", "then": "nothing"},
]


class Clock:
    def __init__(self):
        self.ms = 0

    def __call__(self):
        self.ms += 10
        return self.ms


def plan_of(table=LINES, **settings):
    faults = Faults()
    plan = read_plan({"table": table, **settings}, PARTS, "/plan", faults)
    assert not faults.problems
    return plan


def run_of(plan, screen, texts=TEXTS, widths=None, **more):
    parts = [Part(key, key.title(), texts.get(key, ""), (widths or {}).get(key)) for key in PARTS]
    return Run(plan, parts, screen, Clock(), **more)


def states(report):
    return {one.part: one.state for one in report.parts}


def test_a_field_a_line_leaves_nothing_stale():
    screen = FakeScreen(list(STALE))
    report = run_of(plan_of(), screen, {**TEXTS, "unit": ""}).go()
    assert screen.fields == ["4 Kiln Row", "", "Brackwater", "QV1 1AA"]
    assert report.outcome == "verified"
    assert states(report)["unit"] == "empty"


@pytest.mark.parametrize(
    ("given", "box"),
    [
        ({}, "Flat 2, 4 Kiln Row\nBrackwater"),
        ({"firm": "Works"}, "Flat 2, 4 Kiln Row\nWorks Brackwater"),
        ({"unit": ""}, "4 Kiln Row\nBrackwater"),
        ({"street": ""}, "Flat 2\nBrackwater"),
        ({"unit": "", "street": ""}, "Brackwater"),
        ({"town": ""}, "Flat 2, 4 Kiln Row"),
        ({"unit": "", "street": "", "town": ""}, ""),
    ],
)
def test_an_empty_part_takes_its_separator_with_it(given, box):
    screen = FakeScreen(["stale\nlines", "stale"])
    report = run_of(plan_of(BOX), screen, TEXTS | given).go()
    assert screen.fields == [box, "QV1 1AA"]
    assert report.outcome == "verified"


def test_a_part_that_is_kept_keeps_its_line():
    table = [
        {"part": "street", "then": "line"},
        {"part": "firm", "then": "line", "keep": True},
        {"part": "town", "then": "nothing"},
    ]
    screen = FakeScreen([""])
    run_of(plan_of(table), screen).go()
    assert screen.fields == ["4 Kiln Row\n\nBrackwater"]


def test_a_full_field_that_passes_on_is_not_left_twice():
    screen = FakeScreen(list(STALE), widths=[None, None, None, 7])
    full = FakeScreen(list(STALE), widths=[10, None, None, None])
    plan = plan_of(jumps=True, check="no")
    run_of(plan, full, widths={"street": 10}).go()
    assert full.fields == ["4 Kiln Row", "Flat 2", "Brackwater", "QV1 1AA"]
    run_of(plan, screen, widths={"postcode": 7}).go()
    assert screen.fields == ["4 Kiln Row", "Flat 2", "Brackwater", "QV1 1AA"]


def test_parts_without_a_field_are_left_over_unless_the_plan_keeps_them_to_itself():
    report = run_of(plan_of(), FakeScreen(list(STALE)), {**TEXTS, "firm": "Works"}).go()
    assert [one.text for one in report.left_over()] == ["Works"]
    plan = plan_of(not_offered=["firm"])
    quiet = run_of(plan, FakeScreen(list(STALE)), {**TEXTS, "firm": "Works"}).go()
    assert quiet.left_over() == []
    assert states(quiet)["firm"] == "no_field"


def test_what_cannot_be_read_is_not_called_verified():
    report = run_of(plan_of(), FakeScreen(list(STALE), readable=False)).go()
    assert report.outcome == "unverified"
    assert report.says() == "Written, not verified."


def test_what_a_field_makes_of_a_text_is_compared_without_case_and_blanks():
    class Capitals(FakeScreen):
        def read_field(self, select):
            return self.fields[self.at].upper().replace(" ", "  ")

    class Cut(FakeScreen):
        def read_field(self, select):
            return self.fields[self.at][:5]

    assert run_of(plan_of(), Capitals(list(STALE))).go().outcome == "verified"
    cut = run_of(plan_of(), Cut(list(STALE))).go()
    assert cut.outcome == "differs"
    assert cut.says() == "Differs here: Street, Unit, Town, Postcode."
    assert cut.parts[0].found == "4 Kil"


def test_another_field_than_the_expected_one_stops_the_run_before_a_key():
    table = [{"part": "street", "field": "Street"}, {"part": "town", "field": "Town"}]
    screen = FakeScreen(list(STALE), names=["Street", "Telephone", "", ""])
    report = run_of(plan_of(table), screen).go()
    assert (report.outcome, report.stop) == ("stopped", "field")
    assert "“Telephone”, where “Town” is expected" in report.detail
    assert screen.fields == ["4 Kiln Row", *STALE[1:]]
    assert states(report)["town"] == "missing"
    assert report.log[-1].failed


@given(st.integers(1, 45), st.sampled_from(["left", "box", "escape"]), st.booleans())
def test_stopped_anywhere_and_gone_on_with_nothing_is_lost_or_twice(key, kind, reads):
    screen = FakeScreen(list(STALE), stops={key: kind}, readable=reads)
    run = run_of(plan_of(), screen)
    report = run.go()
    if report.stop:
        assert report.stop == kind
        report = run.go_on()
    assert report.stop == ""
    assert screen.fields == ["4 Kiln Row", "Flat 2", "Brackwater", "QV1 1AA"]


@given(st.integers(1, 60), st.booleans())
def test_stopped_in_a_box_of_lines_and_gone_on_with_nothing_is_lost_or_twice(key, cleared):
    table = BOX if cleared else [{**row, "clear": "no"} for row in BOX]
    screen = FakeScreen(["", ""], stops={key: "left"})
    run = run_of(plan_of(table), screen)
    if run.go().stop:
        run.go_on()
    assert screen.fields == ["Flat 2, 4 Kiln Row\nBrackwater", "QV1 1AA"]


@given(st.integers(1, 45))
def test_what_was_written_is_taken_back_and_what_stood_there_put_back(key):
    screen = FakeScreen(list(STALE), stops={key: "left"})
    run = run_of(plan_of(), screen)
    if run.go().stop:
        report = run.undo()
        assert screen.fields == STALE
        assert report.says().startswith("What was written is taken back.")
        assert run.go().outcome == "verified"


@given(st.integers(0, 3), st.sampled_from([1, 2]), st.booleans())
def test_back_at_its_first_field_a_run_can_be_taken_back_or_begun_again(start, times, jumps):
    table = [{**row, "times": times} if row["then"] == "next" else row for row in LINES[:2]]
    widths = [10] * 4 if jumps and times == 1 else []
    screen = FakeScreen(list(STALE), widths=widths, at=start)
    run = run_of(plan_of(table, jumps=bool(widths)), screen, widths={"street": 10})
    run.go()
    run.back_to_first()
    assert screen.at == start
    written = list(screen.fields)
    run_of(plan_of(table, jumps=bool(widths)), screen, widths={"street": 10}).go()
    assert screen.fields == written
    screen.at = start
    run.undo()
    assert (screen.at, screen.fields) == (start, STALE)


@given(st.integers(1, 45))
def test_a_report_of_a_stopped_run_is_true(key):
    screen = FakeScreen(list(STALE), stops={key: "left"})
    report = run_of(plan_of(), screen).go()
    if not report.stop:
        return
    stands = dict(zip(["street", "unit", "town", "postcode"], screen.fields, strict=True))
    for part in report.parts[:4]:
        if part.state == "partly":
            assert stands[part.part] == part.text[: part.written]
        elif part.state in ("written", "verified"):
            assert stands[part.part] == part.text
        else:
            assert part.text not in stands[part.part]


def test_steps_of_ones_own_stand_in_place_of_the_table():
    steps = [
        {"do": "expect_front", "test": "begins", "text": "Contact"},
        {"do": "clear", "how": "line"},
        {"do": "type", "part": "street"},
        {"do": "next", "times": 2},
        {"do": "paste", "part": "town", "when": "town"},
        {"do": "write", "text": "!", "when": "firm"},
        {"do": "line_break"},
        {"do": "previous"},
        {"do": "press", "keys": "Ctrl+S F5", "times": 2},
    ]
    faults = Faults()
    plan = read_plan({"steps": steps, "by": "accessible"}, PARTS, "/plan", faults)
    assert faults.problems == []
    assert [as_entry(step) for step in steps_of(plan)] == [
        {name: value for name, value in step.items() if (name, value) != ("how", "line")}
        for step in steps
    ]
    screen = FakeScreen(list(STALE), facts=(Fact("title", "Contact 7"),))
    report = run_of(plan, screen).go()
    assert screen.fields == ["4 Kiln Row", "old 2", "old 3Brackwater\n", "old 4"]
    assert screen.ways == ["keys", "paste"]
    assert [entry.says for entry in report.log][:3] == [
        "Expect that the title of the window begins with “Contact”",
        "Empty the field",
        "Type Street",
    ]


def test_a_screen_that_does_not_come_stops_the_run():
    steps = [{"do": "wait_until", "kind": "title", "text": "Contact", "seconds": 2}]
    plan = read_plan({"steps": steps}, PARTS, "/plan", Faults())
    screen = FakeScreen(list(STALE), facts=(Fact("title", "Search"),))
    report = run_of(plan, screen).go()
    assert (
        report.detail
        == "It did not come within 2 seconds that the title of the window is “Contact”."
    )
    assert 0 < screen.waited < 15


@pytest.mark.parametrize(
    ("plan", "pointer", "said"),
    [
        ({}, "/plan/table", "Say which part goes into the first field."),
        ({"table": [{"part": "stret"}]}, "/plan/table/0/part", "Did you mean street?"),
        ({"table": [{"part": "town", "clear": "own"}]}, "/plan/clear_keys", "such as Ctrl+U"),
        ({"table": LINES, "next_key": "Retrun"}, "/plan/next_key", "Did you mean Return?"),
        ({"table": LINES, "not_offered": ["x"]}, "/plan/not_offered/0", "There is no part 'x'"),
        ({"steps": [{"do": "press"}]}, "/plan/steps/0/keys", "Name a key"),
        ({"steps": [{"do": "write"}]}, "/plan/steps/0", "Name a part, or give a text"),
        ({"steps": [{"do": "next", "when": "tow"}]}, "/plan/steps/0/when", "Did you mean town"),
        ({"steps": [{"do": "wait_until"}]}, "/plan/steps/0/text", "Give the text"),
        ({"steps": [{"do": "clear", "how": "x"}]}, "/plan/steps/0/how", "There is no way to clear"),
    ],
)
def test_what_is_wrong_with_a_plan_is_said_at_its_place(plan, pointer, said):
    faults = Faults()
    read_plan(plan, PARTS, "/plan", faults)
    assert [(one.pointer, said in one.detail) for one in faults.problems] == [(pointer, True)]
