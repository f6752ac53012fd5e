from dataclasses import replace
from itertools import combinations, pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.abbreviations import short_form
from anchorline.core.mapping.packing import Part, pack

from .filling import address, filled, warned


def short(word):
    return short_form(word, ("en",))


def parts_of(*lines):
    """Parts from lines of parts: a name and a text each."""
    found = []
    for line in lines:
        for place, (name, text) in enumerate(line):
            is_bound = place > 0 and {name, line[place - 1][0]} == {"number", "street"}
            before = (" " if place else ", ") if found else ""
            found.append(Part((name,), text, before, place == 0, is_bound))
    return found


def lines(parts, count, width):
    return list(pack(parts, count, width, short).lines)


HOUSE = parts_of(
    [("unit", "Flat 3")],
    [("building", "Rowan Court")],
    [("number", "12"), ("street", "Mill Lane")],
    [("town", "Brackwater")],
)


@pytest.mark.parametrize(
    ("count", "width", "packed"),
    [
        (3, 45, ["Flat 3, Rowan Court, 12 Mill Lane, Brackwater"]),
        (3, 44, ["Flat 3, Rowan Court", "12 Mill Lane, Brackwater"]),
        (3, 24, ["Flat 3, Rowan Court", "12 Mill Lane, Brackwater"]),
        (3, 23, ["Flat 3, Rowan Court", "12 Mill Lane", "Brackwater"]),
        (4, 18, ["Flat 3", "Rowan Court", "12 Mill Lane", "Brackwater"]),
        (3, 18, ["Flat 3, Rowan Ct", "12 Mill Lane", "Brackwater"]),
        (2, 22, ["Flat 3, Rowan Court", "12 Mill Ln, Brackwater"]),
    ],
)
def test_the_fewest_lines_that_lose_nothing_with_number_and_street_together(count, width, packed):
    assert lines(HOUSE, count, width) == packed


def test_parts_are_moved_then_abbreviated_then_torn_and_only_then_cut():
    assert lines(HOUSE, 3, 19) == ["Flat 3, Rowan Court", "12 Mill Lane", "Brackwater"]
    assert lines(HOUSE, 3, 18) == ["Flat 3, Rowan Ct", "12 Mill Lane", "Brackwater"]
    street = parts_of([("number", "12"), ("street", "Saint Bartholomew Monastery Gardens")])
    assert lines(street, 2, 30) == ["12 Saint Bartholomew", "Monastery Gardens"]
    assert lines(street, 1, 37) == ["12 Saint Bartholomew Monastery Gdns"]
    made = pack(street, 1, 30, short)
    assert made.lines == ("12 Saint Bartholomew Monastery",)
    assert made.lost == ((1, "Gardens"),)


@pytest.mark.parametrize(
    ("length", "packed", "cut"),
    [
        (10, ["x" * 10], False),  # exactly W
        (11, ["x" * 10, "x"], True),  # W + 1: no line has room for the word
        (20, ["x" * 10, "x" * 10], True),
    ],
)
def test_a_word_of_the_width_fits_and_a_longer_one_goes_on(length, packed, cut):
    made = pack([Part(("street",), "x" * length, "", True)], 2, 10, short)
    assert list(made.lines) == packed
    assert bool(made.cut) == cut
    assert not made.lost


def test_a_word_longer_than_all_lines_loses_its_end_and_that_is_said():
    made = pack([Part(("street",), "x" * 12, "", True)], 1, 10, short)
    assert (made.lines, made.lost) == (("x" * 10,), ((0, "xx"),))


def test_nothing_is_packed_into_nothing():
    assert pack([], 3, 10, short).lines == ()


def test_what_mail_needs_least_is_given_up_first():
    parts = parts_of(
        [("organisation", "Harrow Bell Works")],
        [("building", "Rowan House")],
        [("number", "12"), ("street", "Mill Row")],
        [("town", "Brackwater")],
    )
    made = pack(parts, 2, 20, short)
    assert {parts[at].components[0] for at, _ in made.lost} <= {"organisation", "building"}
    assert "Brackwater" in " ".join(made.lines)


