"""Pages, sections, columns, styles, languages and links on a form, as people fill it."""

import pytest
from playwright.sync_api import expect

from anchorline.client import Client

from .conftest import axe_faults, publish, watched

OPTIONS = [{"value": "m", "label": "Morning"}, {"value": "e", "label": "Evening"}]
FIELDS = [
    {"key": "you", "type": "page", "label": "About you"},
    {"key": "name", "label": "Your name", "required": True, "default": "Ada"},
    {"key": "company", "type": "yes_no", "label": "For a company"},
    {"key": "firm_page", "type": "page", "label": "The company", "shown_when": "company"},
    {"key": "firm", "label": "Its name", "required": True},
    {"key": "when_page", "type": "page", "label": "When"},
    {"key": "hint", "type": "note", "label": "We come on weekdays."},
    {"key": "times", "type": "choices", "label": "Time of day", "options": OPTIONS},
    {"key": "more", "type": "section", "label": "More", "foldable": True, "folded": True, "columns": 2},
    {"key": "floor", "type": "number", "label": "Floor", "least": 0},
    {"key": "lift", "label": "Lift"},
]  # fmt: skip


@pytest.fixture(scope="module")
def shapes(stack):
    """The same form in each style."""
    for style in ("whole", "pages", "questions"):
        document = {"key": f"shape-{style}", "kind": "web", "title": "Shapes", "fields": FIELDS}
        publish(stack, document | {"style": style})


def opened(page, stack, style):
    page.goto(f"{stack.url}/f/shape-{style}")
    page.get_by_role("heading", name="Shapes").wait_for()
    return page


def test_all_at_once_every_page_stands_below_the_other(page, stack, shapes, client):
    opened(page, stack, "whole")
    expect(page.get_by_label("Your name")).to_have_value("Ada")
    expect(page.get_by_role("heading", name="When")).to_be_visible()
    expect(page.get_by_role("heading", name="The company")).to_be_hidden()
    page.get_by_label("For a company").check()
    page.get_by_label("Its name").fill("Felt & Wire")
    page.get_by_label("Evening").check()
    expect(page.get_by_label("Floor")).to_be_hidden()
    page.get_by_text("More").click()
    first, second = (page.get_by_label(name).bounding_box() for name in ("Floor", "Lift"))
    assert first["y"] == second["y"], "two columns"
    page.set_viewport_size({"width": 390, "height": 844})
    first, second = (page.get_by_label(name).bounding_box() for name in ("Floor", "Lift"))
    assert first["y"] < second["y"], "one on a phone"
    assert axe_faults(page) == []
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert record.values == {"name": "Ada", "company": True, "firm": "Felt & Wire", "times": ["e"]}
    assert record.texts["times"] == "Evening"


def test_page_by_page_a_hidden_page_is_passed_over(page, stack, shapes, client):
    opened(page, stack, "pages")
    expect(page.get_by_text("1 of 2")).to_be_visible()
    page.get_by_label("For a company").check()
    expect(page.get_by_text("1 of 3")).to_be_visible()
    page.get_by_label("Your name").press("Enter")
    expect(page.get_by_role("heading", name="The company")).to_be_focused()
    page.get_by_role("button", name="Next").click()
    expect(page.locator(".problem", has_text="This is needed.")).to_be_visible()
    expect(page.get_by_label("Its name")).to_be_focused()
    assert axe_faults(page) == []
    page.get_by_role("button", name="Back").click()
    page.get_by_label("For a company").uncheck()
    page.get_by_role("button", name="Next").click()
    expect(page.get_by_role("heading", name="When")).to_be_visible()
    expect(page.get_by_text("2 of 2")).to_be_visible()
    page.get_by_text("More").click()
    page.get_by_label("Floor").fill("-3")
    page.get_by_role("button", name="Send").click()
    expect(page.locator(".problem", has_text="This is less than 0")).to_be_visible()
    page.get_by_label("Floor").fill("3")
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    assert client.record(page.locator("code").inner_text()).values == {
        "name": "Ada", "company": False, "floor": 3,
    }  # fmt: skip


