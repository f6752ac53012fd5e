"""Ways through the console: typing fast, going back, unsaved edits, the focus, a phone."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from anchorline.client import OwnLayoutDocument

from .conftest import axe_faults, signed_in
from .designer import Designer


def focused(page) -> str:
    """What has the focus: its name, its text, or its tag."""
    return page.evaluate(
        "() => { const e = document.activeElement; return e.getAttribute('aria-label') "
        "|| e.id || e.innerText.slice(0, 40) || e.tagName; }"
    )


@pytest.mark.parametrize(
    ("place", "label"),
    [("search", "Search text"), ("layouts", "Name or code of a country"),
     ("records", "Search the records")],
)  # fmt: skip
def test_no_letter_is_lost_however_fast_somebody_types(console, stack, place, label):
    page = console
    page.goto(f"{stack.url}/console/{place}")
    box = page.get_by_label(label)
    box.click()
    text = "abcdefghijklmnopqrstuvwxyz 0123456789"
    for start in range(0, len(text), 3):
        page.keyboard.type(text[start : start + 3])
        page.wait_for_timeout(40)
    expect(box).to_have_value(text)
    page.wait_for_timeout(700)
    expect(box).to_have_value(text)
    assert "abcdefghijklmnopqrstuvwxyz" in page.url


def test_a_search_keeps_its_text_after_going_back(console, stack, client):
    page = console
    page.goto(f"{stack.url}/console/records")
    page.get_by_label("Search the records").fill("felt")
    page.wait_for_url(re.compile("search=felt"))
    expect(page.locator("tbody a").first).to_contain_text("Felt")
    page.locator("tbody a").first.click()
    page.wait_for_url(re.compile("/records/r"))
    page.go_back()
    expect(page.get_by_label("Search the records")).to_have_value("felt")
    expect(page.locator("tbody a").first).to_contain_text("Felt")


@pytest.fixture
def edited(console, stack):
    """The rules of a dataset with an edit that is not saved."""
    page = console
    page.goto(f"{stack.url}/console/data/demo")
    page.get_by_label("Other editions kept").fill("9")
    return page


def test_leaving_with_unsaved_edits_asks_and_staying_keeps_them(edited):
    page = edited
    page.get_by_role("link", name="Records", exact=True).click()
    page.locator(".ant-modal-confirm-title").wait_for()
    page.get_by_role("button", name="Stay here").click()
    expect(page.get_by_label("Other editions kept")).to_have_value("9")
    page.get_by_role("button", name="Sign out").click()
    page.get_by_role("button", name="Stay here").click()
    page.get_by_role("link", name="Records", exact=True).click()
    page.get_by_role("button", name="Leave, lose the changes").click()
    page.get_by_role("heading", name="Records").wait_for()
    page.go_back()
    expect(page.get_by_label("Other editions kept")).not_to_have_value("9")


def test_reloading_with_unsaved_edits_asks(edited):
    page = edited
    asked = []

    def stay(dialog):
        asked.append(dialog.type)
        dialog.accept()

    page.on("dialog", stay)
    page.reload()
    assert asked == ["beforeunload"]


def test_discarded_edits_let_one_go(edited):
    page = edited
    page.get_by_role("button", name="Discard changes").click()
    page.get_by_role("link", name="Records", exact=True).click()
    page.get_by_role("heading", name="Records").wait_for()
    expect(page.get_by_text("Leave without saving?")).to_have_count(0)


def test_the_focus_never_falls_to_the_body(console, stack):
    page = console
    assert focused(page) != "BODY", "after signing in"
    page.get_by_role("link", name="Forms", exact=True).click()
    page.get_by_role("heading", name="Forms", exact=True).wait_for()
    assert focused(page) != "BODY"
    form = Designer(page)
    page.goto(f"{stack.url}/console/forms/venue")
    form.outline.locator(".outline-name").first.click()
    assert focused(page) not in ("BODY", ""), "after choosing something"
    form.settings.get_by_role("button", name="Duplicate").click()
    form.settings.get_by_role("button", name="Remove").click()
    form.kept()
    assert focused(page) not in ("BODY", ""), "after removing it"


def test_on_a_phone_the_menu_opens_names_itself_and_closes(phone, stack):
    page = signed_in(phone, stack)
    links = page.get_by_role("link", name="Country layouts")
    expect(links, "closed, its links are no tab stops").to_have_count(0)
    title = page.get_by_role("heading", level=1)
    opener = page.get_by_role("button", name="Menu")
    box, head = opener.bounding_box(), title.bounding_box()
    assert box["y"] + box["height"] <= head["y"], "the opener covers the title"
    opener.focus()
    page.keyboard.press("Enter")
    links.wait_for()
    page.keyboard.press("Escape")
    expect(links).to_have_count(0)
    expect(opener).to_be_focused()
    opener.tap()
    links.tap()
    page.get_by_role("heading", name="Country layouts").wait_for()
    expect(links).to_have_count(0)
    assert axe_faults(page) == []


@pytest.mark.parametrize(
    "place",
    [
        "forms/supplier",
        "layouts/US",
        "records",
        "data",
        "search",
        "targets/new",
        "activity",
        "activity?view=calls",
    ],
)
def test_on_a_phone_every_page_fits(phone, stack, place):
    page = signed_in(phone, stack)
    page.goto(f"{stack.url}/console/{place}")
    page.locator("h1").wait_for()
    page.wait_for_timeout(400)
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_on_a_phone_all_of_a_rule_is_in_sight(phone, stack):
    page = signed_in(phone, stack)
    page.goto(f"{stack.url}/console/forms/supplier")
    Designer(page).select("Office")
    page.get_by_role("button", name="Where each part goes").tap()
    for name in ("Add a part to rule 2;", "Add a change to rule 2", "Field of rule 2"):
        box = page.get_by_label(name).first.bounding_box()
        assert box["x"] >= 0
        assert box["x"] + box["width"] <= 390
    last = page.get_by_role("button", name="Remove rule 2", exact=True).bounding_box()
    assert last["x"] + last["width"] <= 390


def test_on_a_phone_an_own_layout_fits(phone, stack, client):
    client.own_layouts.put_draft(
        OwnLayoutDocument(key="narrow", title="Narrow", countries=["US", "FR"])
    )
    page = signed_in(phone, stack)
    page.goto(f"{stack.url}/console/layouts/own/narrow")
    page.get_by_text("What is asked for").first.wait_for()
    page.wait_for_timeout(400)
    widest = page.evaluate(
        "Math.max(...[...document.querySelectorAll('#main *')].filter(e => e.offsetParent)"
        ".map(e => e.getBoundingClientRect().right))"
    )
    client.own_layouts.delete("narrow")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert widest <= 391


def test_records_and_mappings_are_called_by_their_labels(console, stack):
    page = console
    page.goto(f"{stack.url}/console/forms/supplier")
    Designer(page).select("Office")
    page.get_by_role("button", name="Where each part goes").click()
    rules = page.locator(".rule-rows").last
    page.get_by_label("Add a part to rule 2;").wait_for()
    expect(rules.get_by_text("Country code", exact=True).first).to_be_visible()
    expect(rules.get_by_text("country_code", exact=True)).to_have_count(0)
    page.goto(f"{stack.url}/console/records?form=supplier")
    page.locator("tbody a").first.click()
    field = page.locator(".ant-descriptions-item-label", has_text="Office: Line 1").first
    expect(field.locator(".key")).to_have_text("line_1")
