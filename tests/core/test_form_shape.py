"""Pages, sections, choices of several, defaults, translations: what a form document can say."""

import pytest

from anchorline.core.errors import DocumentError
from anchorline.core.forms import (
    SlotInput,
    check_submission,
    languages_of,
    read_form,
    read_unfinished,
    text_of,
    work_out,
)

OPTIONS = [{"value": "tuning", "label": "Tuning"}, {"value": "repair", "label": "Repair"}]


def document(*fields, **whole):
    return {"key": "f", "kind": "web", "title": "F", "fields": list(fields), **whole}


def field(key, type_="text", **settings):
    return {"key": key, "type": type_, "label": key.title(), **settings}


def problems(layouts, *fields, **whole):
    with pytest.raises(DocumentError) as caught:
        read_form(document(*fields, **whole), layouts)
    return [(problem.pointer, problem.detail) for problem in caught.value.problems]


def sent(form, typed, layouts, inputs=None):
    return check_submission(form, typed, inputs or {}, layouts, lambda _id: None, 0)


def test_everything_stands_in_its_page_and_section(layouts):
    slot = {"key": "s", "label": "S", "countries": ["GB"], "parts": [field("s_street")]}
    form = read_form(
        document(
            field("first"),
            field("p", "page"),
            field("a"),
            field("sec", "section"),
            {"slot": "s"},
            field("q", "page"),
            field("b"),
            slots=[slot],
        ),
        layouts,
    )
    within = {key: form.within(key) for key in form.order}
    assert within == {
        "first": (), "p": (), "a": ("p",), "sec": ("p",), "s": ("p", "sec"),
        "s_street": ("p", "sec", "s"), "q": (), "b": ("q",),
    }  # fmt: skip


def test_what_stands_in_a_hidden_section_is_hidden_and_not_needed(layouts):
    form = read_form(
        document(
            field("more", "yes_no"),
            field("sec", "section", shown_when="more"),
            field("why", required=True),
            field("p", "page"),
            field("last"),
        ),
        layouts,
    )
    assert work_out(form, {}, {}, 0).shown == {"more", "p", "last"}
    assert work_out(form, {"more": True}, {}, 0).needed == {"why"}


@pytest.mark.parametrize(
    ("fields", "pointer"),
    [
        ([field("a", shown_when="b"), field("p", "page"), field("b", "yes_no")], "/fields/0/shown_when"),
        ([field("a", required_when="b = \"x\""), field("p", "page"), field("b")], "/fields/0/required_when"),
        (
            [field("a", shown_when="sum > 1"), field("sum", "formula", formula="n * 2"),
             field("p", "page"), field("n", "number")],
            "/fields/0/shown_when",
        ),
    ],
)  # fmt: skip
def test_a_condition_on_something_of_a_later_page_is_refused(layouts, fields, pointer):
    ((found, detail),) = problems(layouts, *fields)
    assert found == pointer
    assert "which is filled on a later page" in detail


def test_a_condition_on_something_of_the_same_page_or_an_earlier_one_is_fine(layouts):
    fields = [field("a", "yes_no"), field("p", "page"), field("b", shown_when="a"),
              field("c", "yes_no"), field("d", shown_when="c")]  # fmt: skip
    assert read_form(document(*fields), layouts)


def test_a_page_that_asks_for_what_stands_on_it_goes_in_a_circle(layouts):
    ((pointer, detail),) = problems(
        layouts, field("p", "page", shown_when="a"), field("a", "yes_no")
    )
    assert pointer == "/fields/0/shown_when"
    assert "These depend on each other" in detail


@pytest.mark.parametrize("columns", [0, 3])
def test_there_are_one_or_two_columns(layouts, columns):
    ((pointer, detail),) = problems(layouts, field("s", "section", columns=columns))
    assert (pointer, "one or two columns" in detail) == ("/fields/0/columns", True)


def test_several_choices_are_kept_as_the_form_offers_them(layouts):
    form = read_form(document(field("kinds", "choices", options=OPTIONS)), layouts)
    kept = sent(form, {"kinds": ["repair", "tuning", "repair"]}, layouts)
    assert kept.values == {"kinds": ["tuning", "repair"]}
    assert text_of(form.field("kinds"), kept.values["kinds"]) == "Tuning, Repair"
    assert sent(form, {"kinds": []}, layouts).values == {}
    assert sent(form, {"kinds": "tuning"}, layouts).values == {"kinds": ["tuning"]}


@pytest.mark.parametrize(
    ("given", "said"),
    [
        (["tunning"], "Did you mean tuning?"),
        ([1], "Give a list of the options"),
        (5, "Give a list of the options"),
        ({}, "Give a list of the options"),
    ],
)
def test_what_is_no_choice_is_said(layouts, given, said):
    form = read_form(document(field("kinds", "choices", options=OPTIONS)), layouts)
    (problem,) = sent(form, {"kinds": given}, layouts).problems
    assert problem.pointer == "/values/kinds"
    assert said in problem.detail


def test_options_of_a_choice_of_several_have_no_commas(layouts):
    found = problems(layouts, field("k", "choices", options=[{"value": "a, b"}]))
    assert found[0][0] == "/fields/0/options"
    assert "take the comma out" in found[0][1]
    assert "at least one option" in problems(layouts, field("k", "choices"))[0][1]


