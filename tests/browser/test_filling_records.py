"""Staff make and change records in the console."""

import re

import pytest
from playwright.sync_api import expect

from anchorline.client import Client

from .conftest import axe_faults, finder, publish, rows

HALLS = {"key": "staff-halls", "kind": "record", "title": "Halls",
         "fields": [{"key": "hall", "label": "Hall", "required": True}, {"key": "city", "label": "City"}]}  # fmt: skip
PARTS = ("number", "street", "town", "postcode")
PIANOS = {
    "key": "staff-pianos", "kind": "record", "title": "Pianos",
    "fields": [
        {"key": "make", "label": "Make", "required": True},
        {"key": "hall", "label": "Stands in", "type": "link", "form": "staff-halls", "shows": "hall",
         "searches": ["city"], "makes_new": True},
        {"slot": "home"},
    ],
    "slots": [{
        "key": "home", "label": "Home", "countries": ["GB"], "required": False,
        "parts": [{"key": f"home_{name}", "component": name} for name in PARTS],
        "mapping": [{"components": [name], "into": f"home_{name}"} for name in PARTS],
    }],
}  # fmt: skip


@pytest.fixture(scope="module")
def forms(stack):
    publish(stack, HALLS)
    publish(stack, PIANOS)
    with Client(stack.url, stack.access["server_key"]) as client:
        client.submit("staff-halls", {"hall": "Old Hall", "city": "Marl"})


def pick(page, text, row):
    finder(page).fill(text)
    rows(page).filter(has_text=re.compile(row)).first.click()
    page.get_by_text("4 fields filled.").wait_for()


def saved(page):
    page.wait_for_url(re.compile(r"/records/r[0-9a-f]{24}$"))
    page.get_by_role("heading", level=1).wait_for()


def test_a_record_is_made_changed_and_shows_what_it_was(console, stack, forms):
    page = console
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    page.goto(f"{stack.url}/console/records")
    page.get_by_role("button", name="New record").click()
    page.get_by_role("menuitem", name="Pianos").click()
    page.get_by_label("Make").fill("Mirabeau 120")
    pick(page, "16 abbey mews", "^16 Abbey Mews")
    assert axe_faults(page) == []
    page.get_by_role("button", name="Send").click()
    saved(page)
    page.get_by_role("button", name="Copy the address Home").click()
    expect(page.get_by_role("button", name="Copy the address Home")).to_have_text("Copied")
    assert page.evaluate("navigator.clipboard.readText()") == "16 Abbey Mews\nBRACKWATER\nQV1 1AA"
    page.get_by_role("button", name="Change").click()
    expect(page.get_by_label("Make")).to_have_value("Mirabeau 120")
    expect(finder(page)).to_have_value("16 Abbey Mews, BRACKWATER, QV1 1AA")
    pick(page, "14 abbey mews", "^14 Abbey Mews")
    page.get_by_role("button", name="Save").click()
    saved(page)
    before = page.locator(".slot-history")
    expect(before.locator("summary")).to_have_text("What it was before (1)")
    before.locator("summary").click()
    expect(before).to_contain_text("16 Abbey Mews, BRACKWATER, QV1 1AA")
    expect(before).to_contain_text("from demo@1")
    expect(before).to_contain_text("admin@")
    assert axe_faults(page) == []


def test_leaving_with_what_is_not_saved_asks(console, stack, forms):
    page = console
    page.goto(f"{stack.url}/console/records/new/staff-pianos")
    page.get_by_label("Make").fill("Half a piano")
    page.get_by_role("link", name="Overview").click()
    dialog = page.get_by_role("dialog", name="Leave without saving?")
    dialog.get_by_role("button", name="Stay here").click()
    expect(page.get_by_label("Make")).to_have_value("Half a piano")
    page.get_by_role("link", name="Overview").click()
    dialog.get_by_role("button", name="Leave, lose the changes").click()
    page.get_by_role("heading", name="What to do next").wait_for()


def test_somebody_elses_change_is_not_overwritten(console, stack, forms, client):
    page = console
    record = client.submit("staff-pianos", {"make": "Shared"}).id
    page.goto(f"{stack.url}/console/records/{record}/edit")
    page.get_by_label("Make").fill("Mine")
    client.change_record(record, {"make": "Theirs"}, revision=1)
    page.get_by_role("button", name="Save").click()
    expect(
        page.get_by_role("alert").filter(has_text="Somebody else has changed this record")
    ).to_be_visible()
    expect(page.get_by_label("Make")).to_have_value("Mine")
    assert client.record(record).values["make"] == "Theirs"


def test_a_link_is_found_by_another_field_and_a_new_record_is_made_for_it(
    console, stack, forms, client
):
    page = console
    page.goto(f"{stack.url}/console/records/new/staff-pianos")
    hall = page.get_by_role("combobox", name="Stands in")
    hall.fill("marl")
    page.get_by_role("option", name="Old Hall · Marl").click()
    expect(hall).to_have_value("Old Hall · Marl")
    page.get_by_role("button", name="Make a new one").click()
    dialog = page.get_by_role("dialog", name="A new record")
    dialog.get_by_role("textbox", name="Hall").fill("New Hall")
    dialog.get_by_role("button", name="Send").click()
    expect(dialog).to_be_hidden()
    page.get_by_label("Make").fill("Linked")
    page.get_by_role("button", name="Send").click()
    saved(page)
    record = client.record(page.url.split("/")[-1])
    assert record.texts["hall"] == "New Hall"
