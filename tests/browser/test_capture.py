"""Capturing one address: late answers, groups taken, corrections by hand, undoing, other countries."""

from __future__ import annotations

import contextlib
import re

import pytest
from playwright.sync_api import Error, expect

from .conftest import axe_faults, finder, publish, rows
from .test_public_form import choose, part_values, pick

ABBEY = {"number": "16", "street": "Abbey Mews", "town": "Brackwater", "postcode": "QV1 1AA"}


def filled(page, slot="piano"):
    return {name: value for name, value in part_values(page, slot).items() if value}


def focused(page) -> str:
    """The id of what has the focus, inside shadow trees."""
    return page.evaluate(
        """() => { let e = document.activeElement;
           while (e.shadowRoot?.activeElement) e = e.shadowRoot.activeElement; return e.id; }"""
    )


def person(page, name):
    page.get_by_label("Your name").fill(name)
    page.get_by_role("textbox", name="Phone").fill("+44 20 7946 0123")
    page.get_by_label("What is it about?").select_option("tuning")


def send(page, client):
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    return client.record(page.locator("code").inner_text())


class HeldFills:
    """Answers to fills that are given when the test says so."""

    def __init__(self, page):
        self.routes = []
        page.route("**/fill*", lambda route: self.routes.append(route))

    def wait(self, page, count):
        for _ in range(100):
            if len(self.routes) >= count:
                return
            page.wait_for_timeout(30)
        raise AssertionError(f"{len(self.routes)} fills were asked for, not {count}")

    def give(self, page, number):
        """Lets one answer through, if anybody still waits for it."""
        with contextlib.suppress(Error):  # the page may have cancelled it already
            self.routes[number].continue_()
        page.wait_for_timeout(150)


@pytest.mark.parametrize("order", [(0, 1), (1, 0)])
def test_of_two_picks_the_later_one_counts_whichever_answers_first(form_page, client, order):
    page = form_page
    person(page, f"Late Quill {order}")
    held = HeldFills(page)
    choose(page, "14 abbey mews", re.compile("^14 Abbey Mews"))
    held.wait(page, 1)
    choose(page, "16 abbey mews", re.compile("^16 Abbey Mews"))
    held.wait(page, 2)
    for number in order:
        held.give(page, number)
    page.get_by_text("4 fields filled.").wait_for()
    assert filled(page) == ABBEY
    expect(finder(page)).to_have_value(re.compile("^16 Abbey Mews"))
    assert send(page, client).slots["piano"].components["number"] == "16"


def test_a_fill_dies_when_another_country_is_chosen(form_page):
    page = form_page
    held = HeldFills(page)
    choose(page, "16 abbey mews", re.compile("^16 Abbey Mews"))
    held.wait(page, 1)
    page.get_by_label("Country").first.select_option("FR")
    page.get_by_text("The fields are now those of France.").wait_for()
    held.give(page, 0)
    assert filled(page) == {}


def test_what_was_picked_last_is_sent_also_where_its_answer_is_late(form_page, client):
    page = form_page
    person(page, "Hasty Quill")
    held = HeldFills(page)
    choose(page, "16 abbey mews", re.compile("^16 Abbey Mews"))
    held.wait(page, 1)
    page.get_by_role("button", name="Send").click()
    page.wait_for_timeout(200)
    held.give(page, 0)
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert record.slots["piano"].lines == ["16 Abbey Mews", "BRACKWATER", "QV1 1AA"]


@pytest.mark.parametrize("country", ["US", "CA", "AU", "IE", "BR", "JP"])
def test_no_part_is_without_a_label_and_a_region_is_asked_for_once(form_page, client, country):
    page = form_page
    page.get_by_label("Country").first.select_option(country)
    page.get_by_text("The fields are now those of").wait_for()
    row = next(s for s in client.samples(country).samples if s.record is None)
    pick(page, row.label, row.label)
    labels = page.locator(".slot").first.locator(".parts .field:visible label").all_inner_texts()
    assert labels
    assert all(label.strip() for label in labels)
    shown = [
        name for name in ("region", "region_code") if page.locator(f"#piano_{name}").is_visible()
    ]
    assert len(shown) == 1


