"""An administrator's own layout, from the first click to going back; forms follow."""

import re

import pytest
from playwright.sync_api import expect

from anchorline.store.schema_documents import DocumentVersionRow
from tests.states import ANY_STATE

from .conftest import axe_faults, finder, rows
from .drafts import kept, more, published

TITLE = "Letters to France and Belgium"
KEY = "letters-to-france-and-belgium"


@pytest.fixture
def afterwards(api):
    """Nothing of it is left for other tests."""
    yield
    for one in api.get("layouts/own").json()["own_layouts"]:
        api.delete(f"layouts/own/{one['key']}")


def begun(console, title=TITLE, countries=("France", "Belgium")):
    console.get_by_role("link", name="Country layouts").click()
    console.get_by_role("link", name="Own layouts").click()
    console.get_by_role("link", name="New own layout").click()
    console.get_by_label("Name", exact=True).fill(title)
    for name in countries:
        console.get_by_label("Countries").fill(name)
        console.get_by_role("option", name=re.compile(name)).first.wait_for(state="attached")
        console.keyboard.press("Enter")
    console.keyboard.press("Escape")
    console.get_by_role("button", name="Begin").click()
    console.get_by_role("heading", level=1, name=title).wait_for()
    console.get_by_label("Label of postcode").wait_for()


def side(console, title):
    return console.locator(".compared .ant-card", has=console.get_by_text(title, exact=True))


def labels(slot, country, page):
    slot.get_by_label("Country").select_option(label=country)
    expect(slot.locator(".message")).to_contain_text(f"The fields are now those of {country}")
    shown = slot.locator(".parts .field:visible label").all_inner_texts()
    return [text.removesuffix(" (needed)") for text in shown]


def unfolded(page, heading):
    slot = page.locator("fieldset.slot", has=page.locator("legend", has_text=heading))
    slot.get_by_role("button", name="Type the address in myself").click()
    return slot


def billing(page, stack):
    """The billing address of the public form."""
    page.goto(f"{stack.url}/f/tuning-visit")
    page.get_by_label("Send the bill to another address").check()
    return unfolded(page, "Billing address")


def home(page, stack):
    """The owner's address of the record form, in the console."""
    page.goto(f"{stack.url}/console/forms/instrument")
    return unfolded(page, "Owner's address")


def test_a_layout_for_two_countries_from_the_first_click_to_going_back(console, stack, afterwards):
    page = console
    before = {
        (where, country): labels(where(page, stack), country, page)
        for where in (billing, home)
        for country in ("France", "Belgium")
    }
    page.goto(f"{stack.url}/console/")
    begun(page)

    # Labels, what is hidden, a third line that is asked for and written.
    page.get_by_label("Label of postcode").fill("Post code")
    page.get_by_role("button", name="Hide Building").click()
    page.get_by_label("Never ask for a component").fill("region")
    page.keyboard.press("Enter")
    page.get_by_label("Label of a line of your own").fill("Third line")
    page.keyboard.press("Enter")
    page.get_by_label("Third line must be given").wait_for()
    page.get_by_role("button", name="Add a line at line 2").click()
    page.get_by_role("menuitem", name="Below: third_line").click()

    # The preview, beside what holds now, with a made-up address and with one of a record.
    then = side(page, "With this layout")
    then.get_by_label("Third line").fill("Second courtyard")
    expect(then.locator("address")).to_contain_text("Vale Pianos\nSecond courtyard")
    expect(side(page, "Without this layout").locator("address")).not_to_contain_text("courtyard")
    expect(side(page, "Without this layout").get_by_label("Building")).to_be_visible()
    expect(then.get_by_label("Building")).to_have_count(0)
    page.get_by_label("Address to try").click()
    of_record = page.get_by_title(re.compile("Léonie Dorvault"))
    street = of_record.first.inner_text().split(" · ")[1].split(",")[0]
    of_record.first.click()
    expect(then.locator("address")).to_contain_text(street)
    page.get_by_text("Belgium", exact=True).click()
    expect(then.get_by_label("Third line")).to_be_visible()
    expect(then.locator("address")).to_contain_text("Abbey Lane 12")
    assert axe_faults(page) == []

    kept(page)
    assert labels(billing(page, stack), "France", page) == before[billing, "France"]
    page.goto(f"{stack.url}/console/layouts/own/{KEY}")
    said = published(page)
    assert "France: Building is no longer asked for." in said, said

    for where in (billing, home):
        for country in ("France", "Belgium"):
            now = labels(where(page, stack), country, page)
            assert "Post code" in now, (where, country)
            assert "Third line" in now
            assert "Building" not in now
            assert "Region" not in now

    page.goto(f"{stack.url}/console/layouts/FR")
    expect(page.locator(".precedence")).to_contain_text(f"{TITLE} (everywhere), then the shipped")
    page.locator(".precedence").get_by_role("link", name=TITLE).click()
    page.get_by_role("button", name="Versions").click()
    drawer = page.get_by_role("dialog", name="Versions")
    expect(drawer).to_contain_text("holds now")
    drawer.get_by_role("button", name="Restore the base layouts").click()
    asked = page.get_by_role("dialog", name="Restore the base layouts?")
    asked.get_by_role("button", name="Restore them").click()
    page.get_by_text("The base layouts hold again.").wait_for()
    after = {(where, c): labels(where(page, stack), c, page) for where, c in before}
    assert after == before


