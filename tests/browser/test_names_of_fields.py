"""Fields may have any key that the service takes: also what JavaScript or the page itself calls so."""

import pytest
from playwright.sync_api import expect

from .conftest import axe_faults, publish

# Of every object, of every element and form, and ids that the form itself has or would make.
KEYS = ["constructor", "title", "language", "append", "elements", "action", "children", "id",
        "remove", "phone", "phone-problem", "phone-label", "prototype", "then"]  # fmt: skip
PARTS = [{"key": "valueof", "component": "street"}, {"key": "length", "component": "town"}]
DOCUMENT = {
    "key": "odd-names",
    "kind": "web",
    "title": "Odd names",
    "public": {"least_seconds": 0},
    "fields": [
        *({"key": key, "label": f"The {key}"} for key in KEYS),
        {"key": "pick", "type": "choice", "label": "Pick", "options": [
            {"value": "constructor", "label": "First"}, {"value": "__proto__", "label": "Second"}]},
        {"key": "all", "type": "formula", "label": "All",
         "formula": "constructor & title & IF(ISBLANK(prototype); \"-\"; prototype)"},
        {"key": "last", "label": "Last", "shown_when": 'pick = "__proto__"'},
    ],
    "slots": [{"key": "name", "label": "Where", "countries": ["GB"], "required": False, "parts": PARTS,
               "mapping": [{"components": [one["component"]], "into": one["key"]} for one in PARTS]}],
    "translations": {"de": {"items": {"pick": {"options": {"constructor": "Erstes"}}}}},
}  # fmt: skip


@pytest.fixture(scope="module")
def published(stack):
    publish(stack, DOCUMENT)
    return f"{stack.url}/f/odd-names"


@pytest.mark.parametrize("language", ["en", "de"])
def test_a_form_whose_fields_are_called_so_is_filled_and_sent(page, published, client, language):
    page.goto(published)
    page.get_by_label("The constructor").wait_for()
    if language == "de":
        page.get_by_label("Language", exact=True).select_option("de")
    for key in KEYS[:-2]:
        page.get_by_label(f"The {key}", exact=True).press_sequentially(key, delay=5)
    expect(page.locator("#all")).to_have_text("constructortitle-")
    page.get_by_label("Pick").select_option("Second")
    page.get_by_label("Last").fill("shown")
    assert axe_faults(page) == []
    page.locator("button.send").click()
    page.locator("code").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert record.values == {
        **{key: key for key in KEYS[:-2]},
        "pick": "__proto__", "all": "constructortitle-", "last": "shown",
    }  # fmt: skip
    assert record.texts["pick"] == "Second"


def test_such_a_record_is_read_and_the_form_is_designed_in_the_console(console, published, stack):
    page = console
    page.goto(f"{stack.url}/console/forms/odd-names")
    page.get_by_text("The constructor").first.wait_for()
    page.get_by_text("The constructor").first.click()
    label = page.get_by_label("Label", exact=True).first
    expect(label).to_have_value("The constructor")