def test_what_fits_beside_what_mail_needs_most_is_taken_back():
    """The street loses its end, and yet there is room for the town."""
    street = "Bartholomew " * 6
    parts = parts_of([("number", "12"), ("street", street)], [("town", "Marl")])
    packed = pack(parts, 2, 20, short)
    assert packed.lost == ((1, " ".join(["Bartholomew"] * 4)),)
    assert packed.lines == ("12 Bartholomew", "Bartholomew, Marl")


def test_a_word_that_is_only_shorter_than_a_line_abbreviated_is_named():
    packed = pack(parts_of([("street", "Old Boulevard")]), 2, 8, short)
    assert packed.lines == ("Old Blvd",)
    assert packed.abbreviated == (("Boulevard", "Blvd"),)
    assert not packed.cut


def test_text_without_blanks_is_broken_between_characters():
    made = pack([Part(("street",), "東京都千代田区霞が関", "", True)], 3, 4, short)
    assert "".join(made.lines) == "東京都千代田区霞が関"
    assert not made.cut


WORDS = st.text(alphabet="abcdefgh", min_size=1, max_size=9) | st.sampled_from(
    ["Street", "Lane", "Saint", "Gardens", "12", "7b"]
)
TEXTS = st.lists(WORDS, min_size=1, max_size=3).map(" ".join)
NAMES = ["organisation", "unit", "building", "street", "district", "town"]
PARTS = st.lists(
    st.tuples(st.sampled_from(NAMES), TEXTS, st.booleans()), min_size=1, max_size=5
).map(
    lambda found: [
        Part((name,), text, ("" if n == 0 else ", " if begins else " "), begins or n == 0)
        for n, (name, text, begins) in enumerate(found)
    ]
)


@given(PARTS, st.integers(1, 4), st.integers(1, 25))
def test_no_line_is_too_long_none_is_empty_and_there_are_not_too_many(parts, count, width):
    made = pack(parts, count, width, short)
    assert len(made.lines) <= count
    assert all(0 < len(line) <= width for line in made.lines)


@given(PARTS, st.integers(1, 4), st.integers(1, 25))
def test_what_is_not_lost_is_in_the_lines_in_order(parts, count, width):
    made = pack(parts, count, width, lambda _word: "")
    kept = list("".join(part.text for part in parts).replace(" ", ""))
    lost = "".join(text for _, text in made.lost).replace(" ", "")
    written = "".join(made.lines).replace(" ", "").replace(",", "")
    assert len(written) + len(lost) == len(kept)
    rest = iter(kept)
    assert all(any(one == other for other in rest) for one in written), "in order"


@given(PARTS, st.integers(1, 4), st.integers(9, 25))
def test_a_word_that_fits_a_line_is_never_split(parts, count, width):
    """No word is longer than nine characters here, so each is whole or lost."""
    made = pack(parts, count, width, lambda _word: "")
    words = {word for part in parts for word in part.text.split()}
    assert {word.strip(",") for line in made.lines for word in line.split()} <= words


@given(PARTS, st.integers(1, 4), st.integers(4, 25))
def test_packing_what_was_packed_changes_nothing(parts, count, width):
    once = pack(parts, count, width, short).lines
    again = [Part(("street",), line, "" if n == 0 else ", ", True) for n, line in enumerate(once)]
    assert pack(again, count, width, short).lines == once


@given(PARTS, st.integers(1, 3), st.integers(6, 25))
def test_nothing_is_lost_or_abbreviated_where_trying_every_way_finds_one_without(
    parts, count, width
):
    made = pack(parts, count, width, short)
    shortest = [
        replace(part, text=" ".join(short(w) or w for w in part.text.split())) for part in parts
    ]
    if fits(parts, count, width) or fits(shortest, count, width):
        assert not made.lost
    if fits(parts, count, width, tear=False):
        assert not made.abbreviated


def fits(parts, count, width, *, tear=True):
    """Every way to break the words, or else the parts, into lines, tried."""
    words = []
    for part in parts:
        for n, word in enumerate(part.text.split() if tear else [part.text]):
            words.append((part.before if n == 0 else " ", word))
    places = range(1, len(words))
    for breaks in range(min(count, len(words))):
        for chosen in combinations(places, breaks):
            ends = (0, *chosen, len(words))
            rows = [
                "".join(("" if n == a else words[n][0]) + words[n][1] for n in range(a, b))
                for a, b in pairwise(ends)
            ]
            if all(len(row) <= width for row in rows):
                return True
    return False


