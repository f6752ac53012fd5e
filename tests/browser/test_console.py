import re

import pytest
from playwright.sync_api import expect

from anchorline.client import SlotInputSchema

from .conftest import axe_faults, finder
from .designer import Designer


def open_form(page, title="Book a piano visit"):
    page.get_by_role("link", name="Forms").first.click()
    page.get_by_role("link", name=title, exact=True).click()
    form = Designer(page)
    form.outline.wait_for()
    return form


def test_a_wrong_password_is_said_and_a_right_one_lets_in(page, stack):
    page.goto(f"{stack.url}/console/records")
    page.get_by_label("E-mail").fill(stack.access["admin_email"])
    page.get_by_label("Password").fill("not the password")
    page.get_by_role("button", name="Sign in").click()
    page.get_by_text("The e-mail address or the password is not right.").wait_for()
    assert axe_faults(page) == []
    page.get_by_label("Password").fill(stack.access["admin_password"])
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Records").wait_for()


def test_a_record_submitted_on_the_public_page_shows_in_the_list(console, stack, client):
    page = console
    label = client.submit(
        "tuning-visit",
        {"contact": "<b>Shown Quill</b>", "phone": "+44 20 7946 0123", "visit": "tuning",
         "piano_street": "Abbey Mews", "piano_number": "16", "piano_town": "Brackwater",
         "piano_postcode": "QV1 1AA", "note": "=1+1"},
        {"piano": SlotInputSchema(country_code="GB")},
    ).label  # fmt: skip
    page.get_by_role("link", name="Records").first.click()
    page.get_by_role("link", name=label).click()
    page.get_by_role("heading", name=label).wait_for()
    expect(page.locator("address")).to_have_text(
        re.compile("16 Abbey Mews\nBRACKWATER\nQV1 1AA"), use_inner_text=True
    )
    expect(page.get_by_text("typed in by hand")).to_be_visible()
    expect(page.get_by_text("=1+1")).to_be_visible()


def test_records_are_searched_sorted_and_paged(console, client):
    page = console
    for number in range(30):
        client.submit("supplier", {
            "name": f"Pager {number:02}", "line_2": "x", "office_postcode": "QV1 1AA"
        }, {"office": SlotInputSchema(country_code="GB")})  # fmt: skip
    page.get_by_role("link", name="Records").first.click()
    page.get_by_label("Search the records").fill("pager")
    page.keyboard.press("Enter")
    page.get_by_text("1 to 25 of 30").wait_for()
    page.get_by_role("combobox", name="Order").click()
    page.get_by_text("By name, A to Z").click()
    page.locator("tbody a").first.filter(has_text="Pager 00").wait_for()
    page.get_by_role("button", name="Next").click()
    page.get_by_text("26 to 30 of 30").wait_for()
    expect(page.locator("tbody a").first).to_have_text(re.compile("^Pager 25"))
    page.get_by_role("button", name="Previous").click()
    page.get_by_text("1 to 25 of 30").wait_for()


def test_a_mapping_is_changed_tried_with_a_trace_and_published(console, client):
    page = console
    form = open_form(page, "Venue").select("Venue")
    form.settings.get_by_role("button", name="Where each part goes").click()
    page.get_by_role("button", name="Add a rule").click()
    part = page.get_by_label("Add a part to rule 14")
    for name in ("street", "town"):
        part.fill(name)
        part.press("Enter")
    page.get_by_label("What joins the parts of rule 14").fill(",␣")
    page.get_by_label("Field of rule 14").click()
    page.keyboard.type("stage")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Back to the form").click()
    form.kept()
    rule = client.forms.draft("venue")[0].document.slots[0].mapping[-1]
    assert (rule.components, rule.join, rule.into) == (["street", "town"], ", ", "stage_door")
    finder(page).fill("16 abbey mews")
    page.get_by_role("option", name="16 Abbey Mews").first.click()
    page.get_by_role("heading", name="What went where").wait_for()
    page.get_by_text("wrote Abbey Mews, Brackwater").wait_for()
    expect(page.locator("#stage_door")).to_have_value("Abbey Mews, Brackwater")
    page.get_by_role("button", name="Try sending it").click()
    page.get_by_role("heading", name="What a record would hold").wait_for()
    assert form.publish() == [
        "The address “Venue” now fills street, town into “Stage door or entrance”."
    ]
    assert client.form("venue").version == 2


def test_a_service_that_fails_is_said_with_a_way_to_try_again(console):
    page = console
    page.route("**/api/v1/records*", lambda route: route.fulfill(status=503, json={
        "status": 503, "title": "x", "detail": "The database does not answer.", "errors": []}))  # fmt: skip
    page.get_by_role("link", name="Records").first.click()
    page.get_by_text("The database does not answer.").wait_for()
    page.unroute("**/api/v1/records*")
    page.get_by_role("button", name="Try again").click()
    page.get_by_role("heading", name="Records").wait_for()


def test_signing_out_leaves_nothing_to_see(console, stack):
    page = console
    page.get_by_role("button", name="Sign out").click()
    page.get_by_label("Password").wait_for()
    page.goto(f"{stack.url}/console/records")
    page.get_by_label("Password").wait_for()


@pytest.mark.parametrize("place", ["home", "forms", "form", "mapping", "records", "record", "lost"])
def test_axe_finds_nothing_on_the_consoles_pages(console, stack, client, place):
    page = console
    if place == "forms":
        page.get_by_role("link", name="Forms").first.click()
        page.get_by_role("cell", name=re.compile("tuning-visit")).wait_for()
    elif place in ("form", "mapping"):
        form = open_form(page)
        form.live.get_by_label("Your name").wait_for()
        if place == "mapping":
            form.select("Where the piano stands")
            form.settings.get_by_role("button", name="Where each part goes").click()
            page.get_by_text("Longest").wait_for()
            page.get_by_label("Add a part to rule 1;").wait_for()
    elif place == "records":
        page.get_by_role("link", name="Records").first.click()
        page.locator("tbody a").first.wait_for()
    elif place == "record":
        page.goto(f"{stack.url}/console/records/{client.records(limit=1).records[0].id}")
        page.locator("address").first.wait_for()
    elif place == "lost":
        page.goto(f"{stack.url}/console/nowhere")
        page.get_by_text("There is nothing at this address").wait_for()
    assert axe_faults(page) == []


def test_the_first_stop_of_tab_leads_past_the_menu(console):
    page = console
    page.reload()
    page.get_by_role("heading", name="What to do next").wait_for()
    page.keyboard.press("Tab")
    assert page.evaluate("document.activeElement.innerText") == "Skip to the page"
    page.keyboard.press("Enter")
    assert page.evaluate("location.hash") == "#main"


@pytest.mark.parametrize("width", [800, 1100])
def test_no_page_of_the_console_scrolls_sideways(console, stack, width):
    page = console
    page.set_viewport_size({"width": width, "height": 800})
    places = ("", "/forms", "/forms/tuning-visit", "/records", "/layouts/FR", "/layouts/own/new")
    for place in places:
        page.goto(f"{stack.url}/console{place}")
        page.get_by_role("heading", level=1).wait_for()
        page.wait_for_load_state("networkidle")
        assert page.evaluate("document.documentElement.scrollWidth") <= width, place
