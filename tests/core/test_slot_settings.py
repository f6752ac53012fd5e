"""What an administrator can say of an address on a form, and what cannot be."""

import pytest

from anchorline.core.errors import DocumentError
from anchorline.core.forms import changes_between, read_form
from anchorline.core.forms.slot_settings import SETTINGS, Near, SlotMap
from anchorline.wire.slots import SlotSchema


def slot(key="home", **settings):
    return {"key": key, "label": key.title(), "countries": ["GB"], **settings}


def document(*slots, fields=()):
    return {
        "key": "f", "kind": "web", "title": "F", "fields": [*fields, *({"slot": s["key"]} for s in slots)],
        "slots": list(slots),
    }  # fmt: skip


def read(layouts, *slots, fields=()):
    return read_form(document(*slots, fields=fields), layouts)


def problems(layouts, *slots, fields=()):
    with pytest.raises(DocumentError) as refused:
        read(layouts, *slots, fields=fields)
    return {problem.pointer: problem.detail for problem in refused.value.problems}


def test_an_address_of_which_nothing_is_said_is_as_it_always_was(layouts):
    settings = read(layouts, slot()).slots[0].settings
    assert (settings.appearance, settings.shown_as) == ("box_and_parts", "parts")
    assert not any(
        (settings.locked, settings.location, settings.map, settings.near, settings.same_as)
    )


def test_one_box_shows_lines_where_nothing_else_is_said(layouts):
    boxes = read(
        layouts, slot(appearance="one_box"), slot("b", appearance="one_box", shown_as="parts")
    )
    assert [one.settings.shown_as for one in boxes.slots] == ["lines", "parts"]


def test_an_address_that_names_no_country_is_there_for_all(layouts):
    entry = slot()
    del entry["countries"]
    assert set(read(layouts, entry).slots[0].countries) == set(layouts.country_codes)


def test_what_is_near_and_what_a_map_follows_is_read(layouts):
    note = {"key": "note", "label": "Note"}
    home, work = read(
        layouts,
        slot(near={"latitude": 51.5, "longitude": -2.8}, map={}),
        slot("work", near={"slot": "home"}, map={"place": "beside", "follows": "note"}),
        fields=[note],
    ).slots
    assert home.settings.near == Near(51.5, -2.8)
    assert work.settings.near == Near(slot="home")
    assert (home.settings.map, work.settings.map) == (SlotMap(), SlotMap("beside", "note"))


@pytest.mark.parametrize(
    ("settings", "place", "detail"),
    [
        ({"appearance": "one_bx"}, "appearance", "Did you mean one_box"),
        ({"same_as": "home"}, "same_as", "always the same as itself"),
        ({"same_as": "wrok"}, "same_as", "Did you mean work"),
        ({"same_as": "work"}, "same_as", "stands after this one"),
        ({"near": {}}, "", ""),
        ({"near": {"latitude": 1}}, "near", "Say one of these"),
        ({"near": {"person": True, "slot": "work"}}, "near", "Say one of these"),
        ({"near": {"slot": "home"}}, "near/slot", "this is the same one"),
        ({"near": {"slot": "wrok"}}, "near/slot", "Did you mean work"),
        ({"map": {"follows": "nte"}}, "map/follows", "Did you mean note"),
        ({"map": {"follows": "count"}}, "map/follows", "only an address, or a field for text"),
        ({"map": {"place": "above"}}, "map/place", "There is no place of a map 'above'"),
        ({"location": True, "appearance": "parts_only"}, "location", "show a box"),
        ({"keeps_position": True}, "keeps_position", "the location is not asked for"),
    ],
)
def test_what_cannot_be_is_refused_at_its_place(layouts, settings, place, detail):
    fields = [{"key": "note", "label": "Note"}, {"key": "count", "label": "N", "type": "number"}]
    if not place:
        assert (
            read(layouts, slot(**settings), slot("work"), fields=fields).slots[0].settings.near
            is None
        )
        return
    found = problems(layouts, slot(**settings), slot("work"), fields=fields)
    assert detail in found[f"/slots/0/{place}"]


def test_every_setting_has_words_for_whoever_publishes():
    plain = {"key", "label", "countries", "country", "kinds", "required", "help", "shown_when",
             "required_when", "parts", "mapping", "examples"}  # fmt: skip
    assert set(SETTINGS) == set(SlotSchema.model_fields) - plain


@pytest.mark.parametrize(
    ("setting", "value", "said"),
    [
        ("appearance", "one_box", "one box, with the parts behind it"),
        ("shown_as", "lines", "its lines"),
        ("locked", True, "yes"),
        ("same_as", "home", "“Home”"),
        ("near", {"slot": "home"}, "the address “Home”"),
        ("near", {"person": True}, "the place where the person is"),
        ("near", {"latitude": 1.5, "longitude": 2}, "the point 1.5, 2"),
        ("map", {"place": "beside"}, "beside the address"),
        ("datasets", ["demo"], "demo"),
        ("language", "ja-Latn", "ja-Latn"),
    ],
)
def test_a_changed_setting_is_said_in_a_sentence(setting, value, said):
    old = document(slot(), slot("work"))
    new = document(slot(), slot("work", **{setting: value}))
    (change,) = changes_between(old, new)
    assert change.pointer == f"/slots/1/{setting}"
    assert change.detail == f"{SETTINGS[setting].title} of “Work”: now {said}."


def test_an_address_without_countries_is_still_called_an_address():
    entry = slot()
    del entry["countries"]
    (added,) = changes_between(document(), document(entry))
    assert added.detail == "“Home” is new: an address."
    (removed,) = changes_between(document(entry), document())
    assert (removed.detail, removed.keeps) == ("The address “Home” is removed", "home")


def test_what_is_said_of_phones_and_of_the_public_page_is_said_in_words():
    old = {**document(), "fields": [{"key": "p", "label": "Phone", "type": "phone"}]}
    new = {**old, "fields": [{**old["fields"][0], "phone": {"first": ["IE", "GB"], "national": True}}],
           "public": {"least_seconds": 0, "closed": True}}  # fmt: skip
    assert {change.pointer: change.detail for change in changes_between(old, new)} == {
        "/public/least_seconds": "The least time between opening and sending, in seconds, is now 0.",
        "/public/closed": "Whether the form is closed is now yes.",
        "/fields/0/phone": "What is said of the numbers of “Phone” is now first: IE, GB, national: yes.",
    }


def test_a_phone_cannot_follow_an_address_that_there_is_not(layouts):
    phone = {"key": "p", "label": "Phone", "type": "phone", "phone": {"slot": "hoem"}}
    assert "Did you mean home" in problems(layouts, slot(), fields=[phone])["/fields/0/phone/slot"]