def test_what_is_typed_into_the_third_line_is_kept_and_printed(console, stack, api, afterwards):
    document = {
        "key": "third", "title": "Third line", "countries": ["FR"],
        "ask": [{"extra": "third_line", "label": {"en": "Third line"}, "after": "organisation"}],
        "lines": [{"add": "third_line", "after": "organisation"}],
    }  # fmt: skip
    api.put("layouts/own/third/draft", json=document)
    assert api.post("layouts/own/third/publish", headers=ANY_STATE).status_code == 200
    page = console
    slot = billing(page, stack)
    labels(slot, "France", page)
    given = {
        "organisation": "Vale", "third_line": "Second courtyard", "street": "rue Haute",
        "number": "3", "postcode": "96001", "town": "Saint-Orvain",
    }  # fmt: skip
    for name, value in given.items():
        page.locator(f"#billing_{name}").fill(value)
    piano = unfolded(page, "Where the piano stands")
    for name, value in {
        "street": "Abbey Mews",
        "town": "Brackwater",
        "postcode": "QV1 1AA",
    }.items():
        piano.locator(f"#piano_{name}").fill(value)
    page.get_by_label("Your name").fill("Ana Vale")
    page.get_by_role("textbox", name="Phone").fill("+44 20 7946 0123")
    page.get_by_label("What is it about?").select_option("tuning")
    with page.expect_response(lambda r: r.url.endswith("/records")) as sent:
        page.get_by_role("button", name="Send").click()
    record = sent.value.json()
    assert sent.value.status == 201, record
    page.goto(f"{stack.url}/console/records/{record['id']}")
    card = page.locator(".ant-card", has=page.get_by_role("heading", name="Billing address"))
    expect(card.locator("address")).to_contain_text("Vale\nSecond courtyard\n3 rue Haute")
    expect(card).to_contain_text("third@1")


def test_a_line_that_cannot_be_read_stays_as_it_was_typed_and_says_where(console, afterwards):
    page = console
    begun(page)
    line = page.get_by_label("Line 5", exact=True)
    expect(line).to_have_value("number street")
    line.fill("number strete")
    page.get_by_text("There is no component 'strete'. Did you mean street?").wait_for()
    expect(line).to_have_value("number strete")
    kept(page)
    page.get_by_role("button", name="Publish …").click()
    dialog = page.get_by_role("dialog", name="Publish")
    expect(dialog).to_contain_text("There is no component 'strete'.")
    expect(dialog.get_by_role("button", name="Publish", exact=True)).to_be_disabled()
    dialog.get_by_role("button", name="Not yet").click()
    page.reload()
    expect(line, "what is wrong is kept as well").to_have_value("number strete")
    line.fill("street number")
    page.get_by_text("The line “number street” becomes “street number”.").wait_for()
    page.get_by_role("button", name="Line 5 as it was").click()
    expect(line).to_have_value("number street")


def test_what_must_be_given_cannot_be_hidden_without_saying_so(console, afterwards):
    page = console
    begun(page)
    page.get_by_role("button", name="Hide Town").click()
    page.get_by_text("France or Belgium requires town: hidden, nobody could give it.").wait_for()
    page.get_by_role("button", name="It may be left out").click()
    expect(page.get_by_text("nobody could give it")).to_have_count(0)
    page.get_by_role("button", name="Show town again").click()
    page.get_by_label("Label of town").wait_for()