def test_one_question_at_a_time(page, stack, shapes):
    opened(page, stack, "questions")
    expect(page.get_by_text("1 of 5")).to_be_visible()
    expect(page.get_by_label("For a company")).to_be_hidden()
    page.get_by_label("Your name").fill("")
    page.get_by_role("button", name="Next").click()
    expect(page.locator(".problem", has_text="This is needed.")).to_be_visible()
    page.get_by_label("Your name").fill("Ada")
    page.get_by_role("button", name="Next").click()
    page.get_by_label("For a company").check()
    expect(page.get_by_text("2 of 6")).to_be_visible()
    page.get_by_role("button", name="Next").click()
    page.get_by_label("Its name").fill("Felt & Wire")
    page.get_by_role("button", name="Next").click()
    expect(page.get_by_text("We come on weekdays.")).to_be_visible()
    expect(page.get_by_role("group", name="Time of day")).to_be_visible()
    assert axe_faults(page) == []
    page.get_by_role("button", name="Back").click()
    expect(page.get_by_label("Its name")).to_have_value("Felt & Wire")


@pytest.fixture(scope="module")
def several(stack):
    """A form in three languages."""
    translations = {
        "de": {"title": "Besuch", "items": {"name": {"label": "Name"}}},
        "ar": {"title": "زيارة", "items": {"name": {"label": "الاسم"}}},
    }
    fields = [{"key": "name", "label": "Your name", "required": True}]
    document = {"key": "several", "kind": "web", "title": "Visit", "fields": fields}
    publish(stack, document | {"translations": translations})


@pytest.mark.parametrize(
    ("locale", "title", "send", "direction"),
    [
        ("de-AT", "Besuch", "Absenden", "ltr"),
        ("ar-EG", "زيارة", "إرسال", "rtl"),
        ("pl-PL", "Visit", "Send", "ltr"),
    ],
)
def test_a_page_is_in_the_best_language_that_it_has(
    browser, stack, several, locale, title, send, direction
):
    context = browser.new_context(locale=locale, viewport={"width": 390, "height": 844})
    page = watched(context)
    page.goto(f"{stack.url}/f/several")
    expect(page.get_by_role("heading", name=title)).to_be_visible()
    expect(page.get_by_role("button", name=send)).to_be_visible()
    form = page.locator(".form")
    assert form.evaluate("e => getComputedStyle(e).direction") == direction
    assert axe_faults(page) == []
    assert page.faults == []
    context.close()


def test_another_language_can_be_chosen_and_what_was_typed_stays(page, stack, several, client):
    page.goto(f"{stack.url}/f/several")
    page.get_by_label("Your name").fill("Ada Quill")
    page.get_by_label("Language").select_option("Deutsch")
    expect(page.get_by_role("heading", name="Besuch")).to_be_visible()
    expect(page.get_by_label("Name (erforderlich)")).to_have_value("Ada Quill")
    page.get_by_label("Name (erforderlich)").fill("")
    page.get_by_role("button", name="Absenden").click()
    expect(page.locator(".problem", has_text="Diese Angabe ist erforderlich.")).to_be_visible()
    page.get_by_label("Name (erforderlich)").fill("Ada Quill")
    page.get_by_role("button", name="Absenden").click()
    page.get_by_role("heading", name="Vielen Dank").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert (record.language, record.values) == ("de", {"name": "Ada Quill"})


@pytest.fixture(scope="module")
def linked(stack):
    """A form that links to records of another one."""
    town = {"key": "town", "label": "Town"}
    publish(stack, {"key": "halls", "kind": "record", "title": "Halls", "fields": [town]})
    link = {
        "key": "hall",
        "type": "link",
        "label": "Hall",
        "form": "halls",
        "shows": "town",
        "open_to_all": True,
    }
    publish(stack, {"key": "concert", "kind": "web", "title": "Concert", "fields": [link]})
    with Client(stack.url, stack.access["server_key"]) as client:
        return {name: client.submit("halls", {"town": name}).id for name in ("Marlwick", "Marsh")}


def test_a_record_of_another_form_is_found_and_chosen_by_keyboard(page, stack, linked, client):
    page.goto(f"{stack.url}/f/concert")
    box = page.get_by_role("combobox", name="Hall")
    box.fill("mar")
    expect(page.get_by_role("option")).to_have_count(2)
    expect(box).to_have_attribute("aria-expanded", "true")
    assert axe_faults(page) == []
    box.press("ArrowDown")
    box.press("ArrowDown")
    expect(box).to_have_attribute("aria-activedescendant", "hall:list-1")
    box.press("Enter")
    expect(box).to_have_value("Marsh")
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert (record.values, record.texts) == ({"hall": linked["Marsh"]}, {"hall": "Marsh"})


def test_what_is_typed_and_not_chosen_is_no_link(page, stack, linked):
    page.goto(f"{stack.url}/f/concert")
    box = page.get_by_role("combobox", name="Hall")
    box.fill("nowhere")
    expect(page.get_by_text("None found.")).to_be_visible()
    box.press("Escape")
    box.blur()
    expect(box).to_have_value("")