def test_choosing_another_region_changes_its_name_and_its_code(form_page, client):
    page = form_page
    person(page, "Region Quill")
    page.get_by_label("Country").first.select_option("US")
    page.get_by_text("The fields are now those of").wait_for()
    row = client.suggest("1", country="US", kinds=["address"], limit=1).suggestions[0]
    pick(page, row.label, row.label)
    # A postcode of no region: those of the scheme's regions would contradict the choice.
    page.locator("#piano_region_code").select_option("VT")
    components = send(page, client).slots["piano"].components
    assert (components["region_code"], components["region"]) == ("VT", "Vermont")


def test_a_street_can_be_taken_and_its_number_typed_in(form_page, client):
    page = form_page
    person(page, "Take Quill")
    choose(page, "kiln cres", re.compile("^Kiln Crescent, Brackwater"))
    page.get_by_role("option", name=re.compile("^Take “Kiln Crescent, Brackwater")).click()
    page.get_by_text("Taken as far as it is known.").wait_for()
    known = filled(page)
    assert known["street"] == "Kiln Crescent"
    assert known["town"] == "Brackwater"
    assert focused(page) == "piano_number"
    page.keyboard.type("999")
    page.locator("#piano_postcode").fill("qv11zz")
    record = send(page, client)
    assert record.slots["piano"].components["number"] == "999"
    assert record.slots["piano"].address_id is None
    assert record.slots["piano"].typed == "kiln cres"


def test_a_number_that_the_street_lacks_comes_along(form_page):
    page = form_page
    finder(page).fill("997 kiln crescent")
    rows(page).filter(has_text=re.compile("^Kiln Crescent, Brackwater")).first.click()
    page.get_by_role("option", name=re.compile("^Take “Kiln Crescent")).click()
    page.get_by_text("Taken as far as it is known.").wait_for()
    assert filled(page)["number"] == "997"


def test_a_postcode_and_a_town_can_be_taken(form_page, client):
    page = form_page
    for kind in ("postcode", "town"):
        row = client.suggest(
            "QV1 1AA" if kind == "postcode" else "brackwater", country="GB", kinds=[kind]
        ).suggestions[0]
        page.locator("anchorline-finder").first.evaluate(
            "(e, k) => e.setAttribute('kinds', k)", kind
        )
        choose(page, row.label.split(",")[0], re.compile(f"^{re.escape(row.label)}"))
        page.get_by_role("option", name=re.compile("^Take “")).click()
        expect(page.locator("[name=piano_postcode]")).to_have_value(
            "QV1 1AA" if kind == "postcode" else ""
        )
        page.get_by_text("Taken as far as it is known.").wait_for()
        assert filled(page)["town"] == "Brackwater"


def test_enter_takes_the_only_row(form_page):
    page = form_page
    finder(page).fill("16 abbey mews brackwater qv1 1aa")
    expect(rows(page)).to_have_count(1)
    finder(page).press("Enter")
    page.get_by_text("4 fields filled.").wait_for()
    assert filled(page) == ABBEY


def test_what_was_typed_is_carried_into_the_fields_when_going_on_by_hand(form_page):
    page = form_page
    finder(page).fill("41b Zinc Parade, Nowhereham, qv99 1zz")
    page.get_by_role("button", name="Type the address in myself").first.click()
    page.get_by_text("What you typed stands in the fields.").wait_for()
    assert filled(page) == {
        "number": "41b", "street": "Zinc Parade", "town": "Nowhereham", "postcode": "QV99 1ZZ",
    }  # fmt: skip
    page.get_by_role("button", name="Undo").click()
    page.get_by_text("Everything is as it was before.").wait_for()
    assert filled(page) == {}
    expect(finder(page)).to_have_value("41b Zinc Parade, Nowhereham, qv99 1zz")


def test_going_on_by_hand_without_a_service_loses_nothing(form_page):
    page = form_page
    page.route("**/api/v1/**", lambda route: route.abort())
    finder(page).fill("41b Zinc Parade")
    page.get_by_role("button", name="Type the address in myself").first.click()
    expect(page.locator("#piano_street")).to_have_value("41b Zinc Parade")


def test_who_types_by_hand_at_once_is_not_overwritten_by_what_was_typed_before(form_page):
    page = form_page
    held = HeldFills(page)
    finder(page).fill("41b Zinc Parade")
    page.get_by_role("button", name="Type the address in myself").first.click()
    held.wait(page, 1)
    page.locator("#piano_street").fill("Other Lane")
    held.give(page, 0)
    assert filled(page) == {"street": "Other Lane"}
    expect(page.locator("#piano_street")).to_be_focused()


