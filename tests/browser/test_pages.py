"""Address capture on pages that are not ours, from another origin, by one line of HTML."""

import json
import re

import pytest
from playwright.sync_api import expect

from anchorline.client import Client, InvalidError, PageTargetDocument
from tests.waiting import wait_until

from .conftest import axe_faults, rows
from .pages import INPUTS, PAGES, TARGET, write_page

OTHER = "Kiln Crescent"
MEWS = {"street": "16 Abbey Mews", "town": "Brackwater", "postcode": "QV1 1AA", "country": "2"}


@pytest.fixture
def attached(page, shop, stack):
    """Opens a page of another origin that attaches the target; what its console says is kept."""
    origin, folder = shop
    with Client(stack.url, stack.access["server_key"]) as client:
        made = []

        def opened(kind="plain", changes=None, *, publish=True, **attributes):
            wanted = {**TARGET, "origins": [origin], **(changes or {})}
            client.targets.put_draft(PageTargetDocument.model_validate(wanted))
            if publish:
                client.targets.publish("checkout")
            key = client.keys.make("browser", "Shop", origins=[origin], targets=["checkout"])
            made.append(key.key.id)
            write_page(folder, kind, stack.url, attributes.pop("key", key.secret), **attributes)
            page.said = []
            page.on("console", lambda message: page.said.append(message.text))
            page.goto(origin)
            return page

        yield opened
        for key in made:
            client.keys.end(key)
        client.targets.remove("checkout")


def finder(page, kind="plain"):
    root = page.frame_locator("iframe") if kind == "frame" else page
    return root.get_by_role("combobox", name="Find your address")


def got(page):
    return page.evaluate("({...window.got})")


@pytest.mark.parametrize("kind", PAGES)
def test_one_target_fills_changes_takes_back_and_empties_the_page_of_every_library(attached, kind):
    page = attached(kind)
    root = page.frame_locator("iframe") if kind == "frame" else page
    box = finder(page, kind)
    box.fill("16 abbey mews")
    root.get_by_role("option").filter(has_text="16 Abbey Mews").first.click()
    page.wait_for_function("window.got.country === '2'")
    assert got(page) == MEWS
    box.fill("1 kiln crescent brackwater")
    root.get_by_role("option").filter(has_text=OTHER).first.click()
    page.wait_for_function("window.got.street.endsWith('Kiln Crescent')")
    root.get_by_role("button", name="Undo").click()
    page.wait_for_function("window.got.street === '16 Abbey Mews'")
    assert got(page) == MEWS
    root.get_by_role("button", name="Order").click()
    page.wait_for_function("window.submitted")
    assert page.evaluate("window.submitted") == MEWS
    page.evaluate(
        """async () => { const { src } = document.querySelector("script[data-target]");
        (await import(src)).attachments.get("checkout").clear(); }"""
    )
    page.wait_for_function("Object.values(window.got).every((text) => text === '')")
    assert [said for said in page.said if "Anchorline" in said] == []


def test_axe_finds_nothing_on_a_page_with_a_filled_address(attached):
    page = attached()
    finder(page).fill("16 abbey mews")
    rows(page).first.click()
    expect(page.get_by_text("4 fields filled")).to_be_visible()
    assert axe_faults(page) == []


def test_what_was_changed_by_hand_is_asked_about_when_another_address_is_picked(attached):
    page = attached()
    finder(page).fill("16 abbey mews")
    rows(page).first.click()
    expect(page.get_by_text("4 fields filled")).to_be_visible()
    page.get_by_label("Town").fill("Upper Brackwater")
    finder(page).fill("1 kiln crescent brackwater")
    rows(page).filter(has_text=OTHER).first.click()
    page.get_by_role("button", name="Upper Brackwater").click()
    expect(page.get_by_label("Town")).to_have_value("Upper Brackwater")
    expect(page.get_by_label("Street")).to_have_value(re.compile(OTHER))


