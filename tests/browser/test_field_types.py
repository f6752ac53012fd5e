"""Fields of each type on a public page: filled, refused, kept."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import axe_faults, publish
from tests.browser.designer import Designer

FORM = {
    "key": "all-types",
    "kind": "web",
    "title": "Every type of field",
    "fields": [
        {"key": "about", "type": "heading", "label": "About the piano", "help": "As far as you know."},
        {"key": "maker", "label": "Maker", "placeholder": "Mirabeau"},
        {"key": "weight", "type": "number", "label": "Weight", "least": 50, "most": 600, "decimals": 0,
         "unit": "kg", "help": "It stands on the frame."},
        {"key": "made", "type": "date", "label": "Made on", "least": "1850-01-01"},
        {"key": "hint", "type": "note", "label": "We need your consent to keep this."},
        {"key": "agreed", "type": "consent", "label": "You may keep what I send."},
        {"key": "loud", "type": "yes_no", "label": "It is loud"},
        {"key": "price", "type": "formula", "label": "Price", "formula": "=ROUND(weight * 0.45; 2)",
         "unit": "EUR", "shown_when": "weight > 0"},
        {"key": "why", "type": "note", "label": "Then we bring felt.",
         "shown_when": "loud"},
    ],
}  # fmt: skip


@pytest.fixture(scope="module", autouse=True)
def published(stack):
    publish(stack, FORM)


@pytest.fixture
def types_page(page, stack):
    page.goto(f"{stack.url}/f/all-types")
    page.get_by_label("Maker").wait_for()
    return page


def test_each_type_is_filled_and_kept(types_page, client):
    page = types_page
    expect(page.get_by_role("heading", name="About the piano", level=2)).to_be_visible()
    expect(page.get_by_label("Maker")).to_have_attribute("placeholder", "Mirabeau")
    expect(page.get_by_label("Weight")).to_have_accessible_description("kg It stands on the frame.")
    expect(page.get_by_label("Made on")).to_have_attribute("min", "1850-01-01")
    expect(page.get_by_label("You may keep what I send. (needed)")).not_to_be_checked()
    expect(page.get_by_text("Then we bring felt.")).to_be_hidden()
    page.get_by_label("It is loud").check()
    expect(page.get_by_text("Then we bring felt.")).to_be_visible()
    page.get_by_label("Maker").fill("Felt & Wire")
    price = page.get_by_role("status", name="Price")
    expect(price).to_be_hidden()
    page.get_by_label("Weight").fill("12.5")
    expect(price).to_have_text("5.63")
    page.get_by_label("Made on").fill("1904-05-01")
    page.get_by_role("button", name="Send").click()
    expect(
        page.locator(".problem", has_text="This is less than 50, the least that is possible.")
    ).to_be_visible()
    expect(page.locator(".problem", has_text="This is needed.")).to_be_visible()
    assert axe_faults(page) == []
    page.get_by_label("Weight").fill("240")
    page.get_by_label("You may keep what I send.").check()
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert record.values == {
        "maker": "Felt & Wire", "weight": 240, "made": "1904-05-01", "agreed": True, "loud": True,
        "price": 108,
    }  # fmt: skip


def test_each_type_shows_in_the_outline_with_the_settings_that_it_has(console, stack):
    form = Designer(console)
    console.goto(f"{stack.url}/console/forms/all-types")
    form.select("You may keep what I send.")
    expect(form.settings.get_by_role("switch", name="Must be filled")).to_have_count(0)
    form.select("Weight")
    expect(form.settings.get_by_label("Unit behind it")).to_have_value("kg")
    expect(form.settings.get_by_label("At least")).to_have_value("50")
    form.select("About the piano")
    expect(form.settings.get_by_label("Unit behind it")).to_have_count(0)