@pytest.mark.parametrize(
    ("entry", "default"),
    [
        (field("a", default="x"), "x"),
        (field("n", "number", default="12"), 12),
        (field("d", "date", default="2026-03-01"), "2026-03-01"),
        (field("c", "choice", options=OPTIONS, default="repair"), "repair"),
        (field("k", "choices", options=OPTIONS, default=["repair"]), ["repair"]),
        (field("y", "yes_no", default=True), True),
        (field("h", "hidden", default="kept"), "kept"),
        (field("a"), None),
    ],
)
def test_what_stands_in_a_field_at_first_is_as_it_is_kept(layouts, entry, default):
    assert read_form(document(entry), layouts).field(entry["key"]).default == default


@pytest.mark.parametrize(
    ("entry", "said"),
    [
        (field("n", "number", default="x"), "is not a number"),
        (field("n", "number", most=5, default=6), "more than 5"),
        (field("c", "choice", options=OPTIONS, default="other"), "no choice"),
        (field("a", "consent", default=True), "nothing can stand in a consent at first"),
        (field("f", "formula", formula="1", default="1"), "nothing can stand in a formula"),
        (field("h", "heading", default="x"), "nothing can stand in a heading"),
    ],
)
def test_what_cannot_stand_in_a_field_is_said(layouts, entry, said):
    ((pointer, detail),) = problems(layouts, entry)
    assert pointer == "/fields/0/default"
    assert said in detail


def test_a_form_keeps_what_is_hidden_where_it_says_so(layouts):
    slot = {"key": "s", "label": "S", "countries": ["GB"], "shown_when": "more",
            "parts": [{"key": "s_town", "component": "town"}]}  # fmt: skip
    fields = [
        field("more", "yes_no"),
        field("why", shown_when="more", required=True),
        {"slot": "s"},
    ]
    typed = {"why": "because", "s_town": "Brackwater"}
    inputs = {"s": SlotInput("GB")}
    usual = sent(read_form(document(*fields, slots=[slot]), layouts), typed, layouts, inputs)
    assert (usual.values, usual.captured, usual.problems) == ({}, [], [])
    keeping = read_form(document(*fields, slots=[slot], keeps_hidden=True), layouts)
    kept = sent(keeping, typed, layouts, inputs)
    assert (kept.values, kept.problems) == (typed, [])
    assert [address.components["town"] for address in kept.captured] == ["Brackwater"]
    assert sent(keeping, {}, layouts).problems == [], "nobody needs to fill what is hidden"


def test_translations_speak_of_what_is_on_the_form(layouts):
    translations = {
        "de": {"items": {"nme": {"label": "Name"}, "kinds": {"options": {"tunig": "Stimmen"}}}},
        "en": {"title": "Form"},
    }
    fields = [field("name"), field("kinds", "choices", options=OPTIONS)]
    assert problems(layouts, *fields, translations=translations) == [
        ("/translations/de/items/nme", "There is no field or slot 'nme'. Did you mean name?"),
        (
            "/translations/de/items/kinds/options/tunig",
            "There is no option 'tunig'. Did you mean tuning?",
        ),
        ("/translations/en", "This is the form's own language: no translation is needed."),
    ]


def test_the_languages_of_a_form_begin_with_its_own():
    assert languages_of(document()) == ["en"]
    assert languages_of(document(language="de", translations={"fr": {}, "en": {}})) == [
        "de", "fr", "en",
    ]  # fmt: skip


def test_an_unfinished_form_is_read_as_far_as_it_can_be(layouts):
    slot = {
        "key": "s", "label": "S", "countries": ["GB", "XX"],
        "parts": [{"key": "s_town", "component": "town"}],
        "mapping": [
            {"components": ["town"], "into": "s_town"},
            {"components": ["town"], "into": "gone"},
            {"components": ["twn"], "into": "s_town"},
            {"components": ["town"], "into": "s_town", "changes": ["louder"]},
        ],
    }  # fmt: skip
    form, found = read_unfinished(
        document(
            field("c", "choice"),
            field("a", "txet"),
            field("f", "formula", formula="a + gone"),
            field("g", "formula", formula="1 + 1"),
            slots=[slot],
        ),
        layouts,
    )
    assert {problem.pointer for problem in found} == {
        "/fields/0/options", "/fields/1/type", "/fields/2/formula", "/slots/0/countries/1",
        "/slots/0/mapping/1/into", "/slots/0/mapping/2/components/0", "/slots/0/mapping/3/changes/0",
    }  # fmt: skip
    assert form.slots[0].countries == ("GB",)
    assert [rule.into for rule in form.slots[0].mapping] == [("s_town",)]
    assert (form.field("f").formula, form.field("g").formula is not None) == (None, True)


def test_keys_that_clash_are_said_and_no_formula_is_guessed(layouts):
    form, found = read_unfinished(document(field("a"), field("a", shown_when="a")), layouts)
    assert [problem.detail for problem in found] == [
        "The key 'a' is used 2 times; keys must differ."
    ]
    assert form.field("a").shown_when is None
