"""What changes between two documents of a form, in sentences."""

import copy

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anchorline.core.document_changes import finished
from anchorline.core.forms import changes_between
from anchorline.core.forms.conditions import in_words

SLOT = {
    "key": "piano", "label": "Where it stands", "countries": ["GB", "FR"],
    "parts": [{"key": "piano_street", "component": "street"}, {"key": "piano_town", "component": "town"}],
    "mapping": [
        {"components": ["number", "street"], "into": "piano_street"},
        {"components": ["town"], "into": "piano_town"},
    ],
}  # fmt: skip
BASE = {
    "key": "f", "kind": "web", "title": "Visit",
    "fields": [
        {"key": "name", "label": "Name"},
        {"key": "fax", "label": "Fax"},
        {"key": "visit", "type": "choice", "label": "Visit", "options": [{"value": "t", "label": "Tuning"}]},
        {"slot": "piano"},
        {"key": "note", "type": "note", "label": "Mind the stairs"},
    ],
    "slots": [SLOT],
}  # fmt: skip


def said(change, records=None):
    new = copy.deepcopy(BASE)
    change(new)
    return [finished(one, records) for one in changes_between(BASE, new)]


def patch(at, **settings_):
    return lambda d: d["fields"][at].update(settings_)


@pytest.mark.parametrize(
    ("change", "sentences"),
    [
        (lambda _d: None, []),
        (patch(0, required=True), ["“Name” is now required."]),
        (patch(0, label="Your name"), ["“Name” is now called “Your name”."]),
        (patch(0, help="As on the letter"), ["The help of “Name” is now “As on the letter”."]),
        (patch(0, max_length=40), ["The most characters of “Name” is now 40."]),
        (patch(0, type="number"), ["“Name” is now a number; records keep what they have."]),
        (
            patch(0, shown_when='visit = "t"'),
            ["“Name” is now shown only when “Visit” is “Tuning”."],
        ),
        (
            patch(0, required_when="LEN(fax) > 3"),
            ["“Name” is now required when LEN(fax) > 3."],
        ),
        (
            patch(2, options=[{"value": "r", "label": "Repair"}]),
            [
                "“Visit” offers “Repair” too.",
                "“Visit” no longer offers “Tuning”; records keep what they have.",
            ],
        ),
        (
            patch(2, options=[{"value": "t", "label": "A tuning"}]),
            ["The options of “Visit” are called or ordered otherwise."],
        ),
        (
            lambda d: d["fields"].append({"key": "on", "type": "date", "label": "On"}),
            ["“On” is new: a date."],
        ),
        (
            lambda d: d["fields"].insert(0, d["fields"].pop(2)),
            ["“Visit” now stands at the beginning."],
        ),
        (
            lambda d: d["fields"].insert(3, d["fields"].pop(0)),
            ["“Name” now stands after “Where it stands”."],
        ),
        (lambda d: d.update(title="Call"), ["The title is now “Call” instead of “Visit”."]),
        (lambda d: d.update(style="pages"), ["The form is now filled page by page."]),
        (lambda d: d.update(kind="record"), ["The form is now filled by staff only."]),
        (lambda d: d.update(keeps_hidden=True), ["What a condition hides is now kept too."]),
        (
            lambda d: d.update(translations={"de": {"title": "Besuch"}}),
            ["The form can now be read in “de”."],
        ),
        (
            lambda d: d["slots"][0].update(countries=["GB", "DE"]),
            [
                "The address “Where it stands” is now there for DE too.",
                "The address “Where it stands” is no longer there for FR.",
            ],
        ),
        (
            lambda d: d["slots"][0]["mapping"][0].update(components=["street"]),
            [
                "The address “Where it stands” fills street into “Where it stands: street” "
                "otherwise than before."
            ],
        ),
        (
            lambda d: d["slots"][0]["mapping"].pop(),
            ["The address “Where it stands” no longer fills town into “Where it stands: town”."],
        ),
        (
            lambda d: d["slots"][0]["mapping"].reverse(),
            ["The rules of the address “Where it stands” stand in another order."],
        ),
        (
            lambda d: d["slots"][0].update(
                examples=[{"name": "Mill", "components": {"town": "M"}, "values": {}}]
            ),
            ["The address “Where it stands” has the example “Mill”."],
        ),
        (lambda d: d["slots"][0].update(required=False), ["“Where it stands” is no longer required."]),
    ],
)  # fmt: skip
def test_a_change_is_said_in_a_sentence(change, sentences):
    assert said(change) == sentences


def test_a_field_that_goes_leaves_what_records_keep():
    gone = lambda d: d["fields"].pop(1)  # noqa: E731
    assert said(gone, 214) == ["“Fax” is removed: 214 records keep their value."]
    assert said(gone, 1) == ["“Fax” is removed: 1 record keeps its value."]
    assert said(gone, 0) == ["“Fax” is removed."]
    note = changes_between(BASE, {**BASE, "fields": BASE["fields"][:4]})
    assert [(one.detail, one.keeps) for one in note] == [("“Mind the stairs” is removed", None)]


def test_an_address_that_goes_takes_its_parts_along():
    new = {**BASE, "fields": [f for f in BASE["fields"] if "slot" not in f], "slots": []}
    changes = changes_between(BASE, new)
    assert [change.keeps for change in changes] == ["piano", "piano_street", "piano_town"]
    assert changes[0].detail == "The address “Where it stands” is removed"


@settings(max_examples=60, deadline=None)
@given(st.permutations(["name", "fax", "visit", "piano", "note"]))
def test_what_has_moved_is_enough_to_come_from_one_order_to_the_other(order):
    by_key = {f.get("key", f.get("slot")): f for f in BASE["fields"]}
    new = {**BASE, "fields": [by_key[key] for key in order]}
    moved = [change for change in changes_between(BASE, new) if change.kind == "moved"]
    still = [
        key for key in by_key if not any(f"“{_label(by_key, key)}” now" in m.detail for m in moved)
    ]
    assert [key for key in order if key in still] == still


def _label(by_key, key):
    return SLOT["label"] if key == "piano" else by_key[key]["label"]


@pytest.mark.parametrize(
    ("condition", "words"),
    [
        ('visit = "t"', "“Visit” is “Tuning”"),
        ('visit <> "T"', "“Visit” is not “Tuning”"),
        ('visit = "other"', "“Visit” is “other”"),
        ("n >= 2", "“Count” is at least 2"),
        ("n < 2.5", "“Count” is less than 2.5"),
        ("ok", "“Fine” is yes"),
        ("NOT(ok)", "“Fine” is no"),
        ("ok = TRUE()", None),
        ("ISBLANK(n)", "“Count” is empty"),
        ('CHOSEN(visit; "t")', "“Visit” includes “Tuning”"),
        ('AND(ok; OR(n > 1; visit = "t"))', "“Fine” is yes and “Count” is more than 1 or “Visit” is “Tuning”"),
        ("n * 2 > 4", None),
        ("gone > 4", None),
        ("n >", None),
        ("1 = 1", None),
    ],
)  # fmt: skip
def test_simple_conditions_are_said_in_words(condition, words):
    items = {
        "visit": BASE["fields"][2],
        "n": {"key": "n", "type": "number", "label": "Count"},
        "ok": {"key": "ok", "type": "yes_no", "label": "Fine"},
    }
    assert in_words(condition, items) == words
