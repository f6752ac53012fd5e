"""An earlier version that is still being filled, guarded as the one in force says."""

from anchorline.core.forms import guarded_by, read_form

FORM = {"key": "f", "kind": "web", "title": "F", "fields": [{"key": "name", "label": "Name"}]}


def slot(key, *countries, **more):
    return {"key": key, "label": key, "countries": list(countries), "parts": [], **more}


def both(layouts, before, now):
    return guarded_by(
        read_form({**FORM, **before}, layouts), read_form({**FORM, "fields": [], **now}, layouts)
    )


def test_fields_are_those_that_were_opened_and_the_guards_those_of_now(layouts):
    found = both(layouts, {"public": {"least_seconds": 0}}, {"public": {"closed": True}})
    assert [field.key for field in found.all_fields()] == ["name"]
    assert (found.public.closed, found.public.least_seconds) == (True, 2)


def test_a_form_that_is_for_staff_now_is_no_page_for_everybody(layouts):
    assert both(layouts, {}, {"kind": "record"}).kind == "record"


def test_a_country_that_is_not_served_any_more_is_none_of_an_earlier_version(layouts):
    found = both(
        layouts, {"slots": [slot("home", "GB", "FR", "DE")]}, {"slots": [slot("home", "DE", "GB", "JP")]}
    )  # fmt: skip
    assert found.slot("home").countries == ("GB", "DE")


def test_where_no_country_is_left_those_of_now_are_named(layouts):
    before = {"slots": [slot("home", "GB", "FR", country="GB")]}
    found = both(layouts, before, {"slots": [slot("home", "JP", "AU")]})
    assert found.slot("home").countries == ("JP", "AU")
    assert found.slot("home").only_country is None


def test_an_address_that_is_gone_is_asked_for_as_it_was(layouts):
    found = both(layouts, {"slots": [slot("home", "GB", "FR")]}, {"slots": []})
    assert found.slot("home").countries == ("GB", "FR")
