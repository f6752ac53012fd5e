import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.address import COMPONENTS
from anchorline.core.mapping import FACTS, TRACE_KINDS, FoundRecord

from .filling import address, filled, problems_of, warned

TEXT = st.text(alphabet="abc é,", max_size=12)
ADDRESSES = st.dictionaries(st.sampled_from(COMPONENTS), TEXT, max_size=10)
HALVES = {"region": "region_code", "region_code": "region"}
MILL = {"number": "12a", "street": "Mill Lane", "town": "Marl", "postcode": "QV1 4AB"}


def kinds(made, field=None):
    return [step.kind for step in made.trace if field in (None, step.field)]


def test_components_are_joined_and_empty_ones_leave_no_trace():
    rules = [{"components": ["unit", "building", "street"], "join": ", ", "into": "line"}]
    made = filled(rules, address({"unit": "Flat 3", "street": "Abbey Lane"}))
    assert made.values == {"line": "Flat 3, Abbey Lane"}
    assert filled(rules, address({"building": " "})).values == {"line": ""}


def test_groups_are_joined_and_changed_before_what_they_stand_in():
    place = {"components": ["town"], "changes": ["upper"]}
    street = {"components": [{"components": ["number", "street"]}, "district"], "join": " - "}
    rules = [{"components": [street, place], "join": ", ", "into": "line"}]
    assert filled(rules, address(MILL)).values == {"line": "12a Mill Lane, MARL"}
    assert filled(rules, address({"town": "Marl"})).values == {"line": "MARL"}
    assert filled(rules, address({"number": "1", "district": "D"})).values == {"line": "1 - D"}


def test_every_owned_field_is_cleared_first_and_named_where_it_stays_empty():
    rules = [{"components": ["unit"], "into": "a"}, {"components": ["town"], "into": "b"}]
    made = filled(rules, address({"town": "Marl"}), {"a": "Flat 9", "b": "", "c": "not ours"})
    assert made.values == {"a": "", "b": "Marl"}
    assert made.cleared == ["a"]
    assert [(s.field, s.detail) for s in made.trace if s.kind == "cleared"] == [
        ("a", "cleared what stood there: Flat 9")
    ]


@pytest.mark.parametrize(
    ("word", "value", "kind", "lost"),
    [
        ("leave", "12", "left", ["A: 'S' (street) was left out"]),
        (None, "12", "left", ["A: 'S' (street) was left out"]),
        ("instead", "S", "replaced", ["A: '12' (po_box) was left out".replace("_", " ")]),
        ("append", "12 S", "appended", []),
    ],
)
def test_a_second_rule_into_a_field_does_what_it_says(word, value, kind, lost):
    second = {"components": ["street"], "into": "a"} | ({"if_written": word} if word else {})
    rules = [{"components": ["po_box"], "into": "a"}, second]
    assert filled(rules, address({"street": "S"})).values == {"a": "S"}
    both = filled(rules, address({"street": "S", "po_box": "12"}))
    assert both.values == {"a": value}
    assert kind in kinds(both)
    assert warned(both) == lost


def test_what_is_left_out_in_one_field_and_written_in_another_is_not_lost():
    rules = [
        {"components": ["po_box"], "into": "a"},
        {"components": ["street"], "into": "a", "if_written": "leave"},
        {"components": ["street"], "into": "b"},
    ]
    assert warned(filled(rules, address({"street": "S", "po_box": "12"}))) == []


def test_a_text_put_behind_another_has_the_joint_of_its_rule_between():
    rules = [
        {"components": ["street"], "into": "a"},
        {"components": ["town"], "into": "a", "if_written": "append", "join": " / "},
    ]
    assert filled(rules, address(MILL)).values == {"a": "Mill Lane / Marl"}


def test_warnings_of_a_text_that_was_replaced_go_with_it():
    rules = [
        {"components": ["street"], "into": "a", "changes": ["shorten"]},
        {"components": ["town"], "into": "a", "if_written": "instead"},
        {"components": ["street"], "into": "b"},
    ]
    assert warned(filled(rules, address(MILL), a=4)) == []


