"""What a person meets at an address: location, maps, the same as another, phones, what is kept for later."""

import re

import pytest
from playwright.sync_api import expect

from .conftest import PATIENCE_MS, axe_faults, finder, publish, rows, watched

PARTS = ("unit", "number", "street", "town", "postcode")
ABBEY = {"latitude": 51.535459, "longitude": -2.880898}


def slot(key, **settings):
    return {
        "key": key, "label": key.title(), "countries": ["GB", "DE"], "country": "GB", "required": False,
        "parts": [{"key": f"{key}_{name}", "component": name} for name in PARTS],
        "mapping": [{"components": [name], "into": f"{key}_{name}"} for name in PARTS], **settings,
    }  # fmt: skip


FORM = {
    "key": "slots", "kind": "web", "title": "Slots",
    "fields": [
        {"key": "name", "label": "Name", "required": True},
        {"key": "phone", "label": "Phone", "type": "phone", "phone": {"slot": "home", "first": ["IE"]}},
        {"key": "german", "label": "German phone", "type": "phone", "phone": {"country": "DE", "only": ["DE", "AT"]}},
        {"key": "agreed", "label": "I agree", "type": "consent"},
        {"slot": "home"}, {"slot": "work"},
        {"key": "where", "label": "Meeting point"}, {"slot": "meeting"},
    ],
    "slots": [
        slot("home", location=True, map={"place": "below"}, appearance="one_box"),
        slot("work", same_as="home"),
        slot("meeting", map={"place": "below", "follows": "where"}, appearance="parts_only"),
    ],
}  # fmt: skip


@pytest.fixture(scope="module")
def form(stack):
    publish(stack, FORM)
    phone = {"key": "phone", "label": "Phone", "type": "phone"}
    publish(stack, {**FORM, "key": "slots-short", "slots": FORM["slots"][:1],
                    "fields": [phone, {"slot": "home"}]})  # fmt: skip
    publish(stack, {**FORM, "key": "slots-no-guess", "slots": [], "fields": [phone]})


@pytest.fixture
def visit(browser, stack, form):
    """Opens the form as somebody whose browser is made so."""
    contexts = []

    def opened(key="slots", script="", **context):
        context = {"locale": "en-GB", "reduced_motion": "reduce", **context}
        contexts.append(browser.new_context(**context))
        page = watched(contexts[-1])
        if script:
            page.add_init_script(script)
        page.goto(f"{stack.url}/f/{key}")
        page.get_by_role("heading", name=re.compile("Slots")).wait_for()
        return page

    yield opened
    for context in contexts:
        assert all(page.faults == [] for page in context.pages)
        context.close()


def group(page, name):
    return page.get_by_role("group", name=name, exact=True)


def pick(page, name, text="16 abbey mews", row="^16 Abbey Mews"):
    finder(group(page, name)).fill(text)
    rows(page).filter(has_text=re.compile(row)).first.click()
    group(page, name).get_by_text(re.compile("filled|known")).wait_for()


def failing(code):
    return (
        "navigator.geolocation.getCurrentPosition = (found, failed) => setTimeout(() => "
        f"failed({{code: {code}, message: ''}}));"
    )


# Location


def test_a_location_that_is_known_closely_offers_what_is_near(visit):
    page = visit(geolocation={**ABBEY, "accuracy": 8}, permissions=["geolocation"])
    home = group(page, "Home")
    home.get_by_role("button", name="Use my location").click()
    near = home.locator(".near-list button")
    expect(near.first).to_be_focused()
    expect(near.first).to_have_text("16 Abbey Mews, Brackwater, QV1 1AA0 m")
    expect(home.get_by_text(re.compile(r"^\d addresses near you:$"))).to_be_visible()
    assert axe_faults(page) == []
    page.keyboard.press("Enter")
    expect(home.locator(".filled-lines .lines")).to_have_text("16 Abbey Mews\nBRACKWATER\nQV1 1AA")


