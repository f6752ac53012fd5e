"""Keys in the console: made with what they need, shown once, rotated and ended."""

from playwright.sync_api import expect

from .conftest import axe_faults


def test_a_key_for_pages_is_made_rotated_and_ended(console, stack):
    page = console
    page.get_by_role("link", name="Keys").click()
    page.get_by_role("button", name="New key").click()
    dialog = page.get_by_role("dialog", name="New key")
    dialog.get_by_role("button", name="Make it").click()
    expect(dialog.get_by_text("Say what the key is for.")).to_be_visible()
    expect(dialog.get_by_text("A browser key needs the web origins")).to_be_visible()
    dialog.get_by_label("What it is for").fill("Shop on trial")
    dialog.get_by_label("Origins of its pages").click()
    page.keyboard.type("shop.example")
    page.keyboard.press("Enter")
    dialog.get_by_label("Forms that it may be used for").click()
    page.keyboard.type("Venue")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    dialog.get_by_role("button", name="Make it").click()
    expect(dialog.get_by_text("'shop.example' is no web origin")).to_be_visible()
    dialog.get_by_label("Origins of its pages").click()
    page.keyboard.press("Backspace")
    page.keyboard.type("https://Shop.example/")
    page.keyboard.press("Enter")
    assert axe_faults(page) == []
    dialog.get_by_role("button", name="Make it").click()
    told = page.get_by_role("dialog", name="The key “Shop on trial”")
    secret = told.get_by_label("The key", exact=True).inner_text()
    headers = {"Authorization": f"Bearer {secret}", "Origin": "https://shop.example"}
    with stack.http(None) as http:
        assert http.get("/api/v1/forms/venue", headers=headers).status_code == 200
    told.get_by_role("button", name="I have kept it").click()
    line = page.get_by_role("row", name="Shop on trial")
    expect(line.get_by_text("from https://shop.example")).to_be_visible()
    line.get_by_role("button", name="Rotate").click()
    page.get_by_role("tooltip").get_by_role("button", name="Rotate").click()
    again = page.get_by_role("dialog", name="The key “Shop on trial”")
    expect(again.get_by_label("The key", exact=True)).not_to_have_text(secret)
    expect(again.get_by_text("The secret before goes on until")).to_be_visible()
    again.get_by_role("button", name="I have kept it").click()
    line.get_by_role("button", name="End").click()
    page.get_by_role("button", name="End it").click()
    expect(line.get_by_text("ended")).to_be_visible()
    expect(line.get_by_role("button")).to_have_count(0)
    assert axe_faults(page) == []


def test_a_key_for_a_program_gets_the_scopes_that_are_ticked(console, stack):
    page = console
    page.goto(f"{stack.url}/console/keys")
    page.get_by_role("button", name="New key").click()
    page.get_by_label("A program: it stays secret").check()
    page.get_by_label("What it is for").fill("Order system on trial")
    page.get_by_label("find: find addresses").check()
    page.get_by_role("button", name="Make it").click()
    page.get_by_role("button", name="I have kept it").click()
    line = page.get_by_role("row", name="Order system on trial")
    expect(line.locator(".ant-tag", has_text="find")).to_be_visible()
    expect(line.get_by_text("never")).to_be_visible()
