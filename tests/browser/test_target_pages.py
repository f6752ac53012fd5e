"""A page target made in the console without code: from a page that is opened, from HTML that is pasted."""

import re

import pytest
from playwright.sync_api import expect

from anchorline.client import Client

from .conftest import axe_faults
from .drafts import kept, published
from .pages import INPUTS, write_page

LINE = re.compile(r'data-key="(anl_browser_\w+_[\w-]+)"')


@pytest.fixture
def targets(stack):
    with Client(stack.url, stack.access["server_key"]) as client:
        yield client.targets
        for one in client.targets.list():
            client.targets.delete(one.key)


def begin(console, stack, title):
    console.goto(f"{stack.url}/console/targets")
    console.get_by_role("link", name="New page target").click()
    console.get_by_label("What the page is called here").fill(title)


def opened_from(console, origin):
    """The page that *Open it* opens, through the small window between them."""
    with console.context.expect_page(lambda one: one.url.startswith(origin)) as opened:
        console.get_by_role("button", name="Open it").click()
    return opened.value


def keep_and_publish(console):
    console.get_by_role("button", name="Keep it as a draft").click()
    console.get_by_role("tab", name="Where and how").click()
    console.get_by_label("Countries").fill("United Kingdom")
    console.get_by_role("option", name="United Kingdom").first.wait_for(state="attached")
    console.keyboard.press("Enter")
    console.keyboard.press("Escape")
    published(console)


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
    seen = opened_from(console, origin)
    expect(seen.get_by_text(re.compile("Anchorline sees [5-9] fields"))).to_be_visible()
    row = console.locator("tr", has_text="Postcode").first
    expect(row).to_contain_text("Its label says “Postcode”.")
    keep_and_publish(console)

    console.get_by_role("tab", name="Fields").click()
    console.get_by_label("Address of the page").fill(f"{origin}/index.html")
    again = opened_from(console, origin)
    console.get_by_role("button", name=re.compile("^Fill")).click()
    street = console.locator(".picture").get_by_role("button", name=re.compile("^Street"))
    expect(street).to_contain_text(re.compile("on the page now: .*Lantern Row"))
    expect(again.get_by_label("Street")).to_have_value(re.compile("Lantern Row"))

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
    expect(console.locator("tr", has_text="ship-town")).to_contain_text("Its label says “Town”.")
    assert console.evaluate("window.ran") is None, "nothing in it runs"
    assert axe_faults(console) == []
    note = console.locator("tr", has_text="Delivery note")
    expect(note).to_contain_text("nothing")
    console.get_by_role("button", name="Keep it as a draft").click()
    expect(console.get_by_role("heading", level=1, name="Pasted page")).to_be_visible()
    document = targets.draft("pasted-page")[0].document
    assert document.origins == ["https://shop.example"]
    assert [one.key for one in document.fields] == [
        "ship-street", "ship-town", "ship-postcode", "ship-country", "note",
    ]  # fmt: skip
    console.locator(".picture").get_by_role(
        "button", name=re.compile("^Delivery note")
    ).last.click()
    console.get_by_label("What Delivery note is").click()
    console.keyboard.type("district")
    console.keyboard.press("Enter")
    kept(console)
    rules = targets.draft("pasted-page")[0].document.addresses[0].mapping
    assert (["district"], "note") in [(rule.components, rule.into) for rule in rules]


def test_html_without_an_input_is_said(console, stack):
    begin(console, stack, "Nothing")
    console.get_by_role("tab", name="Paste its HTML").click()
    console.get_by_label("The HTML of its form").fill("<p>No form</p>")
    console.get_by_role("button", name="Look at it").click()
    expect(console.get_by_text("There is no field in this HTML.")).to_be_visible()


def test_a_page_without_the_line_is_said_in_time(console, stack, shop):
    origin, folder = shop
    (folder / "index.html").write_text("<!doctype html><title>None</title>")
    begin(console, stack, "Silent")
    console.get_by_label("Address of the page").fill(origin)
    console.get_by_role("button", name="Open it").click()
    expect(console.get_by_text("Nothing was heard from the page")).to_be_visible()


SEEN = (
    "{type: 'text', name: 'x', id: '', autocomplete: '', class_name: '', label: 'Street', block: '', "
    "placeholder: '', position: 0, several_lines: false, options: [], max_length: null, is_named: true, "
    "pieces: [], place: null, is_whole: false, is_read_only: false}"
)


def saying(folder, script):
    (folder / "index.html").write_text(
        f"<!doctype html><title>Odd</title><p>Here</p><script>const seen = {SEEN};{script}</script>"
    )


def test_a_page_that_is_opened_cannot_send_the_console_elsewhere(console, stack, shop):
    origin, folder = shop
    places = ("opener", "opener.opener", "opener.top", "opener.parent", "top", "parent")
    away = "".join(f"try {{ {one}.location = '{origin}/away.html' }} catch {{}};" for one in places)
    (folder / "away.html").write_text("<!doctype html><title>Away</title>")
    saying(
        folder,
        f"window.knows = opener && opener.opener !== null; setTimeout(() => {{ {away} }}, 300)",
    )
    begin(console, stack, "Sent away")
    console.get_by_label("Address of the page").fill(origin)
    opened_from(console, origin)
    expect(console.get_by_text("Nothing was heard from the page")).to_be_visible()
    assert console.url == f"{stack.url}/console/targets/new"
    assert console.evaluate("opener") is None
    expect(console.get_by_label("What the page is called here")).to_have_value("Sent away")


