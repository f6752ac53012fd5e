"""Choosing another country on the public form: nothing typed is lost."""

import re

import pytest
from playwright.sync_api import expect

from anchorline.wire.forms import FormDocument

from .conftest import axe_faults

TYPED = {
    "number": "12", "street": "Abbey Mews", "town": "Brackwater", "postcode": "qv11aa",
    "unit": "Flat 3", "district": "Northside",
}  # fmt: skip


def unfold(page):
    page.get_by_role("button", name="Type the address in myself").first.click()


def country(page):
    return page.get_by_label("Country").first


def choose_by_keyboard(page, name):
    """Focuses the list of countries, types a name's beginning, and stays there."""
    country(page).focus()
    page.wait_for_timeout(1100)  # until then a list takes letters as more of the name before
    page.keyboard.type(name)
    message = page.locator(".message").first
    expect(message).to_contain_text(f"The fields are now those of {name}")
    assert country(page).evaluate("e => e.getRootNode().activeElement === e")


def labels(page):
    shown = page.locator(".slot").first.locator(".parts .field:visible label").all_inner_texts()
    return [text.removesuffix(" (needed)") for text in shown]


def kept(page):
    terms = page.locator(".kept").first.locator("dt, dd")
    return terms.all_inner_texts() if page.locator(".kept").first.is_visible() else []


def write(page, typed):
    for name, value in typed.items():
        page.locator(f"#piano_{name}").fill(value)


def test_from_country_to_country_and_back_by_keyboard(form_page):
    page = form_page
    unfold(page)
    write(page, TYPED)
    page.locator("#piano_town").focus()
    expect(page.locator("#piano_postcode")).to_have_value("QV1 1AA")

    choose_by_keyboard(page, "France")
    assert kept(page) == []
    assert labels(page).index("Postcode") < labels(page).index("Town")
    expect(page.locator("#piano_street")).to_have_value("Abbey Mews")
    page.get_by_text(re.compile("'QV1 1AA' is not a Postcode of France")).wait_for()

    choose_by_keyboard(page, "Japan")
    assert kept(page) == ["Street", "Abbey Mews"]
    assert labels(page)[:2] == ["Postal code", "Prefecture"]
    expect(page.locator("#piano_district")).to_have_value("Northside")
    page.locator("#piano_region").select_option("北海道")

    choose_by_keyboard(page, "United States")
    # The first letter alone chooses the United Kingdom, where the area is called a locality.
    assert kept(page) in (
        ["Prefecture", "北海道 (Hokkaido)", called, "Northside"] for called in ("Area", "Locality")
    )
    expect(page.locator("#piano_street")).to_have_value("Abbey Mews")
    page.locator("#piano_region_code").select_option("VT")

    choose_by_keyboard(page, "Canada")
    assert "Vermont" in kept(page), "Canada has provinces, but no Vermont"
    choose_by_keyboard(page, "United States")
    expect(page.locator("#piano_region_code")).to_have_value("VT")

    choose_by_keyboard(page, "United Kingdom")
    assert kept(page) == ["Prefecture", "北海道 (Hokkaido)", "State", "Vermont"]
    expect(page.locator(".message").first).to_contain_text("Put back:")
    for name, value in (TYPED | {"postcode": "QV1 1AA"}).items():
        expect(page.locator(f"#piano_{name}")).to_have_value(value)
    expect(page.locator(".problem:visible")).to_have_count(0)
    assert axe_faults(page) == []


def test_what_stands_aside_is_not_sent(form_page):
    page = form_page
    unfold(page)
    write(page, {"street": "Abbey Mews"})
    choose_by_keyboard(page, "Japan")
    page.get_by_label("Your name").fill("Ana Vale")
    page.get_by_role("textbox", name="Phone").fill("+44 20 7946 0123")
    page.get_by_label("What is it about?").select_option("tuning")
    with page.expect_request(lambda r: r.url.endswith("/records")) as sent:
        page.get_by_role("button", name="Send").click()
    assert "piano_street" not in sent.value.post_data_json["values"]
    expect(page.locator(".kept").first).to_contain_text("Abbey Mews")


def test_the_announcement_is_heard(form_page):
    unfold(form_page)
    choose_by_keyboard(form_page, "France")
    expect(form_page.locator(".message").first).to_have_attribute("role", "status")


ASKED = ("number", "street", "district", "town", "region", "postcode")


@pytest.fixture
def two_scripts(client):
    """A form for two countries, one of which writes from right to left."""
    document = FormDocument.model_validate(
        {
            "key": "two-scripts", "kind": "web", "title": "Two scripts", "fields": [],
            "slots": [
                {
                    "key": "home", "label": "Home", "countries": ["GB", "EG"], "country": "GB",
                    "parts": [
                        {"key": f"home_{name}", "component": name} for name in ASKED
                    ],
                    "mapping": [
                        {"components": [name], "into": f"home_{name}"} for name in ASKED
                    ],
                }
            ],
        }
    )  # fmt: skip
    client.forms.put_draft(document)
    client.forms.publish("two-scripts")
    return "two-scripts"


def test_a_country_that_writes_from_right_to_left(phone, stack, two_scripts):
    page = phone
    page.goto(f"{stack.url}/f/{two_scripts}")
    page.get_by_role("button", name="Type the address in myself").click()
    page.locator("#home_district").fill("Northside")
    country(page).select_option("EG")
    page.get_by_label(re.compile("^Governorate")).select_option(label="القاهرة (Cairo)")
    page.locator("#home_street").fill("شارع النخيل")
    assert page.locator("#home_street").evaluate("e => getComputedStyle(e).direction") == "rtl"
    assert page.locator("#home_district").evaluate("e => getComputedStyle(e).direction") == "ltr"
    country(page).select_option("GB")
    expect(page.locator(".kept dd")).to_have_text("القاهرة (Cairo)")
    assert page.locator(".kept dd").evaluate("e => getComputedStyle(e).direction") == "rtl"
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    assert axe_faults(page) == []