@pytest.mark.parametrize(
    ("browser_is", "said"),
    [
        ({"script": failing(1)}, "You did not allow your location to be used."),
        ({"script": failing(2)}, "Your device does not know where it is."),
        ({"script": failing(3)}, "Your device took too long to find where it is."),
        ({"script": "Object.defineProperty(window, 'isSecureContext', {value: false});"},
         "on a secure page (https) only"),
        ({"geolocation": {"latitude": 0, "longitude": 0, "accuracy": 5}, "permissions": ["geolocation"]},
         "There is no address near you"),
        ({"geolocation": {**ABBEY, "accuracy": 340}, "permissions": ["geolocation"]},
         "to within 340 m only"),
    ],
)  # fmt: skip
def test_what_keeps_a_location_from_being_used_is_said(visit, browser_is, said):
    page = visit(**browser_is)
    home = group(page, "Home")
    home.get_by_role("button", name="Use my location").click()
    expect(home.locator(".location [role=status]")).to_contain_text(said)
    expect(home.get_by_role("button", name="Use my location")).to_be_enabled()
    expect(home.locator(".near-list button").first).to_be_visible(visible="340" in said)


# Map


def test_a_map_follows_the_address_and_its_pin_can_be_moved(visit, client):
    page = visit()
    home = group(page, "Home")
    expect(home.locator(".slot-map")).to_be_hidden()
    pick(page, "Home")
    said = home.locator(".slot-map [role=status]")
    expect(said).to_have_text("The pin is at 51.53546, -2.88090.")
    # Without tiles the addresses around are drawn.
    home.locator("path.map-dot").nth(3).wait_for(state="attached")
    pin = home.get_by_role("button", name="Pin; drag it")
    pin.focus()
    for _ in range(4):
        page.keyboard.press("ArrowUp")
    expect(said).to_have_text(
        "The pin is at 51.53554, -2.88090. It was moved 9 m from the address."
    )
    assert axe_faults(page) == []
    home.get_by_role("button", name="Put the pin back").click()
    expect(said).to_have_text("The pin is at 51.53546, -2.88090.")
    pin.focus()
    page.keyboard.press("ArrowUp")
    page.get_by_label("Name").fill("Pin")
    page.get_by_label("I agree").check()
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    kept = client.record(page.locator("code").inner_text()).slots["home"].position
    assert (kept.source, kept.distance_m) == ("pin", 2)


def test_a_map_follows_what_is_typed_by_hand(visit):
    page = visit()
    home = group(page, "Home")
    home.get_by_role("button", name="Type the address in myself").click()
    home.locator("#home_street").fill("Kiln Crescent")
    home.locator("#home_town").fill("Brackwater")
    said = home.locator(".slot-map [role=status]")
    expect(said).to_contain_text("The middle of Kiln Crescent")
    home.locator("#home_number").fill("12")
    expect(said).to_have_text(re.compile(r"^The pin is at 51\.5\d+, -2\.8\d+\.$"))


def test_a_map_follows_a_field_and_stays_where_nothing_is_found(visit):
    page = visit()
    said = group(page, "Meeting").locator(".slot-map [role=status]")
    page.get_by_label("Meeting point").fill("QV1")
    expect(said).to_have_text(re.compile(r"^The middle of QV1, of \d+ addresses, at 51"))
    page.get_by_label("Meeting point").fill("qqqqzzzz")
    expect(said).to_have_text("Nothing was found for this: the map stays where it was.")
    page.get_by_label("Meeting point").fill("16 abbey mews brackwater")
    expect(said).to_have_text("The pin is at 51.53546, -2.88090.")


def test_a_map_takes_its_tiles_from_where_it_is_told(visit):
    page = visit()
    asked = []

    def tile(route):
        asked.append(route.request.url)
        route.fulfill(
            status=200,
            content_type="image/svg+xml",
            body="<svg xmlns='http://www.w3.org/2000/svg'/>",
        )

    def form(route):
        answer = route.fetch()
        tiles = {"address": "/tiles/{z}/{x}/{y}.svg", "attribution": "<b>Made up</b> maps"}
        route.fulfill(response=answer, json={**answer.json(), "tiles": tiles})

    page.route("**/tiles/**", tile)
    page.route("**/api/v1/forms/slots", form)
    page.reload()
    pick(page, "Home")
    home = group(page, "Home")
    expect(home.get_by_text("<b>Made up</b> maps")).to_be_visible()
    home.locator("img.leaflet-tile").first.wait_for(state="attached")
    assert re.search(r"/tiles/17/\d+/\d+\.svg$", asked[0])
    expect(home.locator("path.map-dot")).to_have_count(0)


# The same as another


