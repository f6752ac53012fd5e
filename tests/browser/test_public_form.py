import contextlib
import re

import pytest
from playwright.sync_api import expect

from .conftest import axe_faults, finder, rows

PARTS = ["organisation", "unit", "building", "number", "street", "po_box", "district", "town",
         "region", "region_code", "postcode"]  # fmt: skip


def part_values(page, slot="piano"):
    return {
        name: page.locator(f"#{slot}_{name}").input_value()
        for name in PARTS
        if page.locator(f"#{slot}_{name}").count()
    }


def choose(page, text, label):
    """Types into the finder and clicks the suggestion with this label, opening groups."""
    finder(page).fill(text)
    page.get_by_role("option", name=label).first.click()


def pick(page, text, label):
    page.evaluate(
        "() => { window.hasFilled = false; "
        "addEventListener('anchorline-filled', () => { window.hasFilled = true; }, {once: true}); }"
    )
    choose(page, text, label)
    page.wait_for_function("() => window.hasFilled")


def test_the_whole_path_by_keyboard_alone(form_page, client):
    page = form_page
    press, write = page.keyboard.press, page.keyboard.type
    press("Tab")
    write("Keyboard Quill")
    press("Tab")
    expect(page.get_by_role("combobox", name="Dial code")).to_have_value("GB +44")
    press("Tab")
    write("+44 20 555 0101")
    press("Tab")
    press("Tab")
    write("Tun")
    for _ in ("the country", "the location", "the finder"):
        press("Tab")
    assert finder(page).evaluate("e => e.getRootNode().activeElement === e")
    write("kiln cres")
    rows(page).first.wait_for()
    press("ArrowDown")
    expect(finder(page)).to_have_attribute("aria-activedescendant", "option-0")
    press("Enter")
    page.get_by_role("option", name="‹ Back from Kiln Crescent, Brackwater").wait_for()
    write("12")
    rows(page).nth(2).filter(has_text=re.compile("^12 Kiln")).wait_for()
    press("ArrowDown")
    press("ArrowDown")
    press("ArrowDown")
    press("Enter")
    page.get_by_text("4 fields filled.").wait_for()
    expect(page.locator("#piano_number")).to_have_value("12")
    page.get_by_role("button", name="Send").focus()
    press("Enter")
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert record.values["contact"] == "Keyboard Quill"
    assert record.values["visit"] == "tuning"
    assert record.slots["piano"].typed == "kiln cres"
    assert record.slots["piano"].components["number"] == "12"


def test_the_whole_path_by_touch_on_a_phone(phone, stack, client):
    phone.goto(f"{stack.url}/f/tuning-visit")
    phone.get_by_label("Your name").tap()
    phone.keyboard.type("Touch Quill")
    phone.get_by_role("textbox", name="Phone").tap()
    phone.keyboard.type("+442079460123")
    phone.get_by_label("What is it about?").select_option("repair")
    finder(phone).tap()
    phone.keyboard.type("16 abbey mews")
    phone.get_by_role("option", name="16 Abbey Mews").first.tap()
    phone.get_by_text("4 fields filled.").wait_for()
    assert phone.evaluate("document.documentElement.scrollWidth") <= 390
    phone.get_by_role("button", name="Send").tap()
    phone.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(phone.locator("code").inner_text())
    assert record.slots["piano"].lines == ["16 Abbey Mews", "BRACKWATER", "QV1 1AA"]


def test_a_second_address_leaves_no_part_of_the_first(form_page, client):
    page = form_page
    rich = client.suggest("flat 3", country="GB", kinds=["address"], limit=1).suggestions[0]
    pick(page, rich.label, rich.label)
    first = part_values(page)
    assert first["unit"]
    assert first["building"]
    pick(page, "16 abbey mews", "16 Abbey Mews")
    second = part_values(page)
    assert {k: v for k, v in second.items() if v} == {
        "number": "16", "street": "Abbey Mews", "town": "Brackwater", "postcode": "QV1 1AA",
    }  # fmt: skip
    page.get_by_role("button", name="Undo").click()
    assert part_values(page) == first


def test_nothing_found_leaves_what_was_typed_and_enter_does_nothing_bad(form_page):
    page = form_page
    finder(page).fill("qqqqzzzz 7")
    page.get_by_text("Nothing found: type it in yourself.").wait_for()
    finder(page).press("Enter")
    expect(finder(page)).to_have_value("qqqqzzzz 7")
    expect(page.get_by_role("heading", name="Book a piano visit")).to_be_visible()
    expect(page.locator(".problem:visible", has_text="This is needed.")).to_have_count(0)
    page.get_by_role("button", name="Type the address in myself").click()
    expect(page.locator("#piano_street")).to_be_visible()