def test_enter_on_a_closed_list_takes_nothing(form_page):
    page = form_page
    finder(page).fill("16 abbey mews brackwater qv1 1aa")
    expect(rows(page)).to_have_count(1)
    page.keyboard.press("Escape")
    finder(page).press("Enter")
    page.wait_for_timeout(300)
    assert filled(page) == {}


def test_a_pick_in_another_country_that_gets_no_answer_leaves_the_country_alone(form_page, client):
    page = form_page
    label = client.suggest("1", country="FR", kinds=["address"], limit=1).suggestions[0].label
    page.route("**/fill*", lambda route: route.abort())
    finder(page).fill(label)
    rows(page).filter(has_text="France").first.click()
    page.get_by_text("Type the address in below").wait_for()
    expect(page.get_by_label("Country").first).to_have_value("GB")


def test_an_empty_forms_address_problem_is_at_the_finder(form_page):
    page = form_page
    person(page, "Empty Quill")
    page.get_by_role("button", name="Send").click()
    page.locator(".problem", has_text="Where the piano stands: an address is needed.").wait_for()
    assert focused(page) == "input"
    box = finder(page)
    expect(box).to_have_attribute("aria-invalid", "true")
    expect(box).to_have_attribute("aria-describedby", re.compile("problem"))
    expect(page.get_by_text("One thing needs your attention.")).to_be_visible()
    box.fill("k")
    expect(box).not_to_have_attribute("aria-invalid", "true")


def test_after_a_pick_the_focus_stays_or_goes_to_the_first_part_that_is_needed(form_page):
    page = form_page
    pick(page, "16 abbey mews", re.compile("^16 Abbey Mews"))
    assert focused(page) == "input"

    def without_town(route):
        answer = route.fetch().json()
        answer["values"]["piano_town"] = ""
        route.fulfill(json=answer)

    page.route("**/fill*", without_town)
    choose(page, "14 abbey mews", re.compile("^14 Abbey Mews"))
    expect(page.locator("#piano_town")).to_be_focused()


def test_on_a_phone_the_filled_parts_come_into_sight(phone, stack):
    phone.goto(f"{stack.url}/f/tuning-visit")
    phone.get_by_label("Your name").wait_for()
    pick(phone, "16 abbey mews", re.compile("^16 Abbey Mews"))
    expect(phone.locator("#piano_street")).to_be_in_viewport()


def test_a_second_pick_names_what_was_typed_by_hand_and_undo_brings_all_of_it_back(form_page):
    page = form_page
    pick(page, "14 abbey mews", re.compile("^14 Abbey Mews"))
    first = finder(page).input_value()
    page.get_by_role("button", name="Add more: ").click()
    page.locator("#piano_unit").fill("Loft 7")
    page.locator("#piano_number").fill("14a")
    choose(page, "16 abbey mews", re.compile("^16 Abbey Mews"))
    said = page.get_by_text(re.compile("Replaced what was typed:"))
    said.wait_for()
    expect(said).to_contain_text("Flat “Loft 7”")
    expect(said).to_contain_text("Number “14a”")
    expect(said).not_to_contain_text("Street")
    page.get_by_role("button", name="Undo").click()
    page.get_by_text("Everything is as it was before.").wait_for()
    assert filled(page) == {
        **ABBEY,
        "number": "14a",
        "unit": "Loft 7",
        "postcode": filled(page)["postcode"],
    }
    expect(finder(page)).to_have_value(first)


def test_undoing_the_first_pick_brings_back_what_was_typed(form_page):
    page = form_page
    pick(page, "16 abbey mews", re.compile("^16 Abbey Mews"))
    page.get_by_role("button", name="Undo").click()
    page.get_by_text("Everything is as it was before.").wait_for()
    assert filled(page) == {}
    expect(finder(page)).to_have_value("16 abbey mews")
    assert focused(page) == "input"


def test_an_address_of_another_country_is_found_and_its_country_chosen(form_page, client):
    page = form_page
    label = client.suggest("1", country="FR", kinds=["address"], limit=1).suggestions[0].label
    finder(page).fill(label)
    row = rows(page).filter(has_text="France").first
    row.wait_for()
    expect(page.get_by_text("Not found in United Kingdom.").first).to_be_visible()
    row.click()
    page.get_by_text(re.compile("fields filled")).wait_for()
    expect(page.get_by_label("Country").first).to_have_value("FR")
    expect(
        page.get_by_label(re.compile("^Code postal|^Postcode|^Postal code")).first
    ).to_be_visible()