FIT = [{"fit": {"into": ["a", "b", "c"], "width": 20}, "changes": ["upper"]}]


def test_a_rule_fits_components_in_the_order_of_their_country():
    components = {"number": "12", "street": "Mühlenweg", "postcode": "10115", "town": "Marl"}
    german = address({**components, "unit": "Whg 3"}, "DE")
    made = filled(FIT, german)
    assert " ".join(made.values.values()).split(", ")[0].startswith("MÜHLENWEG 12")
    british = filled(FIT, address(components))
    assert list(british.values.values()) == ["12 MÜHLENWEG", "MARL, 10115", ""]
    assert british.cleared == ["c"]


def test_it_takes_what_no_other_rule_takes_and_the_width_of_the_narrowest_field():
    rules = [*FIT, {"components": ["postcode"], "into": "p"}]
    known = address(
        {"number": "12", "street": "Mill Lane", "town": "Brackwater", "postcode": "QV1"}
    )
    assert filled(rules, known).values == {
        "a": "12 MILL LANE", "b": "BRACKWATER", "c": "", "p": "QV1",
    }  # fmt: skip
    assert filled(rules, known, b=12).values["a"] == "12 MILL LANE"
    assert filled(rules, known, b=11).values["a"] == "12 MILL LN"


def test_what_finds_no_room_is_named_or_goes_where_it_shall():
    rules = [{"fit": {"into": ["a"], "width": 14}}]
    known = address({"organisation": "Bell Works", "number": "12", "street": "Mill Row"})
    made = filled(rules, known)
    assert made.values == {"a": "12 Mill Row"}
    assert warned(made) == ["A: no room for 'Bell Works' (organisation)"]
    lost = [step.sources for step in made.trace if step.kind in ("lost", "not_taken")]
    assert lost == [("organisation",)], "said once"
    over = filled([{"fit": {"into": ["a"], "width": 14, "overflow": "rest"}}], known)
    assert over.values == {"a": "12 Mill Row", "rest": "Bell Works"}
    assert warned(over) == []


def test_components_that_are_named_are_packed_although_mail_leaves_them_out():
    rules = [
        {"fit": {"into": ["a", "b"], "width": 20, "components": ["town", "region", "country"]}}
    ]
    known = address({"town": "Marl", "region": "Somerset", "country": "United Kingdom"})
    assert list(filled(rules, known).values.values()) == ["Marl, Somerset", "United Kingdom"]


def test_a_number_and_a_unit_that_one_sign_joins_are_never_parted():
    """4-14 in the Netherlands, 6/12 in Australia: with a line break it would be something else."""
    rules = [{"fit": {"into": ["a", "b"], "width": 26}}]
    dutch = {
        "building": "Havengebouw",
        "street": "Lindenlaan",
        "number": "4",
        "unit": "14",
        "town": "N",
    }
    assert filled(rules, address(dutch, "NL")).values == {
        "a": "Havengebouw", "b": "Lindenlaan 4-14, N",
    }  # fmt: skip
    australian = {"building": "Wharf House", "unit": "6", "number": "12", "street": "Wattle Street"}
    assert filled(rules, address(australian, "AU")).values == {
        "a": "Wharf House", "b": "6/12 Wattle Street",
    }  # fmt: skip


def test_a_note_on_several_parts_is_said_once():
    rules = [{"fit": {"into": ["a"], "width": 40}, "changes": ["ascii"]}]
    known = address({"region": "東京都", "town": "千代田区", "street": "霞が関"}, "JP")
    assert warned(filled(rules, known)) == ["A: letters that are not Latin stay as they are"]


def test_each_line_names_the_parts_that_stand_in_it():
    made = pack(HOUSE, 3, 24, short)
    assert made.places == ((0, 1), (2, 3, 4))
    rules = [{"fit": {"into": ["a", "b"], "width": 24}}]
    known = address({"building": "Rowan Court House", "number": "12", "street": "Mill Lane"})
    steps = {s.field: s.sources for s in filled(rules, known).trace if s.kind == "wrote"}
    assert steps == {"a": ("building",), "b": ("number", "street")}