def test_an_address_follows_another_until_it_is_changed(visit):
    page = visit()
    pick(page, "Home")
    work = group(page, "Work")
    work.get_by_role("checkbox", name="The same as: Home").check()
    expect(work.locator("#work_number")).to_have_value("16")
    pick(page, "Home", "14 abbey mews", "^14 Abbey Mews")
    expect(work.locator("#work_number")).to_have_value("14")
    work.locator("#work_number").fill("14b")
    expect(work.get_by_role("checkbox")).not_to_be_checked()
    pick(page, "Home")
    page.wait_for_timeout(600)
    expect(work.locator("#work_number")).to_have_value("14b")


def test_an_address_that_is_not_there_yet_cannot_be_taken(visit):
    work = group(visit(), "Work")
    work.get_by_role("checkbox", name="The same as: Home").check()
    expect(work.get_by_text("“Home” has no address yet.")).to_be_visible()


# As far as it goes


def test_a_number_that_the_street_lacks_is_taken_as_typed(visit):
    page = visit()
    work = group(page, "Work")
    finder(work).fill("kiln crescent brackwater")
    rows(page).filter(has_text="Kiln Crescent").first.click()
    page.keyboard.type("999")
    take = work.get_by_role("option", name="Take “999” as typed in Kiln Crescent, Brackwater")
    take.wait_for()
    take.click()
    expect(work.locator("#work_number")).to_have_value("999")
    expect(work.locator("#work_street")).to_have_value("Kiln Crescent")


# Phones


def test_a_dial_code_is_guessed_from_the_address_the_form_and_the_browser(visit):
    page = visit()
    code = page.get_by_role("combobox", name="Dial code: Phone")
    expect(code).to_have_value("GB +44")
    expect(page.get_by_role("combobox", name="Dial code: German phone")).to_have_value("DE +49")
    group(page, "Home").get_by_label("Country").select_option("DE")
    expect(code).to_have_value("DE +49")
    french = visit("slots-no-guess", locale="fr-FR")
    expect(french.get_by_role("combobox", name=re.compile("Dial code|Indicatif"))).to_have_value(
        "FR +33"
    )


def test_a_dial_code_is_found_by_name_and_a_number_checked_when_it_is_left(visit):
    page = visit()
    code, number = (
        page.get_by_role("combobox", name="Dial code: Phone"),
        page.get_by_role("textbox", name="Phone", exact=True),
    )
    code.click()
    options = page.locator("[id='phone:dial-codes'] [role=option]")
    expect(options.first).to_have_text("Ireland +353"), "what the form puts first"
    code.fill("japan")
    page.keyboard.press("Enter")
    expect(code).to_have_value("JP +81")
    expect(number).to_be_focused()
    page.keyboard.type("03 12")
    problem = page.locator("[id='phone:problem']")
    expect(problem).to_be_hidden()
    page.keyboard.press("Tab")
    expect(problem).to_have_text("This is not a phone number; give all its digits.")
    number.fill("03 1234 5678")
    expect(problem).to_be_hidden()
    page.keyboard.press("Tab")
    expect(number).to_have_value("3-1234-5678")
    number.fill("+44 20 7946 0123")
    page.keyboard.press("Tab")
    expect(code).to_have_value("GB +44")
    german = page.get_by_role("textbox", name="German phone")
    german.fill("+44 20 7946 0123")
    page.keyboard.press("Tab")
    expect(page.locator("[id='german:problem']")).to_have_text(
        "Numbers of United Kingdom are not taken here."
    )
    assert axe_faults(page) == []


# Filling


def test_what_was_typed_survives_a_reload_and_is_gone_once_it_is_sent(visit, client):
    page = visit()
    page.get_by_label("Name").fill("Reloaded")
    page.get_by_label("I agree").check()
    pick(page, "Home")
    page.wait_for_function("() => Object.keys(sessionStorage).length === 1")
    page.wait_for_timeout(500)
    page.reload()
    expect(page.get_by_text("What you typed here before is still there.")).to_be_visible()
    expect(page.get_by_label("Name")).to_have_value("")
    page.get_by_role("button", name="Put it back").click()
    expect(page.get_by_label("Name")).to_have_value("Reloaded")
    expect(page.get_by_label("I agree")).not_to_be_checked()
    expect(finder(group(page, "Home"))).to_have_value("16 Abbey Mews, Brackwater, QV1 1AA")
    page.get_by_label("I agree").check()
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert record.slots["home"].address_id == "demo:GB0000012"
    assert page.evaluate("Object.keys(sessionStorage).length") == 0
    page.reload()
    page.get_by_label("Name").wait_for()
    expect(page.get_by_text("What you typed here before is still there.")).to_be_hidden()