def test_what_somebody_types_before_a_fill_is_read_back_is_not_written_over(attached):
    page = attached()
    slow = "window.setTimeout = (act, ms) => later(act, ms === 60 ? 1500 : ms)"
    page.evaluate(f"window.later = window.setTimeout.bind(window); {slow}")
    finder(page).fill("16 abbey mews")
    rows(page).first.click()
    page.wait_for_function("window.got.town === 'Brackwater'")
    page.get_by_label("Town").fill("Upper Brackwater")
    finder(page).focus()
    page.wait_for_timeout(2000)
    expect(page.get_by_label("Town")).to_have_value("Upper Brackwater")


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"attributes": {"tagret": "checkout"}}, "Did you mean “data-target”?"),
        ({"attributes": {"key": ""}}, "needs data-key"),
        ({"attributes": {"key": "anl_server_x_y"}}, "is a server key, and everybody can read it"),
        ({"attributes": {"key": "anl_browser_x"}}, "has four parts"),
        ({"attributes": {"key": "anl_browser_abc_def"}}, "not valid"),
        ({"attributes": {"target": "chekout"}}, "Did you mean checkout?"),
        ({"publish": False}, "has not been published"),
        ({"changes": {"paths": ["/basket*"]}}, "it is for the paths /basket*, and this page is /"),
        ({"changes": {"inputs": [*TARGET["inputs"][:3], {"key": "country", "find": [{"id": "land"}]}]}},
         "the input “country” is not on this page: looked for id “land”"),
        ({"changes": {"inputs": [{"key": "street", "find": [{"css": "input"}]}, *TARGET["inputs"][1:]]}},
         "was found 4 times"),
        ({"changes": {"inputs": [{"key": "street", "find": [{"css": "[[", }, {"name": "ship_street"}]},
                                *TARGET["inputs"][1:]]}}, "“[[” is no CSS selector"),
    ],
)  # fmt: skip
def test_a_mistake_of_set_up_is_said_with_its_remedy(attached, given, said):
    page = attached(changes=given.get("changes"), publish=given.get("publish", True),
                    **given.get("attributes", {}))  # fmt: skip
    for _ in range(400):
        if any(said in one for one in page.said):
            break
        page.wait_for_timeout(25)
    assert any(said in one for one in page.said), page.said
    assert page.get_by_label("Street").is_editable(), "people can type by hand"


def test_a_mistake_is_counted_for_the_administrator_without_what_was_typed(attached, client):
    missing = [*TARGET["inputs"][:3], {"key": "country", "find": [{"id": "land"}]}]
    page = attached(changes={"inputs": missing})
    page.get_by_label("Street").fill("12 Secret Lane")
    wait_until(lambda: len(client.targets.faults("checkout")) == 1)
    page.reload()
    wait_until(lambda: client.targets.faults("checkout")[0].count == 2)
    (fault,) = client.targets.faults("checkout")
    assert (fault.kind, fault.subject) == ("input_missing", "country")
    assert "Secret" not in fault.detail
    assert "Chrom" in fault.browser


def test_what_goes_leaves_nothing_and_what_comes_back_is_attached_again(attached):
    page = attached()
    expect(finder(page)).to_be_visible()
    page.evaluate("window.form = document.querySelector('form'); form.remove()")
    expect(page.locator("[data-anchorline]")).to_have_count(0)
    page.evaluate("document.body.append(form)")
    expect(finder(page)).to_be_visible()


def test_a_target_for_another_origin_is_refused_with_the_reason(attached, shop):
    page = attached(changes={"origins": ["https://other.example"]})
    page.wait_for_timeout(100)
    for _ in range(400):
        if page.said:
            break
        page.wait_for_timeout(25)
    assert "is not for pages of" in page.said[-1]
    assert "Add the origin to the target." in page.said[-1]