def test_going_back_from_a_group_brings_the_first_rows_again(form_page):
    page = form_page
    choose(page, "kiln cres", "Kiln Crescent, Brackwater")
    page.get_by_role("option", name=re.compile("Back from")).click()
    page.get_by_role("option", name=re.compile("^Kiln Crescent, Brackwater")).wait_for()
    expect(finder(page)).to_have_value("kiln cres")
    page.keyboard.press("Escape")
    expect(finder(page)).to_have_attribute("aria-expanded", "false")


def test_typed_ranges_are_marked_and_groups_are_counted(form_page):
    page = form_page
    finder(page).fill("kiln")
    option = page.get_by_role("option", name=re.compile("^Kiln Crescent")).first
    option.wait_for()
    expect(option.locator("mark")).to_have_text(["Kiln"])
    expect(option.locator(".count")).to_have_text(re.compile(r"^\d+ addresses$"))


def test_a_silent_service_turns_the_finder_into_plain_fields(form_page):
    page = form_page
    page.route("**/api/v1/suggest*", lambda route: route.abort())
    finder(page).fill("kiln")
    page.get_by_text("The address lookup does not answer.").wait_for()
    page.locator("#piano_street").fill("Kiln Crescent")
    expect(finder(page)).to_have_value("kiln")


def test_an_older_answer_is_never_shown_over_a_newer_one(form_page):
    page = form_page
    held = []

    def hold_the_first(route):
        if "q=kiln" in route.request.url and not held:
            held.append(route)
        else:
            route.continue_()

    page.route("**/api/v1/suggest*", hold_the_first)
    finder(page).fill("kiln")
    page.wait_for_timeout(300)
    assert held
    finder(page).fill("abbey mews")
    page.get_by_role("option", name=re.compile("^Abbey Mews")).first.wait_for()
    body = '{"suggestions":[{"id":"x","kind":"address","label":"Old","country_code":"GB","count":1,"matches":[]}],"corrected":{},"unmatched":[],"after":null}'
    with contextlib.suppress(Exception):  # the outdated request may have been cancelled already
        held[0].fulfill(status=200, content_type="application/json", body=body)
    page.wait_for_timeout(200)
    expect(page.get_by_role("option", name="Old")).to_have_count(0)


def test_a_failed_submit_keeps_everything_and_goes_to_the_first_problem(form_page):
    page = form_page
    page.get_by_label("Your name").fill("Ada")
    pick(page, "16 abbey mews", "16 Abbey Mews")
    page.locator("#piano_postcode").fill("XX")
    page.locator("#piano_postcode").blur()
    # It is said at once, and moves what is below: the button is clicked where it stands then.
    page.locator("[id='piano_postcode:problem']").wait_for()
    page.get_by_role("button", name="Send").click()
    page.get_by_text("3 things need your attention.").wait_for()
    assert (
        page.evaluate("document.querySelector('anchorline-form').shadowRoot.activeElement.id")
        == "phone"
    )
    expect(page.locator("#phone")).to_have_attribute("aria-invalid", "true")
    assert (
        "is not a Postcode of United Kingdom"
        in page.locator("[id='piano_postcode:problem']").inner_text()
    )
    expect(page.get_by_label("Your name")).to_have_value("Ada")
    assert part_values(page)["street"] == "Abbey Mews"


def test_a_submit_that_got_no_answer_is_sent_again_and_makes_one_record(form_page, client):
    page = form_page
    page.get_by_label("Your name").fill("Twice Quill")
    page.get_by_role("textbox", name="Phone").fill("+44 20 7946 0123")
    page.get_by_label("What is it about?").select_option("tuning")
    pick(page, "16 abbey mews", "16 Abbey Mews")

    def lose_the_answer(route):
        route.fetch()
        route.abort()

    page.route("**/records", lose_the_answer)
    page.get_by_role("button", name="Send").click()
    page.get_by_text("Nothing that you typed is lost").wait_for()
    page.unroute("**/records")
    page.get_by_role("heading", name="Thank you").wait_for()
    assert client.records(search="Twice Quill").total == 1


def test_a_form_that_cannot_be_kept_is_not_sent_again_by_itself_and_nothing_is_lost(form_page):
    page, tries = form_page, []
    page.get_by_label("Your name").fill("Full Quill")

    def is_full(route):
        tries.append(1)
        route.fulfill(status=507, json={"status": 507, "detail": "There is no room left."})

    page.route("**/records", is_full)
    page.get_by_role("button", name="Send").click()
    page.get_by_text("There is no room left. Nothing that you typed is lost").wait_for()
    assert len(tries) == 1
    expect(page.get_by_label("Your name")).to_have_value("Full Quill")