def test_who_starts_anew_finds_nothing_of_it_again(visit):
    page = visit()
    page.get_by_label("Name").fill("Left")
    page.wait_for_function("() => Object.keys(sessionStorage).length === 1")
    page.reload()
    page.get_by_role("button", name="Start anew").click()
    assert page.evaluate("Object.keys(sessionStorage).length") == 0
    expect(page.get_by_text("What you typed here before is still there.")).to_be_hidden()


def test_problems_are_gathered_above_with_a_way_to_each(visit):
    page = visit()
    page.get_by_role("button", name="Send").click()
    alert = page.get_by_role("alert")
    expect(alert).to_contain_text("2 things need your attention.")
    expect(page.get_by_label("Name")).to_be_focused()
    alert.get_by_role("link", name="I agree").click()
    expect(page.get_by_label("I agree")).to_be_focused()
    top, first = alert.bounding_box()["y"], page.get_by_label("Name").bounding_box()["y"]
    assert top < first
    assert axe_faults(page) == []


def test_a_filled_address_in_one_box_is_short_on_a_phone(visit):
    page = visit(viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True)
    pick(page, "Home")
    home = group(page, "Home")
    expect(home.locator(".slot-map .map-pin")).to_be_visible()
    assert home.bounding_box()["height"] < 844
    assert page.evaluate("document.documentElement.scrollWidth") == 390


def test_what_a_browser_fills_in_by_itself_is_taken_as_typed(visit, client):
    page = visit()
    page.get_by_label("Name").fill("Autofill")
    page.get_by_label("I agree").check()
    work = group(page, "Work")
    work.get_by_role("button", name="Type the address in myself").click()
    for name, text in (("street", "Any Lane"), ("town", "Marl"), ("postcode", "QV1 1AA")):
        field = work.locator(f"#work_{name}")
        assert field.get_attribute("autocomplete").startswith("section-work ")
        field.evaluate(
            "(box, text) => { box.value = text; for (const kind of ['input', 'change'])"
            " box.dispatchEvent(new Event(kind, {bubbles: true})); }", text)  # fmt: skip
    expect(finder(work)).to_have_attribute("autocomplete", "off")
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    address = client.record(page.locator("code").inner_text()).slots["work"]
    assert (address.lines, address.address_id) == (["Any Lane", "MARL", "QV1 1AA"], None)


def test_a_form_that_goes_leaves_nothing_behind(visit):
    page = visit("slots-short")
    session = page.context.new_cdp_session(page)
    session.send("Performance.enable")

    def counted():
        session.send("HeapProfiler.collectGarbage")
        metrics = {m["name"]: m["value"] for m in session.send("Performance.getMetrics")["metrics"]}
        return metrics["JSEventListeners"], metrics["Nodes"]

    swap = """async times => {
      const form = document.querySelector('anchorline-form'), place = form.parentElement;
      const made = () => { const one = form.cloneNode(); one.design = window.design; return one; };
      window.design ??= JSON.parse(JSON.stringify(form.loaded));
      for (let n = 0; n < times; n++) {
        const one = made();
        place.append(one);
        await 0;
        one.remove();
        await 0;
      }
      await new Promise(go => setTimeout(go, 300));
    }"""
    page.evaluate(swap, 50)
    before, globals_before = counted(), page.evaluate("Object.keys(window).length")
    page.evaluate(swap, 1000)
    page.wait_for_timeout(min(1000, PATIENCE_MS))
    after = counted()
    # One that stayed of each form would be a thousand.
    assert after[0] <= before[0] + 500, (before, after)
    assert after[1] <= before[1] + 900, (before, after)
    assert page.evaluate("Object.keys(window).length") == globals_before


