"""How well capture goes is counted on the page and told when it is left: never what was typed."""

import pytest

from anchorline.client import Client
from tests.waiting import wait_until

from .conftest import finder, rows
from .pages import TARGET, write_page

NONE = dict.fromkeys(
    ("shown", "begun", "picked", "partly", "by_hand", "changed", "left", "keys", "characters"), 0
)


@pytest.fixture
def counted(stack, client):
    """Does something on a page, leaves it, and returns what that added to today's counts."""

    def of(kind, name):
        days = client.activity.quality(kind=kind, name=name).days
        return days[-1].counts.model_dump() if days else NONE

    def added(kind, name, page, doing, least=1):
        before = of(kind, name)
        doing()
        page.goto("about:blank")
        wait_until(lambda: of(kind, name)["shown"] >= before["shown"] + least)
        after = of(kind, name)
        return {one: after[one] - before[one] for one in after if after[one] != before[one]}

    return added


def test_a_pick_a_change_after_it_and_the_keys_for_it_are_counted(form_page, counted):
    page = form_page

    def doing():
        finder(page).press_sequentially("16 abb")
        rows(page).filter(has_text="16 Abbey Mews").first.click()
        page.get_by_text("4 fields filled.").wait_for()
        page.locator("#piano_town").fill("Brackwater by Sea")

    filled = len("16Abbey MewsBrackwaterQV1 1AA")
    assert counted("form", "tuning-visit", page, doing) == {
        "shown": 1, "begun": 1, "picked": 1, "changed": 1, "keys": 6, "characters": filled,
    }  # fmt: skip


def test_what_is_begun_and_left_and_what_is_not_found_is_counted(form_page, counted, client):
    page = form_page

    def doing():
        finder(page).press_sequentially("qqzzq 7")
        page.get_by_text("Nothing found").first.wait_for()
        page.wait_for_timeout(1300)

    assert counted("form", "tuning-visit", page, doing) == {
        "shown": 1, "begun": 1, "left": 1, "keys": 7,
    }  # fmt: skip
    known = client.activity.quality(kind="form", name="tuning-visit").not_found
    assert [one.text for one in known] == [None] * len(known), "a digest, and not what was typed"
    assert known


def test_an_address_that_is_typed_by_hand_is_counted(form_page, counted):
    page = form_page

    def doing():
        page.get_by_role("button", name="Type the address in myself").first.click()
        page.locator("#piano_street").fill("Gritstone Row")

    assert counted("form", "tuning-visit", page, doing) == {"shown": 1, "begun": 1, "by_hand": 1}


def test_nothing_is_counted_where_the_browser_asks_not_to_be_followed(browser, stack, client):
    context = browser.new_context(locale="en-GB")
    context.add_init_script(
        "Object.defineProperty(navigator, 'globalPrivacyControl', {get: () => true})"
    )
    page = context.new_page()
    asked = []
    page.on("request", lambda request: asked.append(request.url))
    page.goto(f"{stack.url}/f/tuning-visit")
    finder(page).fill("16 abbey mews")
    rows(page).first.click()
    page.get_by_text("fields filled").wait_for()
    page.goto("about:blank")
    page.wait_for_timeout(300)
    context.close()
    assert asked
    assert not [url for url in asked if "capture-counts" in url]


@pytest.mark.parametrize("count", ["yes", "no"])
def test_captures_on_pages_of_others_are_counted_unless_they_say_no(
    page, shop, stack, client, counted, count
):
    origin, folder = shop
    document = {**TARGET, "key": "counted", "origins": [origin]}
    with Client(stack.url, stack.access["server_key"]) as server:
        server.targets.put_draft(document_of(document))
        server.targets.publish("counted")
        key = server.keys.make("browser", "Shop", origins=[origin], targets=["counted"])
        attributes = {"count": "no"} if count == "no" else {}
        write_page(folder, "plain", stack.url, key.secret, target="counted", **attributes)
        asked = []
        page.on("request", lambda request: asked.append(request.url))
        page.goto(origin)

        def doing():
            page.get_by_role("combobox", name="Find your address").fill("16 abbey mews")
            page.get_by_role("option").filter(has_text="16 Abbey Mews").first.click()
            page.wait_for_function("window.got.country === '2'")
            page.get_by_label("Town").fill("Elsewhere")

        added = counted("target", "counted", page, doing, least=int(count == "yes"))
        if count == "yes":
            assert {name: added[name] for name in ("shown", "begun", "picked", "changed")} == {
                "shown": 1, "begun": 1, "picked": 1, "changed": 1,
            }  # fmt: skip
        else:
            assert added == {}
            assert not [url for url in asked if "capture-counts" in url]
        server.keys.end(key.key.id)
        server.targets.delete("counted")


def document_of(document):
    from anchorline.client import PageTargetDocument

    return PageTargetDocument.model_validate(document)