def test_markup_in_values_is_shown_as_text(form_page, stack):
    page = form_page
    page.route(
        "**/api/v1/suggest*",
        lambda route: route.fulfill(
            json={
                "suggestions": [
                    {"id": "x", "kind": "address", "label": "<img src=x onerror=alert(1)>",
                     "country_code": "GB", "count": 1, "matches": [[0, 4]]}
                ],
                "corrected": {}, "unmatched": [], "after": None,
            }
        ),
    )  # fmt: skip
    finder(page).fill("img")
    page.get_by_role("option", name="<img src=x onerror=alert(1)>").wait_for()
    expect(page.locator("img")).to_have_count(0)


def test_the_country_changes_labels_order_and_choices(form_page):
    page = form_page
    page.get_by_role("button", name="Type the address in myself").click()
    page.get_by_label("Country").first.select_option("US")
    page.get_by_label(re.compile("^ZIP code")).wait_for()
    assert page.locator("#piano_region_code").evaluate("e => e.tagName") == "SELECT"
    expect(page.locator("#piano_region")).to_be_hidden()
    page.get_by_label("Country").first.select_option("JP")
    page.get_by_label(re.compile("^Prefecture")).wait_for()
    first = page.locator(".slot").first.locator(".parts .field:visible label").first
    expect(first).to_have_text(re.compile("^Postal code"))


def test_an_address_is_filled_in_the_language_in_which_it_was_typed(form_page):
    page = form_page
    page.get_by_label("Country").first.select_option("JP")
    pick(page, "kiritani honcho 1-3", re.compile("^1-3 Honcho, Kiritani-shi, Tokyo"))
    latin = part_values(page)
    assert latin["town"] == "Kiritani-shi"
    finder(page).fill("霧谷市 本町 1-3")
    rows(page).filter(has_text="東京都霧谷市本町1-3").first.click()
    expect(page.locator("#piano_town")).to_have_value("霧谷市")
    native = part_values(page)
    assert native["district"] == "本町"
    assert native["postcode"] == latin["postcode"]


def test_what_hangs_on_an_answer_is_shown_with_it(form_page):
    page = form_page
    expect(page.get_by_role("group", name="Where the piano goes")).to_be_hidden()
    page.get_by_label("What is it about?").select_option("move")
    expect(page.get_by_role("group", name="Where the piano goes")).to_be_visible()
    page.get_by_label("Send the bill to another address").check()
    expect(page.get_by_role("group", name="Billing address")).to_be_visible()


@pytest.mark.parametrize("state", ["empty", "open", "filled", "refused", "thanks"])
def test_axe_finds_nothing_on_the_public_form(form_page, state):
    page = form_page
    if state == "open":
        finder(page).fill("kiln")
        rows(page).first.wait_for()
        page.keyboard.press("ArrowDown")
    if state in ("filled", "refused", "thanks"):
        pick(page, "16 abbey mews", "16 Abbey Mews")
    if state == "thanks":
        page.get_by_label("Your name").fill("Axe")
        page.get_by_role("textbox", name="Phone").fill("+44 20 7946 0123")
        page.get_by_label("What is it about?").select_option("tuning")
    if state in ("refused", "thanks"):
        page.get_by_role("button", name="Send").click()
        page.get_by_text("your attention" if state == "refused" else "Reference:").wait_for()
    assert axe_faults(page) == []


def test_composing_with_an_input_method_is_not_disturbed(form_page):
    page = form_page
    asked = []
    page.on("request", lambda r: asked.append(r.url) if "/suggest" in r.url else None)
    page.get_by_label("Country").first.select_option("JP")
    finder(page).focus()
    page.evaluate(
        """() => {
          const form = document.querySelector('anchorline-form').shadowRoot;
          const input = form.querySelector('anchorline-finder').shadowRoot.querySelector('input');
          input.dispatchEvent(new CompositionEvent('compositionstart'));
          input.value = 'ほん';
          input.dispatchEvent(new InputEvent('input', {isComposing: true}));
          input.dispatchEvent(new KeyboardEvent('keydown', {key: 'ArrowDown', isComposing: true}));
          window.finish = () => {
            input.value = '本町';
            input.dispatchEvent(new CompositionEvent('compositionend'));
          };
        }"""
    )
    page.wait_for_timeout(300)
    assert asked == []
    page.evaluate("finish()")
    rows(page).first.wait_for()
    assert len(asked) == 1