def test_the_parts_of_an_address_are_announced_as_what_they_are(visit):
    page = visit()
    home = group(page, "Home")
    expect(home).to_have_role("group")
    box = finder(home)
    expect(box).to_have_attribute("aria-autocomplete", "list")
    box.fill("16 abbey mews")
    expect(box).to_have_attribute("aria-expanded", "true")
    expect(home.get_by_role("listbox", name="Suggestions: Find the address")).to_be_visible()
    expect(home.get_by_role("status").filter(has_text="arrow keys to choose")).to_be_visible()
    page.keyboard.press("ArrowDown")
    expect(
        home.get_by_role("option", selected=True).filter(has_text="16 Abbey Mews")
    ).to_be_visible()
    page.keyboard.press("Enter")
    expect(box).to_have_attribute("aria-expanded", "false")
    expect(home.get_by_role("status").filter(has_text="4 fields filled.")).to_be_visible()
    expect(home.get_by_role("button", name="Undo")).to_be_visible()
    expect(home.get_by_role("button", name="Change")).to_be_visible()
    shown = home.get_by_role("region", name="Map: Home")
    expect(
        shown.get_by_role("button", name="Pin; drag it, or move it with the arrow keys")
    ).to_be_visible()
    expect(shown.get_by_role("status")).to_have_text("The pin is at 51.53546, -2.88090.")


STYLES = ("whole", "pages", "questions")


@pytest.fixture(scope="module")
def styled(stack):
    """The same form in each style, two steps long."""
    for style in STYLES:
        fields = [{"key": "p1", "type": "page", "label": "You"}, FORM["fields"][0], FORM["fields"][1],
                  {"key": "p2", "type": "page", "label": "Where"}, {"slot": "home"}]  # fmt: skip
        slots = [slot("home", location=True, map={"place": "below"}, appearance="one_box")]
        publish(
            stack,
            {**FORM, "key": f"keys-{style}", "style": style, "fields": fields, "slots": slots},
        )


@pytest.mark.parametrize("style", STYLES)
def test_each_style_is_filled_by_keyboard_alone(visit, styled, client, style):
    page = visit(f"keys-{style}")
    press, write = page.keyboard.press, page.keyboard.type

    def tab_to(what):
        for _ in range(40):
            press("Tab")
            if what.evaluate("e => e.getRootNode().activeElement === e"):
                return
        raise AssertionError(f"{what} cannot be come to")

    def go_on():
        if style != "whole":
            tab_to(page.get_by_role("button", name="Next"))
            press("Enter")

    tab_to(page.get_by_label("Name"))
    write("Keys")
    if style == "questions":
        go_on()
    tab_to(page.get_by_role("textbox", name="Phone", exact=True))
    write("020 7946 0123")
    go_on()
    home = group(page, "Home")
    tab_to(finder(home))
    write("16 abbey mews")
    rows(page).first.wait_for()
    press("ArrowDown")
    press("Enter")
    expect(home.get_by_role("button", name="Change")).to_be_visible()
    tab_to(home.get_by_role("button", name="Pin; drag it"))
    press("ArrowUp")
    expect(home.locator(".slot-map [role=status]")).to_contain_text("It was moved 2 m")
    tab_to(home.get_by_role("button", name="Change"))
    press("Enter")
    expect(home.locator("#home_unit")).to_be_focused()
    assert axe_faults(page) == []
    tab_to(page.get_by_role("button", name="Send"))
    press("Enter")
    expect(page.get_by_role("heading", name="Thank you")).to_be_focused()
    record = client.record(page.locator("code").inner_text())
    assert (record.values["phone"], record.slots["home"].position.distance_m) == (
        "+442079460123",
        2,
    )


def test_a_closed_form_on_somebody_elses_page_says_so(visit, stack, client):
    page = visit()
    publish(
        stack,
        {**FORM, "key": "slots-closed", "public": {"closed": True, "closed_text": "Back in May."}},
    )
    key = client.keys.make("browser", "Closed", origins=[stack.url], forms=["slots-closed"])
    page.evaluate("document.querySelector('anchorline-form').setAttribute('form', 'slots-closed')")
    page.evaluate(
        "(key) => { const form = document.querySelector('anchorline-form');"
        " form.setAttribute('access', key); form.load(); }", key.secret)  # fmt: skip
    expect(page.get_by_text("Back in May.")).to_be_visible()
    expect(page.get_by_role("button", name="Send")).to_be_hidden()


def test_nothing_moves_when_a_field_is_found_wrong_after_it_was_left(visit):
    page = visit()
    page.get_by_role("textbox", name="Phone", exact=True).fill("12")
    before = page.get_by_label("I agree").bounding_box()["y"]
    page.keyboard.press("Tab")
    expect(page.locator("[id='phone:problem']")).to_have_text(
        "This is not a phone number; give all its digits."
    )
    assert page.get_by_label("I agree").bounding_box()["y"] == before