def test_components_are_moved_by_keyboard_and_back_leaves_nothing(console, afterwards):
    page = console
    begun(page)
    page.set_viewport_size({"width": 800, "height": 800})
    assert page.evaluate("document.documentElement.scrollWidth") <= 800
    up = page.get_by_role("button", name="Move Town up")
    up.focus()
    for _ in range(3):
        page.keyboard.press("Enter")
    order = page.locator(".ask-row .key")
    expect(order.nth(5)).to_have_text("town")
    page.get_by_text("Town is asked for after Street.").wait_for()
    page.get_by_role("button", name="Move Town down").focus()
    for _ in range(3):
        page.keyboard.press("Enter")
    expect(order.last).to_have_text("town")
    page.get_by_text("Nothing yet.", exact=True).wait_for()


def test_the_list_of_own_layouts_says_where_each_holds(console, stack, api, afterwards):
    change = [{"component": "town", "label": {"en": "City"}}]
    for key, forms in (("all-over", []), ("one-form", ["instrument"])):
        document = {"key": key, "title": key, "countries": ["FR"], "forms": forms, "ask": change}
        api.put(f"layouts/own/{key}/draft", json=document)
        assert api.post(f"layouts/own/{key}/publish", headers=ANY_STATE).status_code == 200
    page = console
    page.goto(f"{stack.url}/console/layouts/own")
    expect(page.get_by_role("row", name=re.compile("all-over"))).to_contain_text("everywhere")
    expect(page.get_by_role("row", name=re.compile("one-form"))).to_contain_text("Instrument")
    assert axe_faults(page) == []
    page.goto(f"{stack.url}/console/layouts/FR")
    page.get_by_label("On which form").click()
    page.get_by_title("On Instrument").click()
    expect(page.locator(".precedence")).to_contain_text(
        "one-form (for named forms), then all-over (everywhere), then the shipped layout."
    )
    page.goto(f"{stack.url}/console/layouts/own/one-form")
    more(page, "Delete …")
    page.get_by_role("button", name="Delete it").click()
    expect(page.get_by_role("row", name=re.compile("one-form"))).to_have_count(0)
    expect(page.get_by_role("row", name=re.compile("all-over"))).to_be_visible()


def test_what_is_hidden_is_filled_and_kept_but_never_shown(console, stack, api, afterwards):
    document = {
        "key": "no-state", "title": "No state", "countries": ["US"],
        "ask": [{"component": "region_code", "hidden": True, "required": False}],
    }  # fmt: skip
    api.put("layouts/own/no-state/draft", json=document)
    assert api.post("layouts/own/no-state/publish", headers=ANY_STATE).status_code == 200
    page = console
    page.goto(f"{stack.url}/f/tuning-visit")
    page.get_by_label("Country").first.select_option("US")
    group = api.get("suggest", params={"q": "oak", "country": "US", "kinds": "street"}).json()
    inside = api.get("suggest", params={"within": group["suggestions"][0]["id"]}).json()
    finder(page).fill(inside["suggestions"][0]["label"])
    rows(page).first.click()
    page.get_by_text(re.compile(r"fields? filled")).wait_for()
    expect(page.locator("#piano_region_code")).to_be_hidden()
    expect(page.locator("#piano_region_code")).not_to_have_value("")


def test_a_conflict_with_a_newer_shipped_layout_is_shown_and_kept(
    console, stack, api, stack_database, afterwards
):
    change = [{"component": "town", "label": {"en": "City"}}]
    document = {"key": "older", "title": "Older", "countries": ["FR"], "ask": change}
    api.put("layouts/own/older/draft", json=document)
    version = api.post("layouts/own/older/publish", headers=ANY_STATE).json()["published_version"]

    def work(session):
        kept = session.get(DocumentVersionRow, ("own_layout", "older", version))
        kept.base = {"FR": {"ask": {"town": {"labels": {"en": "Post town"}, "required": True}},
                              "lines": {}}}  # fmt: skip

    stack_database.run(work)
    page = console
    page.goto(f"{stack.url}/console/layouts/own")
    expect(page.get_by_role("row", name=re.compile("Older"))).to_contain_text("1 to look at")
    page.get_by_role("link", name="Older").click()
    page.get_by_text("The shipped layout of FR calls town “Town” now (en).").wait_for()
    assert axe_faults(page) == []
    assert published(page) == []
    page.get_by_text(f"Version {version + 1} is published.").wait_for()
    expect(page.get_by_text("calls town “Town” now")).to_have_count(0)