def test_a_country_without_addresses_goes_straight_to_its_fields(form_page):
    page = form_page
    page.get_by_label("Send the bill to another address").check()
    country = page.locator("[id='billing:country']")
    country.select_option("AT")
    page.get_by_text(
        "There are no addresses of Austria to search in: type the address in."
    ).wait_for()
    expect(page.locator("#billing_street")).to_be_visible()
    box = page.locator(".slot").nth(2).locator("anchorline-finder")
    expect(box).to_be_hidden()
    country.select_option("GB")
    expect(box).to_be_visible()


@pytest.mark.parametrize(
    ("locale", "country", "label"),
    [("fr-FR", "FR", "Code postal"), ("de-DE", "DE", "Postleitzahl"), ("ar-EG", "GB", "Postcode")],
)
def test_labels_and_country_follow_the_language_of_the_browser(
    browser, stack, locale, country, label
):
    context = browser.new_context(locale=locale, reduced_motion="reduce")
    page = context.new_page()
    page.goto(f"{stack.url}/f/tuning-visit")
    chosen = page.locator("[id='piano:country']")
    expect(chosen).to_have_value(country)
    page.get_by_role("button", name="Type the address in myself").first.click()
    page.get_by_label(re.compile(f"^{label}")).first.wait_for()
    context.close()


def test_a_layouts_labels_in_the_language_of_an_egyptian_browser(browser, stack):
    context = browser.new_context(locale="ar-EG")
    page = context.new_page()
    page.route(
        re.compile("/api/v1/forms/tuning-visit$"),
        lambda route: route.fulfill(json=with_egypt(route.fetch().json())),
    )
    page.goto(f"{stack.url}/f/tuning-visit")
    expect(page.locator("[id='piano:country']")).to_have_value("EG")
    label = page.locator("label[for=piano_street]")
    expect(label).to_contain_text("الشارع")
    expect(label).to_have_attribute("lang", re.compile("^ar"))
    context.close()


def with_egypt(answer):
    for slot in answer["document"]["slots"]:
        slot["countries"].append("EG")
    return answer


def test_every_part_tells_autofill_what_it_is_in_its_own_section(form_page):
    page = form_page
    tokens = {
        part: page.locator(f"#piano_{part}").get_attribute("autocomplete")
        for part in ("organisation", "street", "town", "postcode", "number")
    }
    assert tokens == {
        "organisation": "section-piano organization",
        "street": "section-piano address-line1",
        "town": "section-piano address-level2",
        "postcode": "section-piano postal-code",
        "number": "off",
    }
    assert page.locator("#billing_town").get_attribute("autocomplete") == (
        "section-billing address-level2"
    )


@pytest.mark.parametrize("style", ["whole", "pages", "questions"])
def test_what_was_changed_by_hand_since_a_fill_is_asked_about_field_by_field(page, stack, style):
    parts = ["number", "street", "town", "postcode"]
    slot = {
        "key": "at", "label": "At", "countries": ["GB"],
        "parts": [{"key": f"at_{name}", "component": name} for name in parts],
        "mapping": [{"components": [name], "into": f"at_{name}"} for name in parts],
    }  # fmt: skip
    form = {"key": f"asked-{style}", "kind": "web", "title": "Asked", "style": style,
            "fields": [], "slots": [slot]}  # fmt: skip
    publish(stack, form)
    page.goto(f"{stack.url}/f/asked-{style}")
    pick(page, "16 abbey mews", re.compile("^16 Abbey Mews"))
    page.locator("#at_number").fill("16b")
    page.locator("#at_street").fill("Abbey Muse")
    pick(page, "14 abbey mews", re.compile("^14 Abbey Mews"))
    asked = page.get_by_role("group", name="What you had typed by hand was replaced:")
    expect(asked.get_by_text("now “14”")).to_be_visible()
    expect(page.locator("#at_number"), "one address, and no mixture of two").to_have_value("14")
    assert axe_faults(page) == []
    asked.get_by_role("button", name="Keep “16b”").click()
    expect(page.locator("#at_number")).to_have_value("16b")
    asked.get_by_role("button", name="It is fine so").click()
    asked.wait_for(state="hidden")
    expect(page.locator("#at_street")).to_have_value("Abbey Mews")
    pick(page, "16 abbey mews", re.compile("^16 Abbey Mews"))
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("#at_number")).to_have_value("16b")
    expect(asked).to_be_hidden()
