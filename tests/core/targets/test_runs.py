"""Runs of entry plans on a screen that is a list of fields: written, stopped, gone on with, undone."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.faults import Faults
from anchorline.core.targets.programs import Fact, FieldText, Run
from anchorline.core.targets.programs.fields import read_program_field
from anchorline.core.targets.programs.plan import read_plan
from anchorline.core.targets.programs.planning import steps_of
from anchorline.core.targets.programs.report import FIELD_STATES
from anchorline.core.targets.programs.steps import as_entry

from .fake_screen import FakeScreen

FIELDS = ["street", "unit", "town", "postcode"]
TEXTS = {"street": "4 Kiln Row", "unit": "Flat 2", "town": "Brackwater", "postcode": "QV1 1AA"}
STALE = ["old 1", "old 2", "old 3", "old 4"]
OFFERED = {"key": "firm", "where": "offered"}
BOX = [{"key": "note", "several_lines": True}, {"key": "postcode"}]
NOTE = {"note": "Flat 2, 4 Kiln Row\nBrackwater", "postcode": "QV1 1AA"}


class Clock:
    def __init__(self):
        self.ms = 0

    def __call__(self):
        self.ms += 10
        return self.ms


def plan_of(fields=FIELDS, visited=None, **writing):
    """A plan for fields, of which those on the screen are visited; a key alone is a plain field."""
    faults = Faults()
    entries = [{"key": one} if isinstance(one, str) else one for one in fields]
    read = [read_program_field(one, "", faults) for one in entries]
    keys = [one.key for one in read] if visited is None else visited
    plan = read_plan(writing, read, keys, "/writing", faults)
    assert not faults.problems
    return plan


def run_of(plan, screen, texts=TEXTS, **more):
    wanted = [
        FieldText(
            one.key, one.key.title(), texts.get(one.key, ""), one.field.max_length, one.where,
            one.cells,
        )
        for one in plan.fields
    ]  # fmt: skip
    return Run(plan, wanted, screen, Clock(), **more)


def states(report):
    return {one.field: one.state for one in report.fields}


def test_a_field_a_line_leaves_nothing_stale():
    screen = FakeScreen(list(STALE))
    report = run_of(plan_of(), screen, {**TEXTS, "unit": ""}).go()
    assert screen.fields == ["4 Kiln Row", "", "Brackwater", "QV1 1AA"]
    assert report.outcome == "verified"
    assert states(report)["unit"] == "empty"


def test_a_field_of_lines_gets_its_lines_by_a_key_of_their_own():
    screen = FakeScreen(["stale\nlines", "stale"])
    report = run_of(plan_of(BOX), screen, NOTE).go()
    assert screen.fields == ["Flat 2, 4 Kiln Row\nBrackwater", "QV1 1AA"]
    assert report.outcome == "verified"


def test_fields_that_the_address_does_not_fill_are_passed_over_with_all_that_stand_between():
    screen = FakeScreen(["old 1", "phone", "fax", "old 2", "mail", "old 3"])
    fields = ["street", "phone", {"key": "town", "further": 2}, "mail", "postcode"]
    plan = plan_of(fields, visited=["street", "town", "postcode"])
    run_of(plan, screen).go()
    assert screen.fields == ["4 Kiln Row", "phone", "fax", "Brackwater", "mail", "QV1 1AA"]


def test_a_full_field_that_passes_on_is_not_left_twice():
    screen = FakeScreen(list(STALE), widths=[None, None, None, 7])
    full = FakeScreen(list(STALE), widths=[10, None, None, None])
    street = [{"key": "street", "max_length": 10}, *FIELDS[1:]]
    run_of(plan_of(street, jumps=True, check="no"), full).go()
    assert full.fields == ["4 Kiln Row", "Flat 2", "Brackwater", "QV1 1AA"]
    postcode = [*FIELDS[:3], {"key": "postcode", "max_length": 7}]
    run_of(plan_of(postcode, jumps=True, check="no"), screen).go()
    assert screen.fields == ["4 Kiln Row", "Flat 2", "Brackwater", "QV1 1AA"]


def test_what_the_screen_has_no_field_for_is_offered_or_not_as_the_target_says():
    texts = {**TEXTS, "firm": "Works"}
    report = run_of(plan_of([*FIELDS, OFFERED]), FakeScreen(list(STALE)), texts).go()
    assert [one.text for one in report.left_over()] == ["Works"]
    plan = plan_of([*FIELDS, {"key": "firm", "where": "nowhere"}])
    quiet = run_of(plan, FakeScreen(list(STALE)), texts).go()
    assert quiet.left_over() == []
    assert states(quiet)["firm"] == "no_field"


def test_a_field_without_keys_to_empty_it_is_erased_by_as_many_as_it_takes():
    plan = plan_of([{"key": "town", "empty": "erase", "max_length": 3}])
    assert [str(one) for one in plan.chords("erase", 3)] == ["End", *["Backspace"] * 3]
    assert len(plan.chords("erase")) == 81


def test_what_cannot_be_read_is_not_called_verified():
    report = run_of(plan_of(), FakeScreen(list(STALE), readable=False)).go()
    assert report.outcome == "unverified"
    assert report.says() == "Written, not verified."


def test_a_text_on_a_terminal_is_verified_in_its_own_cells_and_nowhere_else():
    cells = {"left": 0, "top": 0, "width": 20, "height": 1}
    fields = [{"key": key, "place": {**cells, "top": at}} for at, key in enumerate(FIELDS)]
    right = run_of(plan_of(fields, check="screen"), FakeScreen(list(STALE))).go()
    assert (right.outcome, set(states(right).values())) == ("verified", {"verified"})
    # It began one field early: everything stands on the screen, and nothing where it belongs.
    early = FakeScreen([*STALE, "old 5"], at=1)
    report = run_of(plan_of(fields, check="screen"), early).go()
    assert set(states(report).values()) == {"differs"}
    assert report.fields[1].found == "4 Kiln Row"


def test_of_a_terminal_whose_cells_nobody_knows_it_is_said_that_the_field_is_not_known():
    report = run_of(plan_of(check="screen"), FakeScreen(list(STALE))).go()
    assert (report.outcome, set(states(report).values())) == ("unverified", {"shown"})
    assert FIELD_STATES["shown"] == "on the screen; its field is not known"


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
    assert cut.fields[0].found == "4 Kil"


def test_another_field_than_the_expected_one_stops_the_run_before_a_key():
    named = [{"key": "street", "name": "Street"}, {"key": "town", "name": "Town"}]
    screen = FakeScreen(list(STALE), names=["Street", "Telephone", "", ""])
    report = run_of(plan_of(named), screen).go()
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
    fields = BOX if cleared else [{**one, "empty": "no"} for one in BOX]
    screen = FakeScreen(["", ""], stops={key: "left"})
    run = run_of(plan_of(fields), screen, NOTE)
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
    fields = [{"key": "street", "max_length": 10}, {"key": "unit", "further": times}]
    widths = [10] * 4 if jumps and times == 1 else []
    screen = FakeScreen(list(STALE), widths=widths, at=start)
    run = run_of(plan_of(fields, jumps=bool(widths)), screen)
    run.go()
    run.back_to_first()
    assert screen.at == start
    written = list(screen.fields)
    run_of(plan_of(fields, jumps=bool(widths)), screen).go()
    assert screen.fields == written
    screen.at = start
    run.undo()
    assert (screen.at, screen.fields) == (start, STALE)


def test_what_was_written_in_part_is_not_called_nothing():
    screen = FakeScreen(list(STALE), stops={5: "left"})
    report = run_of(plan_of(), screen).go()
    assert report.says() == "Stopped: It stopped: left. In part: Street (3 characters)."
    nothing = run_of(plan_of(), FakeScreen(list(STALE), stops={1: "left"})).go()
    assert nothing.says() == "Stopped: It stopped: left. Nothing was written."


@given(st.integers(1, 45))
def test_a_report_of_a_stopped_run_is_true(key):
    screen = FakeScreen(list(STALE), stops={key: "left"})
    report = run_of(plan_of(), screen).go()
    if not report.stop:
        return
    stands = dict(zip(FIELDS, screen.fields, strict=True))
    for one in report.fields:
        if one.state == "partly":
            assert stands[one.field] == one.text[: one.written]
        elif one.state in ("written", "verified"):
            assert stands[one.field] == one.text
        else:
            assert one.text not in stands[one.field]


def test_steps_of_ones_own_stand_in_place_of_the_fields():
    steps = [
        {"do": "expect_front", "test": "begins", "text": "Contact"},
        {"do": "clear", "how": "line"},
        {"do": "type", "field": "street"},
        {"do": "next", "times": 2},
        {"do": "paste", "field": "town", "when": "town"},
        {"do": "write", "text": "!", "when": "unit"},
        {"do": "line_break"},
        {"do": "previous"},
        {"do": "press", "keys": "Ctrl+S F5", "times": 2},
    ]
    faults = Faults()
    fields = [read_program_field({"key": key}, "", faults) for key in FIELDS]
    plan = read_plan({"steps": steps, "by": "accessible"}, fields, FIELDS, "/writing", faults)
    assert faults.problems == []
    assert [as_entry(step) for step in steps_of(plan)] == [
        {name: value for name, value in step.items() if (name, value) != ("how", "line")}
        for step in steps
    ]
    screen = FakeScreen(list(STALE), facts=(Fact("title", "Contact 7"),))
    report = run_of(plan, screen, {**TEXTS, "unit": ""}).go()
    assert screen.fields == ["4 Kiln Row", "old 2", "old 3Brackwater\n", "old 4"]
    assert screen.ways == ["keys", "paste"]
    assert [entry.says for entry in report.log][:3] == [
        "Expect that the title of the window begins with “Contact”",
        "Empty the field",
        "Type Street",
    ]


def test_a_screen_that_does_not_come_stops_the_run():
    steps = [{"do": "wait_until", "kind": "title", "text": "Contact", "seconds": 2}]
    plan = plan_of(steps=steps)
    screen = FakeScreen(list(STALE), facts=(Fact("title", "Search"),))
    report = run_of(plan, screen).go()
    assert (
        report.detail
        == "It did not come within 2 seconds that the title of the window is “Contact”."
    )
    assert 0 < screen.waited < 15


@pytest.mark.parametrize(
    ("writing", "pointer", "said"),
    [
        ({"next_key": "Retrun"}, "/writing/next_key", "Did you mean Return?"),
        ({"by": "hand"}, "/writing/by", "There is no way to write 'hand'"),
        ({"steps": [{"do": "press"}]}, "/writing/steps/0/keys", "Name a key"),
        ({"steps": [{"do": "write"}]}, "/writing/steps/0", "Name a field, or give a text"),
        ({"steps": [{"do": "write", "field": "stret"}]}, "/writing/steps/0/field", "street"),
        ({"steps": [{"do": "next", "when": "tow"}]}, "/writing/steps/0/when", "Did you mean town"),
        ({"steps": [{"do": "wait_until"}]}, "/writing/steps/0/text", "Give the text"),
        ({"steps": [{"do": "clear", "how": "x"}]}, "/writing/steps/0/how", "There is no way to"),
    ],
)
def test_what_is_wrong_with_a_plan_is_said_at_its_place(writing, pointer, said):
    faults = Faults()
    fields = [read_program_field({"key": key}, "", faults) for key in FIELDS]
    read_plan(writing, fields, FIELDS, "/writing", faults)
    assert [(one.pointer, said in one.detail) for one in faults.problems] == [(pointer, True)]


@pytest.mark.parametrize(
    ("entry", "pointer", "said"),
    [
        ({"empty": "onw"}, "/empty", "There is no way to empty a field 'onw'"),
        ({"where": "scren"}, "/where", "Did you mean screen"),
        ({"type": "lsit"}, "/type", "Did you mean list"),
        ({"type": "list", "several_lines": True}, "/several_lines", "holds no lines"),
        ({"pieces": [{}]}, "/pieces", "split into 2 to 4"),
    ],
)
def test_what_is_wrong_with_a_field_is_said_at_its_place(entry, pointer, said):
    faults = Faults()
    read_program_field({"key": "town", **entry}, "", faults)
    assert [(one.pointer, said in one.detail) for one in faults.problems] == [(pointer, True)]


def test_keys_of_ones_own_have_to_be_named_where_a_field_is_emptied_by_them():
    faults = Faults()
    fields = [read_program_field({"key": "town", "empty": "own"}, "", faults)]
    read_plan({}, fields, ["town"], "/writing", faults)
    assert [one.pointer for one in faults.problems] == ["/writing/clear_keys"]
