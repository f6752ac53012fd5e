"""Administrators' own layouts: laid over the shipped ones, reviewed, in conflict with newer ones."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.address import COMPONENTS
from anchorline.core.layouts import LayoutLibrary, shipped_layouts, write_lines, written_line
from anchorline.core.layouts.notation import read_line
from anchorline.core.layouts.own import (
    LayoutsInForce,
    Published,
    base_of,
    conflicts,
    derive,
    differences,
    effective,
    read_own_layout,
    review,
)

SHIPPED = shipped_layouts()
FR = SHIPPED.require("FR")
NOTE = {"extra": "delivery_note", "label": {"en": "Delivery note"}, "after": "town"}


def own(*, problems=(), **document):
    """The own layout of a document, which has just these places that cannot be read."""
    base = {"key": "letters", "title": "Letters", "countries": ["FR", "BE"]}
    read, found = read_own_layout({**base, **document}, SHIPPED)
    assert [p.pointer for p in found] == list(problems), found
    return read


def components(layout):
    return [a.component for a in layout.components]


def written(layout, script=""):
    return list(map(written_line, layout.lines[script]))


def in_force(*layouts):
    return LayoutsInForce(SHIPPED, [Published(layout, 1) for layout in layouts])


# What a derived layout is


def test_what_is_not_named_stays_as_shipped():
    layout = derive(FR, own(ask=[{"component": "postcode", "label": {"en": "Code"}}]))
    assert layout.component("postcode").labels == {"en": "Code", "fr": "Code postal"}
    assert layout.component("postcode").required
    assert components(layout) == components(FR)
    assert layout.lines == FR.lines
    assert layout.masks == FR.masks


def test_hidden_components_are_not_asked_for_and_still_written():
    layout = derive(FR, own(ask=[{"component": "district", "hidden": True}]))
    assert "district" not in components(layout)
    assert layout.hidden == ("district",)
    assert write_lines(layout, {"district": "Le Moulin"}) == ["Le Moulin"]


@pytest.mark.parametrize(
    ("place", "expected"),
    [
        ({"first": True}, ["town", "organisation"]),
        ({"after": "organisation"}, ["organisation", "town", "unit"]),
    ],
)
def test_a_component_is_asked_for_elsewhere(place, expected):
    layout = derive(FR, own(ask=[{"component": "town", **place}]))
    assert components(layout)[: len(expected)] == expected
    assert sorted(components(layout)) == sorted(components(FR))


def test_an_extra_is_asked_for_written_and_checked_like_a_component():
    layout = derive(FR, own(ask=[NOTE], lines=[{"add": "delivery_note", "after": "organisation"}]))
    assert components(layout)[-1] == "delivery_note"
    assert layout.extras == {"delivery_note"}
    given = {"organisation": "Vale", "street": "Rue A", "delivery_note": "Ring twice"}
    assert write_lines(layout, given) == ["Vale", "Ring twice", "Rue A"]


def test_a_component_that_is_not_asked_for_is_added_with_its_usual_labels():
    layout = derive(FR, own(ask=[{"component": "recipient", "add": True, "first": True}]))
    assert components(layout)[0] == "recipient"
    assert layout.component("recipient").labels == {"en": "Name", "fr": "Nom"}


def test_a_label_for_what_one_country_lacks_does_not_add_it_there():
    letters = own(ask=[{"component": "district", "label": {"en": "Hamlet"}}])
    assert derive(FR, letters).component("district").labels["en"] == "Hamlet"
    assert derive(SHIPPED.require("BE"), letters).component("district") is None


def test_lines_are_added_changed_and_dropped():
    layout = derive(
        FR,
        own(
            lines=[
                {"add": "region", "after": "postcode TOWN"},
                {"change": "number street", "to": "number, street"},
                {"drop": "place"},
                {"add": "recipient", "first": True},
                {"add": "nation"},
            ]
        ),
    )
    assert written(layout)[0] == "recipient"
    assert written(layout)[-3:] == ["postcode TOWN", "region", "nation"]
    assert "number, street" in written(layout)
    assert "place" not in written(layout)


def test_a_line_that_another_change_added_can_be_followed():
    layout = derive(
        FR,
        own(lines=[{"add": "region", "after": "district"}, {"add": "nation", "after": "region"}]),
    )
    at = written(layout).index("region")
    assert written(layout)[at - 1 : at + 2] == ["district", "region", "nation"]


def test_lines_of_another_script_are_changed_alone():
    japan = SHIPPED.require("JP")
    drop = {"drop": written(japan, "Jpan")[0], "script": "Jpan"}
    layout = derive(japan, own(countries=["JP"], lines=[drop]))
    assert written(layout, "Jpan") == written(japan, "Jpan")[1:]
    assert written(layout) == written(japan)


LABELS = st.dictionaries(st.sampled_from(["en", "fr", "nl"]), st.text("ab", min_size=1))
ASK = st.lists(
    st.fixed_dictionaries(
        {"component": st.sampled_from([a for a in COMPONENTS if "country" not in a])},
        optional={
            "label": LABELS,
            "required": st.booleans(),
            "add": st.booleans(),
            "first": st.booleans(),
            "after": st.sampled_from(COMPONENTS),
            "hidden": st.booleans(),
        },
    ),
    max_size=5,
)


@given(ASK, st.sampled_from(sorted(layout.country_code for layout in SHIPPED)))
def test_whatever_is_changed_each_component_is_asked_for_once_and_nothing_else_is_lost(ask, code):
    letters, _problems = read_own_layout(
        {"key": "k", "title": "T", "countries": [code], "ask": ask}, SHIPPED
    )
    shipped = SHIPPED.require(code)
    layout = derive(shipped, letters)
    names = components(layout)
    assert len(names) == len(set(names))
    named = {change.component for change in letters.ask}
    assert [n for n in names if n not in named] == [
        n for n in components(shipped) if n not in named
    ]
    hidden = {change.component for change in letters.ask if change.hidden}
    assert not hidden & set(names)


# Which layout holds


def test_a_forms_own_layout_speaks_before_the_one_for_everywhere_and_that_before_the_shipped():
    everywhere = own(
        key="all",
        ask=[
            {"component": "town", "label": {"en": "City"}},
            {"component": "postcode", "label": {"en": "Post code"}},
        ],
    )
    of_form = own(
        key="visit", forms=["visit"], ask=[{"component": "town", "label": {"en": "Place"}}]
    )
    layouts = in_force(of_form, everywhere)

    def labels(form):
        layout = layouts.on_form(form).require("FR")
        return [layout.component(name).label("en") for name in ("town", "postcode", "street")]

    assert labels("visit") == ["Place", "Post code", "Street"]
    assert labels("another") == labels(None) == ["City", "Post code", "Street"]
    steps = layouts.on_form("visit").require("FR").own
    assert [(step.key, step.of_form) for step in steps] == [("visit", True), ("all", False)]
    assert layouts.on_form("visit").require("FR").stamp == "visit@1 + all@1"
    assert layouts.on_form("visit").require("DE") is SHIPPED.require("DE")


def test_a_form_asks_again_for_what_is_hidden_everywhere_else_as_it_is_called_there():
    hides = own(key="all", ask=[{"component": "district", "hidden": True}])
    shows = own(key="one", forms=["f"], ask=[{"component": "district", "add": True}])
    layout = in_force(hides, shows).on_form("f").require("FR")
    assert layout.component("district") == FR.component("district")
    assert layout.hidden == ()


# What cannot be read, and what cannot be published


@pytest.mark.parametrize(
    ("document", "pointer", "said"),
    [
        ({"countries": ["QQ"]}, "/countries/0", "no country code 'QQ'"),
        ({"ask": [{"component": "postcod"}]}, "/ask/0/component", "Did you mean postcode"),
        ({"ask": [{"component": "country"}]}, "/ask/0/component", "no component to ask for"),
        ({"ask": [{"extra": "town", "label": {"en": "T"}}]}, "/ask/0/extra", "is a component"),
        ({"ask": [{"extra": "Note 1", "label": {"en": "N"}}]}, "/ask/0/extra", "small letters"),
        ({"ask": [{"extra": "note"}]}, "/ask/0/label", "label in English"),
        ({"ask": [{}]}, "/ask/0", "either a component"),
        ({"ask": [{"component": "town"}] * 2}, "/ask/1", "entry above"),
        ({"ask": [{"component": "town", "label": {"??": "x"}}]}, "/ask/0/label", "language tag"),
        (
            {"ask": [{"component": "town", "hidden": True, "required": True}]},
            "/ask/0/hidden",
            "nobody could ever give it",
        ),
        ({"ask": [{"component": "town", "first": True, "after": "street"}]}, "/ask/0/after", "not"),
        ({"ask": [{"component": "town", "after": "town"}]}, "/ask/0/after", "after itself"),
        ({"lines": [{"add": "strete"}]}, "/lines/0/add", "character 1 of 'strete'"),
        ({"lines": [{"change": "street", "to": "[x"}]}, "/lines/0/to", "character 2"),
        ({"lines": [{"change": "street"}]}, "/lines/0", "what it becomes"),
        ({"lines": [{"drop": "street", "first": True}]}, "/lines/0", "Only an added line"),
        ({"lines": [{"add": "town", "drop": "town"}]}, "/lines/0", "one of"),
    ],
)
def test_what_cannot_be_read_is_named_with_its_place(document, pointer, said):
    base = {"key": "k", "title": "T", "countries": ["FR"]}
    _own, problems = read_own_layout({**base, **document}, SHIPPED)
    assert [p.pointer for p in problems] == [pointer]
    assert said in problems[0].detail


@pytest.mark.parametrize(
    ("document", "pointer", "said"),
    [
        ({}, "/ask", "changes nothing"),
        (
            {"ask": [{"component": "town", "hidden": True}]},
            "/ask/0/hidden",
            "France or Belgium requires town",
        ),
        (
            {"ask": [{"component": "region", "label": {"en": "R"}}]},
            "/ask/0/component",
            "say add: true",
        ),
        (
            {"ask": [{"component": "town", "after": "streeet"}]},
            "/ask/0/after",
            "Did you mean street",
        ),
        ({"lines": [{"drop": "number, street"}]}, "/lines/0/drop", "Did you mean 'number street'"),
        ({"lines": [{"add": "region", "after": "nation"}]}, "/lines/0/after", "no line 'nation'"),
        ({"lines": [{"drop": "place", "script": "Jpan"}]}, "/lines/0/script", "no lines of its"),
    ],
)
def test_what_would_have_no_effect_or_could_never_be_given_is_refused(document, pointer, said):
    problems = review(own(**document), in_force())
    assert [p.pointer for p in problems] == [pointer], problems
    assert said in problems[0].detail


def test_what_may_be_left_out_can_be_hidden():
    assert (
        review(own(ask=[{"component": "town", "hidden": True, "required": False}]), in_force())
        == []
    )


def test_what_no_country_asks_for_may_be_hidden_for_good():
    letters = own(ask=[{"component": "region", "hidden": True}])
    assert review(letters, in_force()) == []
    assert differences(FR, derive(FR, letters))[0].detail == (
        "region stays hidden, also if a newer shipped layout asks for it."
    )


def test_two_own_layouts_for_one_place_are_refused():
    change = [{"component": "town", "label": {"en": "City"}}]
    taken = in_force(own(key="a", ask=change), own(key="b", forms=["x", "y"], ask=change))
    said = [p.detail for p in review(own(key="c", countries=["BE"], ask=change), taken)]
    assert said == ["Letters (a) is already there for BE. Change that one instead."]
    on_form = own(key="c", countries=["BE"], forms=["y", "z"], ask=change)
    assert "already there for BE on y" in review(on_form, taken)[0].detail
    assert review(own(key="c", forms=["z"], ask=change), taken) == []
    assert review(own(key="a", ask=change), taken) == []


# What it changes, in sentences


def test_differences_are_said_in_sentences():
    letters = own(
        ask=[
            {"component": "postcode", "label": {"en": "Code", "ca": "Codi"}, "required": False},
            {"component": "district", "hidden": True},
            {"component": "town", "first": True},
            NOTE,
        ],
        lines=[
            {"change": "number street", "to": "number, street"},
            {"drop": "place"},
            {"add": "delivery_note"},
        ],
    )
    assert [d.detail for d in differences(FR, effective(letters, in_force(), "FR"))] == [
        "Locality (lieu-dit) is no longer asked for.",
        "Delivery note is asked for as well.",
        "postcode is called “Code” in English instead of “Postcode”.",
        "postcode is called “Codi” in Catalan.",
        "Code may be left out.",
        "Town is asked for first.",
        "The line “place” is no longer written.",
        "The line “number street” becomes “number, street”.",
        "The line “delivery_note” is written as well.",
    ]


def test_nothing_differs_from_itself():
    for layout in SHIPPED:
        assert differences(layout, layout) == []


# Newer shipped layouts


def newer(**changes):
    """The shipped layouts, with France's replaced."""
    return LayoutLibrary(
        replace(layout, **changes) if layout is FR else layout for layout in SHIPPED
    )


