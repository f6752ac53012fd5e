"""A page target made in the console without code: from a page that is opened, from HTML that is pasted."""

import re

import pytest
from playwright.sync_api import expect

from anchorline.client import Client

from .conftest import axe_faults
from .pages import INPUTS, write_page

LINE = re.compile(r'data-key="(anl_browser_\w+_[\w-]+)"')


@pytest.fixture
def targets(stack):
    with Client(stack.url, stack.access["server_key"]) as client:
        yield client.targets
        for one in client.targets.list():
            client.targets.remove(one.key)


def begin(console, stack, title):
    console.goto(f"{stack.url}/console/targets")
    console.get_by_role("link", name="New page target").click()
    console.get_by_label("What the page is called here").fill(title)


def keep_and_publish(console):
    console.get_by_role("button", name="Keep it as a draft").click()
    console.get_by_role("tab", name="Where and how").click()
    console.get_by_label("Countries").fill("United Kingdom")
    console.get_by_role("option", name="United Kingdom").first.wait_for(state="attached")
    console.keyboard.press("Enter")
    console.keyboard.press("Escape")
    console.get_by_role("button", name="Save draft").click()
    console.get_by_text("Draft saved.").wait_for()
    console.get_by_role("button", name="Publish", exact=True).click()
    console.get_by_text("Version 1 is published.").wait_for()


def line_of(console):
    """The line of HTML with the key that is made for it."""
    console.get_by_role("tab", name="On the page").click()
    console.get_by_role("button", name="Make a key for it").click()
    line = console.get_by_label("Line of HTML")
    expect(line).to_contain_text('data-key="anl_browser_')
    expect(line).not_to_contain_text("…")
    return LINE.search(line.inner_text())[1]


@pytest.mark.parametrize("kind", ["plain", "react", "antd"])
def test_a_page_that_is_opened_becomes_a_target_without_a_line_of_code(
    console,
    stack,
    shop,
    targets,
    kind,
):
    origin, folder = shop
    write_page(folder, kind, stack.url, "")
    begin(console, stack, "Our checkout")
    console.get_by_label("Address of the page").fill(f"{origin}/index.html")
    with console.context.expect_page() as opened:
        console.get_by_role("button", name="Open it").click()
    seen = opened.value
    expect(seen.get_by_text(re.compile("Anchorline sees [5-9] inputs"))).to_be_visible()
    row = console.locator("tr", has_text="Postcode").first
    expect(row.get_by_role("combobox")).to_be_visible()
    expect(row).to_contain_text("Postcode")
    keep_and_publish(console)

    console.get_by_role("tab", name="Inputs").click()
    console.get_by_label("Address of the page").fill(f"{origin}/index.html")
    with console.context.expect_page() as again:
        console.get_by_role("button", name="Open it").click()
    console.get_by_role("button", name=re.compile("^Fill")).click()
    expect(console.locator("tr", has_text="Street").first).to_contain_text("Lantern Row")
    expect(again.value.get_by_label("Street")).to_have_value(re.compile("Lantern Row"))

    key = line_of(console)
    write_page(folder, kind, stack.url, key, target="our-checkout")
    page = console.context.new_page()
    page.goto(origin)
    page.get_by_role("combobox", name=re.compile("address", re.I)).fill("16 abbey mews")
    page.get_by_role("option").filter(has_text="16 Abbey Mews").first.click()
    page.wait_for_function("window.got.postcode === 'QV1 1AA' && window.got.country === '2'")
    assert page.evaluate("window.got.street") == "16 Abbey Mews"
    assert page.evaluate("window.got.town") == "Brackwater"


def test_html_that_is_pasted_becomes_a_target(console, stack, targets):
    begin(console, stack, "Pasted page")
    console.get_by_role("tab", name="Paste its HTML").click()
    console.get_by_label("Where the page is").fill("https://shop.example/checkout")
    html = INPUTS + "<script>window.ran = true</script><img src=x onerror='window.ran = true'>"
    console.get_by_label("The HTML of its form").fill(html)
    console.get_by_role("button", name="Look at it").click()
    expect(console.get_by_label("What Town is")).to_be_visible()
    assert console.evaluate("window.ran") is None, "nothing in it runs"
    assert axe_faults(console) == []
    note = console.locator("tr", has_text="Delivery note")
    expect(note).to_contain_text("Left to people")
    console.get_by_role("button", name="Keep it as a draft").click()
    expect(console.get_by_role("heading", level=1, name="Pasted page")).to_be_visible()
    document = targets.draft("pasted-page")[0].document
    assert document.origins == ["https://shop.example"]
    assert [one.key for one in document.inputs] == [
        "ship-street", "ship-town", "ship-postcode", "ship-country", "note",
    ]  # fmt: skip
    console.get_by_label("What Delivery note is").click()
    console.keyboard.type("district")
    console.keyboard.press("Enter")
    console.get_by_role("button", name="Save draft").click()
    console.get_by_text("Draft saved.").wait_for()
    rules = targets.draft("pasted-page")[0].document.addresses[0].mapping
    assert (["district"], "note") in [(rule.components, rule.into) for rule in rules]


def test_html_without_an_input_is_said(console, stack):
    begin(console, stack, "Nothing")
    console.get_by_role("tab", name="Paste its HTML").click()
    console.get_by_label("The HTML of its form").fill("<p>No form</p>")
    console.get_by_role("button", name="Look at it").click()
    expect(console.get_by_text("There is no input in this HTML.")).to_be_visible()


def test_a_page_without_the_line_is_said_in_time(console, stack, shop):
    origin, folder = shop
    (folder / "index.html").write_text("<!doctype html><title>None</title>")
    begin(console, stack, "Silent")
    console.get_by_label("Address of the page").fill(origin)
    console.get_by_role("button", name="Open it").click()
    expect(console.get_by_text("Nothing was heard from the page")).to_be_visible()


def test_a_page_of_another_origin_is_not_listened_to(console, stack, shop):
    origin, folder = shop
    (folder / "index.html").write_text(
        "<!doctype html><title>Other</title><script>"
        "opener.postMessage({kind: 'anchorline-page', url: location.href, inputs: [{name: 'x'}]}, '*')"
        "</script>"
    )
    begin(console, stack, "Other")
    console.get_by_label("Address of the page").fill("https://shop.invalid/")
    console.evaluate(f"window.open({origin!r})")
    console.wait_for_timeout(1500)
    expect(console.get_by_role("heading", name="Its inputs")).to_have_count(0)
