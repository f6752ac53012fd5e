"""Formulas and conditions while a form is filled, and what is kept of them."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import axe_faults, finder, publish

PARTS = ("number", "street", "town", "postcode")
FORM = {
    "key": "address-line",
    "kind": "web",
    "title": "Where to?",
    "fields": [
        {"slot": "place"},
        {"key": "line", "type": "formula", "label": "On the label", "formula": "ADDRESS(place)"},
        {"key": "known", "type": "note", "label": "We know this house.", "shown_when": "ISPICKED(place)"},
        {"key": "count", "type": "number", "label": "How many?"},
        {"key": "why", "label": "Why so many?", "required_when": "count > 5"},
    ],
    "slots": [
        {"key": "place", "label": "Place", "countries": ["GB"],
         "parts": [{"key": f"p_{c}", "component": c} for c in PARTS],
         "mapping": [{"components": [c], "into": f"p_{c}"} for c in PARTS]},
    ],
}  # fmt: skip


@pytest.fixture(scope="module", autouse=True)
def published(stack):
    publish(stack, FORM)


def pick(page, text, label, number=0):
    finder(page, number).fill(text)
    page.get_by_role("option", name=label).first.click()


def value(page, name):
    return page.get_by_role("status", name=name)


def test_a_distance_follows_both_addresses_and_is_kept_as_it_was_shown(form_page, client):
    page = form_page
    distance, band = value(page, "Distance as the crow flies"), value(page, "Travel band")
    expect(distance).to_be_hidden()
    page.get_by_label("Your name").fill("Moving Quill")
    page.get_by_role("textbox", name="Phone").fill("+44 20 555 0199")
    page.get_by_label("What is it about?").select_option("move")
    expect(distance).to_be_visible()
    expect(band).to_be_hidden()
    pick(page, "16 abbey mews brackwater", "16 Abbey Mews")
    pick(page, "12 kiln crescent brackwater", "12 Kiln Crescent", 1)
    expect(band).to_be_visible()
    shown = float(distance.inner_text())
    assert shown > 0
    page.get_by_role("button", name="Undo").nth(1).click()
    expect(band).to_be_hidden()
    pick(page, "12 kiln crescent brackwater", "12 Kiln Crescent", 1)
    expect(distance).to_have_text(str(shown))
    assert axe_faults(page) == []
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert record.values["distance"] == shown
    assert record.values["travel_band"] == band_of(shown)
    assert record.labels["distance"] == "Distance as the crow flies"


def band_of(kilometres):
    return (
        "A: up to 10 km"
        if kilometres <= 10
        else "B: up to 50 km"
        if kilometres <= 50
        else "C: over 50 km"
    )


def test_an_address_is_written_as_it_is_typed(page, stack, client):
    page.goto(f"{stack.url}/f/address-line")
    pick(page, "16 abbey mews brackwater", "16 Abbey Mews")
    line, known = value(page, "On the label"), page.get_by_text("We know this house.")
    expect(line).to_have_text("16 Abbey Mews, Brackwater, QV1 1AA")
    expect(known).to_be_visible()
    page.get_by_label("Number").fill("16c")
    expect(line).to_have_text("16c Abbey Mews, Brackwater, QV1 1AA")
    page.get_by_label("How many?").fill("6")
    expect(page.get_by_label("Why so many? (needed)")).to_be_visible()
    page.get_by_role("button", name="Send").click()
    expect(page.locator(".problem", has_text="This is needed.")).to_be_visible()
    page.get_by_label("How many?").fill("5")
    expect(page.get_by_label("Why so many? (needed)")).to_have_count(0)
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert record.values["line"] == "16c Abbey Mews, Brackwater, QV1 1AA"