def relabelled(component, label, *, required=True):
    return tuple(
        replace(a, labels={**a.labels, "en": label}, required=required)
        if a.component == component
        else a
        for a in FR.components
    )


def test_what_a_newer_release_says_about_other_things_comes_through():
    letters = own(ask=[{"component": "town", "label": {"en": "City"}}])
    library = newer(components=relabelled("postcode", "Post code"))
    assert conflicts(letters, base_of(letters, SHIPPED), library) == []
    layout = LayoutsInForce(library, [Published(letters, 1)]).everywhere.require("FR")
    assert [layout.component(c).label("en") for c in ("town", "postcode")] == ["City", "Post code"]


def test_what_it_says_about_the_same_thing_is_a_conflict_and_the_own_layout_holds():
    letters = own(ask=[{"component": "town", "label": {"en": "City"}, "required": True}])
    library = newer(components=relabelled("town", "Commune", required=False))
    found = conflicts(letters, base_of(letters, SHIPPED), library)
    assert [(c.country_code, c.pointer, c.was, c.now) for c in found] == [
        ("FR", "/ask/0", "Town", "Commune"),
        ("FR", "/ask/0", "", ""),
    ]
    assert found[1].detail == "The shipped layout of FR no longer requires town."
    layout = LayoutsInForce(library, [Published(letters, 1)]).everywhere.require("FR")
    assert layout.component("town").label("en") == "City"
    assert conflicts(letters, base_of(letters, library), library) == []


def test_a_changed_line_that_ships_otherwise_now_is_a_conflict_and_the_shipped_one_is_written():
    letters = own(lines=[{"change": "number street", "to": "number, street"}, {"drop": "place"}])
    lines = tuple(
        read_line("street number") if written_line(line) == "number street" else line
        for line in FR.lines[""]
    )
    library = newer(lines={"": lines})
    [found] = conflicts(letters, base_of(letters, SHIPPED), library)
    assert (found.pointer, found.was, found.now) == ("/lines/0", "number street", "street number")
    layout = derive(library.require("FR"), letters)
    assert "street number" in written(layout)
    assert "place" not in written(layout)


def test_a_component_that_ships_no_longer_is_a_conflict():
    letters = own(ask=[{"component": "district", "label": {"en": "Hamlet"}}])
    library = newer(components=tuple(a for a in FR.components if a.component != "district"))
    [found] = conflicts(letters, base_of(letters, SHIPPED), library)
    assert found.detail == "The shipped layout of FR no longer asks for it: district."