def test_changes_are_made_in_order_and_what_is_cut_is_said():
    rules = [{"components": ["street"], "into": "a", "changes": ["ascii", "upper", "shorten"]}]
    made = filled(rules, address({"street": "Größwein Burg am Wehr"}), a=16)
    assert made.values == {"a": "GROSSWEIN BURG"}
    assert warned(made) == ["A: shortened to 14 characters, without 'AM WEHR'"]
    assert kinds(made) == ["changed", "changed", "shortened", "wrote"]


def test_text_too_long_for_the_field_is_kept_and_said():
    made = filled([{"components": ["street"], "into": "a"}], address({"street": "x" * 12}), a=10)
    assert made.values == {"a": "x" * 12}
    assert warned(made) == ["A: 12 characters, the field takes 10"]


def test_a_rule_applies_when_its_formula_says_so_and_another_one_else():
    rules = [
        {"components": ["street"], "into": "a", "when": 'use = "business"'},
        {"components": ["town"], "into": "a", "when": "NOT(ISBLANK(postcode))", "otherwise": True},
        {"components": ["number"], "into": "a", "otherwise": True},
        {"components": ["number"], "into": "b"},
    ]
    assert filled(rules, address(MILL, use="business")).values == {"a": "Mill Lane", "b": "12a"}
    assert filled(rules, address(MILL)).values == {"a": "Marl", "b": "12a"}
    without = address({**MILL, "postcode": ""})
    assert filled(rules, without).values == {"a": "12a", "b": "12a"}
    assert kinds(filled(rules, without), "a") == ["skipped", "skipped", "wrote"]


@pytest.mark.parametrize(
    ("condition", "country", "holds"),
    [
        ('country_code = "gb"', "GB", True),
        ('OR(country_code = "FR"; country_code = "DE")', "GB", False),
        ("latitude > 50", "GB", True),
        ("ISBLANK(use)", "GB", False),
    ],
)
def test_conditions_know_components_and_facts(condition, country, holds):
    known = address({**MILL, "country_code": country}, latitude=51.5, use="public")
    made = filled([{"components": ["town"], "into": "a", "when": condition}], known)
    assert made.values["a"] == ("Marl" if holds else "")


def test_a_formula_is_a_source():
    rule = {"formula": '=IF(use = "business"; "B"; "R") & LEN(town)', "into": "a"}
    assert filled([rule], address(MILL)).values == {"a": "R4"}
    broken = filled([{"formula": "1 / (LEN(town) - 4)", "into": "a"}], address(MILL))
    assert broken.values == {"a": ""}
    assert warned(broken) == ["A: This divides by zero."]


def test_facts_are_sources():
    rules = [
        {"facts": ["latitude", "longitude"], "join": ", ", "into": "place"},
        {"facts": ["id"], "into": "id"},
        {"facts": ["lines"], "into": "lines"},
        {"facts": ["languages"], "into": "nothing"},
    ]
    known = address(MILL, identifier="d:1", latitude=51.5, longitude=-0.25)
    assert filled(rules, known).values == {
        "place": "51.5, -0.25",
        "id": "d:1",
        "lines": "12a Mill Lane\nMARL\nQV1 4AB",
        "nothing": "",
    }
    nowhere = address({"country_code": "GB"})
    assert {nowhere.fact(name) for name in FACTS} == {""}