def test_the_script_twice_puts_one_finder(attached, stack):
    page = attached()
    expect(finder(page)).to_be_visible()
    page.evaluate(
        """async (url) => { const line = document.querySelector("script[data-target]");
        const {attach} = await import(url + "/embed/attach.js?again");
        attach({target: "checkout", key: line.dataset.key, base: url}); }""",
        stack.url,
    )
    for _ in range(200):
        if any("another copy" in one for one in page.said):
            break
        page.wait_for_timeout(25)
    assert any("another copy" in one for one in page.said)
    expect(page.locator("[data-anchorline]")).to_have_count(1)


def test_a_target_that_could_not_work_is_not_published(stack):
    with Client(stack.url, stack.access["server_key"]) as client:
        document = {
            **TARGET, "key": "faulty", "origins": ["shop.example"],
            "inputs": [*TARGET["inputs"], {"key": "extra", "find": [{"name": "a", "id": "b"}]}],
        }  # fmt: skip
        draft, _etag = client.targets.put_draft(PageTargetDocument.model_validate(document))
        told = {problem.pointer: problem.detail for problem in draft.problems}
        assert "is no web origin" in told["/origins/0"]
        assert "Give one way" in told["/inputs/4/find/0"]
        with pytest.raises(InvalidError):
            client.targets.publish("faulty")
        client.targets.remove("faulty")


def test_it_works_under_the_strictest_policy_that_allows_the_service(attached, stack):
    page = attached(
        INPUTS,
        policy=f"default-src 'none'; script-src {stack.url}; connect-src {stack.url}; "
        "require-trusted-types-for 'script'; trusted-types 'none'",
    )
    finder(page).fill("16 abbey mews")
    rows(page).first.click()
    expect(page.get_by_label("Street")).to_have_value("16 Abbey Mews")
    assert page.said == []


CYCLES = """async (url) => {
  const { attach } = await import(url + "/embed/attach.js");
  const answer = JSON.stringify({ document: { ...DOCUMENT, key: "other" }, version: 1 });
  window.fetch = async () => new Response(answer, { headers: { "Content-Type": "application/json" } });
  const left = { listeners: 0, timers: new Set(), observers: new Set() };
  const { setTimeout: set, clearTimeout: clear, MutationObserver: Observer } = window;
  for (const [name, by] of [["addEventListener", 1], ["removeEventListener", -1]]) {
    const real = window[name];
    window[name] = (...given) => { left.listeners += by; return real.apply(window, given); };
  }
  window.setTimeout = (act, ms) => {
    const id = set(() => { left.timers.delete(id); act(); }, ms);
    left.timers.add(id);
    return id;
  };
  window.clearTimeout = (id) => { left.timers.delete(id); clear(id); };
  window.MutationObserver = class extends Observer {
    observe(...given) { left.observers.add(this); super.observe(...given); }
    disconnect() { left.observers.delete(this); super.disconnect(); }
  };
  const nodes = document.querySelectorAll("*").length;
  let seen = 0;
  for (let number = 0; number < 1000; number++) {
    const attachment = attach({ target: "other", key: "k", base: url });
    const isThere = () => document.querySelector('[data-anchorline="other/delivery"]');
    for (let tries = 0; tries < 50 && !isThere(); tries++) await new Promise((go) => set(go));
    if (isThere()) seen += 1;
    attachment.detach();
  }
  await new Promise((go) => set(go, 300));
  return { seen, nodes: document.querySelectorAll("*").length - nodes, listeners: left.listeners,
           timers: left.timers.size, observers: left.observers.size };
}"""


def test_a_thousand_attaches_and_detaches_leave_nothing_behind(attached, stack):
    page = attached()
    expect(finder(page)).to_be_visible()
    document = json.dumps({**TARGET, "origins": ["https://shop.example"]})
    left = page.evaluate(CYCLES.replace("DOCUMENT", document), stack.url)
    assert left == {"seen": 1000, "nodes": 0, "listeners": 0, "timers": 0, "observers": 0}
