"""The shop of the demo: a page of another origin, whose own fields one pick fills."""

import json

import pytest
from playwright.sync_api import expect

from anchorline.demo.shop.opening import TARGET, open_shop, running_shop, shop_url

from .conftest import axe_faults


@pytest.fixture
def opened_shop(stack, client, monkeypatch):
    monkeypatch.setenv("ANCHORLINE_VAR_DIR", str(stack.folder))
    process = open_shop(client, stack.url)
    yield process
    process.terminate()
    process.wait()
    client.keys.end(json.loads((stack.folder / "demo/shop.json").read_text())["id"])
    client.targets.delete(TARGET)


def test_the_checkout_is_filled_by_one_pick_and_ordered(phone, opened_shop):
    assert running_shop() == opened_shop.pid
    page = phone
    page.goto(f"{shop_url()}/checkout")
    page.get_by_label("Your name").fill("Ada Brindle")
    page.get_by_role("combobox", name="Find your address").fill("16 abbey mews")
    page.get_by_role("option").filter(has_text="16 Abbey Mews").first.click()
    expect(page.get_by_label("Town")).to_have_value("Brackwater")
    assert axe_faults(page) == []
    page.get_by_role("button", name="Order and pay on delivery").click()
    expect(page.locator("#thanks")).to_contain_text("16 Abbey Mews")
    expect(page.locator("#thanks")).to_contain_text("QV1 1AA")


def test_a_shop_that_is_opened_again_keeps_its_key(opened_shop, client, stack):
    again = open_shop(client, stack.url)
    again.terminate()
    again.wait()
    shops = [key for key in client.keys.list() if key.name == "Felt & Hammer"]
    assert [key.state for key in shops].count("in_use") == 1