@pytest.mark.parametrize(
    ("country", "components", "which", "text"),
    [
        ("GB", MILL, "street", "12a Mill Lane"),
        ("DE", {**MILL, "street": "Mühlweg"}, "street", "Mühlweg 12a"),
        ("US", {**MILL, "unit": "Apt 3"}, "street", "12a Mill Lane, Apt 3"),
        ("GB", {"po_box": "7", "town": "Marl"}, "street", "PO Box 7"),
        ("GB", {"number": "7", "town": "Marl"}, "street", "7"),
        ("GB", {"town": "Marl"}, "street", ""),
        ("GB", MILL, 2, "Marl"),
        ("GB", MILL, 9, ""),
        ("GB", MILL, "all", "12a Mill Lane, Marl, QV1 4AB"),
        ("GB", {"country_code": "GB"}, "all", ""),
    ],
)
def test_the_country_s_own_lines_are_sources(country, components, which, text):
    known = address(components, country)
    assert filled([{"lines": which, "into": "a"}], known).values == {"a": text}
    box = filled([{"lines": which, "into": "a"}], known, several_lines=["a"]).values["a"]
    assert box == (text.replace(", ", "\n") if which == "all" else text)


def test_the_line_of_the_street_leaves_out_what_another_rule_takes():
    rules = [{"lines": "street", "into": "a"}, {"components": ["unit"], "into": "b"}]
    made = filled(rules, address({**MILL, "unit": "Apt 3"}, "US"))
    assert made.values == {"a": "12a Mill Lane", "b": "Apt 3"}


class Towns:
    """Records of another form, found by their name."""

    def __init__(self, **ids):
        self.ids, self.asked = ids, []

    def __call__(self, form, texts):
        self.asked.append((form, dict(texts)))
        found = self.ids.get(texts["name"])
        return FoundRecord(found, texts["name"]) if found else None


def link(**settings):
    find = [{"components": ["town"], "into": "name", "changes": ["upper"]}]
    return [{"link": {"form": "town", "find": find, **settings}, "into": "a"}]


def test_a_link_finds_a_record_makes_one_or_says_that_there_is_none():
    towns = Towns(MARL="r1")
    made = filled(link(), address(MILL), find=towns)
    assert (made.values, made.labels) == ({"a": "r1"}, {"a": "MARL"})
    assert towns.asked == [("town", {"name": "MARL"})]
    none = filled(link(), address({"town": "Bell"}), find=towns)
    assert none.values == {"a": ""}
    assert warned(none) == ["A: there is no record for 'BELL'"]
    new = filled(link(creates=True), address({"town": "Bell"}), find=towns)
    assert (new.values, new.labels, warned(new)) == ({"a": ""}, {"a": "BELL"}, [])
    assert kinds(new, "a") == ["made"]
    assert kinds(filled(link(), address({"street": "S"}), find=towns), "a") == ["nothing"]
    assert kinds(filled(link(), address(MILL)), "a") == ["looked_up_later"]


def test_what_no_rule_takes_is_in_the_trace_and_what_everybody_knows_is_not():
    made = filled([{"components": ["town"], "into": "a"}], address({**MILL, "country_code": "GB"}))
    not_taken = [step.sources for step in made.trace if step.kind == "not_taken"]
    assert not_taken == [("number",), ("street",), ("postcode",)]
    assert set(kinds(made)) <= set(TRACE_KINDS)