@pytest.mark.parametrize(
    ("script", "said"),
    [
        ("opener.postMessage({kind: 'anchorline-page', url: 'https://bank.example/', fields: [seen]}, '*')",
         "says that it is at https://bank.example"),
        ("opener.postMessage({kind: 'anchorline-page', url: location.href, fields: [{label: {}}]}, '*')",
         "something that nobody here understands"),
        ("opener.postMessage({kind: 'anchorline-page', url: 5, fields: null}, '*')", "nobody here understands"),
        ("opener.postMessage(null, '*')", "nobody here understands"),
        ("const round = {}; round.round = round; opener.postMessage(round, '*')", "nobody here understands"),
        ("opener.postMessage({kind: 'anchorline-tried', fields: [1], said: 'x'}, '*')", "nobody here understands"),
    ],
)  # fmt: skip
def test_what_a_page_says_that_it_may_not_is_said_and_not_taken(console, stack, shop, script, said):
    origin, folder = shop
    saying(folder, script)
    begin(console, stack, "Odd")
    console.get_by_label("Address of the page").fill(origin)
    opened_from(console, origin)
    expect(console.get_by_text(said)).to_be_visible()
    expect(console.get_by_role("heading", name="Its fields")).to_have_count(0)
    expect(console.get_by_label("What the page is called here")).to_have_value("Odd")
    assert axe_faults(console) == []


def test_a_page_that_speaks_without_end_makes_no_work_without_end(console, stack, shop):
    origin, folder = shop
    proposals = []
    console.on("request", lambda one: "proposals" in one.url and proposals.append(one.url))
    saying(
        folder,
        "for (let n = 0; n < 400; n++) opener.postMessage({kind: 'anchorline-page', "
        "url: location.href, fields: [{...seen, name: 'n' + n}]}, '*')",
    )
    begin(console, stack, "Talks")
    console.get_by_label("Address of the page").fill(origin)
    opened_from(console, origin)
    expect(console.get_by_role("heading", name="Its fields")).to_be_visible()
    console.wait_for_timeout(1500)
    assert 0 < len(proposals) <= 30


def test_a_page_that_leads_elsewhere_is_said_and_can_be_opened_there(console, stack, shop):
    origin, folder = shop
    other = origin.replace("127.0.0.1", "localhost")
    write_page(folder, "plain", stack.url, "")
    (folder / "old.html").write_text(
        "<!doctype html><title>Old</title><script>"
        f"location.replace({other!r} + '/index.html#anchorline-inspect')</script>"
    )
    begin(console, stack, "Moved")
    console.get_by_label("Address of the page").fill(f"{origin}/old.html")
    opened_from(console, origin)
    expect(console.get_by_text(f"You opened {origin}, and {other} answers.")).to_be_visible()
    expect(console.get_by_role("heading", name="Its fields")).to_have_count(0)
    with console.context.expect_page(lambda one: one.url.startswith(other)):
        console.get_by_role("button", name=f"Open {other} instead").click()
    expect(console.get_by_role("heading", name="Its fields")).to_be_visible()


def test_a_page_that_nobody_opened_from_here_is_not_listened_to(console, stack, shop):
    origin, folder = shop
    saying(
        folder,
        "for (const one of [window, opener, parent]) one?.postMessage("
        "{kind: 'anchorline-page', url: location.href, fields: [seen]}, '*')",
    )
    begin(console, stack, "Other")
    console.get_by_label("Address of the page").fill("https://shop.invalid/")
    console.evaluate(f"window.open({origin!r})")
    console.wait_for_timeout(1500)
    expect(console.get_by_role("heading", name="Its fields")).to_have_count(0)


def test_a_page_of_the_console_that_fails_keeps_what_was_being_edited(
    console, stack, targets, shop
):
    origin, folder = shop
    write_page(folder, "plain", stack.url, "")
    begin(console, stack, "Failing")
    console.get_by_label("Address of the page").fill(f"{origin}/index.html")
    opened_from(console, origin)
    console.get_by_role("button", name="Keep it as a draft").click()
    console.get_by_role("tab", name="Where and how").click()
    console.get_by_label("Name").first.fill("Changed, and then it failed")
    # An answer that no service gives: the page makes nothing of it.
    console.route(re.compile("/faults"), lambda route: route.fulfill(json={"faults": 5}))
    console.get_by_role("tab", name="Mistakes reported").click()
    failed = console.get_by_role("alert").filter(has_text="makes nothing of")
    expect(failed).to_contain_text("What you changed is in the draft")
    assert axe_faults(console) == []
    console.unroute(re.compile("/faults"))
    failed.get_by_role("button", name="Show the page again").click()
    console.get_by_role("tab", name="Where and how").click()
    expect(console.get_by_label("Name").first).to_have_value("Changed, and then it failed")
    kept(console)
    assert targets.draft("failing")[0].document.addresses[0].label == "Changed, and then it failed"
    console.faults.clear()