@pytest.mark.parametrize(
    ("rule", "pointer", "says"),
    [
        ({"into": "a"}, "/0", "components, lines, facts, fit, formula or link"),
        ({"components": ["town"], "facts": ["id"], "into": "a"}, "/0", "only one of them"),
        ({"components": ["twon"], "into": "a"}, "/0/components/0", "town"),
        ({"components": [{"components": ["twon"]}], "into": "a"}, "/0/components/0/components/0", "town"),
        ({"components": [{"components": []}], "into": "a"}, "/0/components/0", "into this group"),
        ({"facts": ["latitud"], "into": "a"}, "/0/facts/0", "latitude"),
        ({"lines": "last", "into": "a"}, "/0/lines", "all, street, or a line from 1"),
        ({"lines": 13, "into": "a"}, "/0/lines", "all, street, or a line from 1"),
        ({"formula": "twon", "into": "a"}, "/0/formula", "town"),
        ({"components": ["town"], "when": "use =", "into": "a"}, "/0/when", ""),
        ({"components": ["town"]}, "/0/into", "into which field"),
        ({"components": ["town"], "into": "a", "changes": ["uper"]}, "/0/changes/0", "upper"),
        ({"components": ["town"], "into": "a", "if_written": "apend"}, "/0/if_written", "append"),
        ({"fit": {"into": ["a", "a"]}}, "/0/fit/into", "each field once"),
        ({"fit": {"into": ["a"], "components": ["twon"]}}, "/0/fit/components/0", "town"),
        ({"link": {"form": "f"}, "into": "a"}, "/0/link/find", "by which field"),
        (
            {"link": {"form": "f", "find": [{"components": ["town"], "into": "n"}],
                      "more": [{"components": ["region"], "into": "r"}]}, "into": "a"},
            "/0/link/more", "creates: true",
        ),
        (
            {"link": {"form": "f", "find": [{"components": ["twon"], "into": "n"}]}, "into": "a"},
            "/0/link/find/0/components/0", "town",
        ),
    ],
)  # fmt: skip
def test_a_rule_that_cannot_be_is_refused_with_place_and_remedy(rule, pointer, says):
    problems = problems_of([rule])
    assert pointer in problems
    assert says in problems[pointer]


def test_groups_stand_three_deep_at_most():
    deep = ["town"]
    for _ in range(3):
        deep = [{"components": deep}]
    assert list(problems_of([{"components": deep, "into": "a"}])) == [
        "/0/components/0/components/0/components/0"
    ]


EACH = [{"components": [name], "into": f"f_{name}"} for name in COMPONENTS]


@given(ADDRESSES, ADDRESSES)
def test_filling_twice_leaves_no_part_of_the_first_address(first, second):
    before = filled(EACH, address(first)).values
    after = filled(EACH, address(second), before)
    assert after.values == filled(EACH, address(second)).values
    assert set(after.cleared) == {k for k, v in after.values.items() if not v}


@given(ADDRESSES)
def test_filling_is_idempotent(components):
    once = filled(EACH, address(components))
    again = filled(EACH, address(components), once.values)
    assert (again.values, warned(again)) == (once.values, warned(once))


CHANGES = st.lists(st.sampled_from(["upper", "ascii", "shorten", "strip", "title"]), max_size=3)
RULES = st.lists(
    st.fixed_dictionaries(
        {
            "components": st.lists(st.sampled_from(COMPONENTS), min_size=1, max_size=4),
            "into": st.sampled_from("abc"),
            "changes": CHANGES,
            "if_written": st.sampled_from(["append", "instead", "leave"]),
        }
    ),
    max_size=6,
)


@given(RULES, ADDRESSES, st.randoms())
def test_unrelated_rules_commute(rules, components, random):
    """Rules into other fields can stand in any order among themselves."""
    by_field = {key: [rule for rule in rules if rule["into"] == key] for key in "abc"}
    mixed = [key for key, group in by_field.items() for _ in group]
    random.shuffle(mixed)
    left = {key: iter(group) for key, group in by_field.items()}
    shuffled = [next(left[key]) for key in mixed]
    lengths = {"a": 5, "b": 9, "c": 40}
    one = filled(rules, address(components), **lengths)
    other = filled(shuffled, address(components), **lengths)
    assert one.values == other.values
    assert sorted(warned(one)) == sorted(warned(other))


@given(RULES, ADDRESSES)
def test_no_component_is_lost_without_a_warning(rules, components):
    """Each component that a rule takes is found in a field, or a warning speaks of it."""
    plain = [rule | {"changes": []} for rule in rules]
    made = filled(plain, address(components))
    whole = " ".join(made.values.values())
    for name in {name for rule in plain for name in rule["components"]}:
        value = components.get(name, "").strip()
        named = f"({name.replace('_', ' ')}) was left out"
        # A region's name and its code say the same: one of them is enough.
        is_said = HALVES.get(name) in made.carried
        assert value in whole or is_said or any(named in detail for detail in warned(made))
