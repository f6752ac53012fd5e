"""Address capture on pages that are not ours, from another origin, by one line of HTML."""

import json
import re

import pytest
from playwright.sync_api import expect

from anchorline.client import Client, InvalidError, PageTargetDocument
from tests.waiting import wait_until

from .conftest import axe_faults, rows
from .pages import INPUTS, OWN_PAGES, PAGES, TARGET, write_page

OTHER = "Kiln Crescent"
MEWS = {"street": "16 Abbey Mews", "town": "Brackwater", "postcode": "QV1 1AA", "country": "2"}


@pytest.fixture
def attached(page, shop, stack):
    """Opens a page of another origin that attaches the target; what its console says is kept."""
    origin, folder = shop
    with Client(stack.url, stack.access["server_key"]) as client:
        made = []

        def opened(kind="plain", changes=None, *, publish=True, key_for=None, **attributes):
            wanted = {**TARGET, "origins": [origin], **(changes or {})}
            client.targets.put_draft(PageTargetDocument.model_validate(wanted))
            if publish:
                client.targets.publish("checkout")
            tied = {"origins": [origin], "targets": ["checkout"], **(key_for or {})}
            key = client.keys.make("browser", "Shop", **tied)
            made.append(key.key.id)
            write_page(folder, kind, stack.url, attributes.pop("key", key.secret), **attributes)
            page.said = []
            page.on("console", lambda message: page.said.append(message.text))
            page.goto(origin)
            return page

        yield opened
        for key in made:
            client.keys.end(key)
        client.targets.delete("checkout")


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


def test_a_frame_whose_page_comes_late_or_is_followed_by_another_one_has_the_finder(attached):
    late = "<script>setTimeout(() => { document.querySelector('iframe').src = '/frame.html' }, 1500)</script>"
    page = attached(OWN_PAGES["frame"].replace('src="/frame.html"', "") + late)
    expect(finder(page, "frame")).to_be_visible()
    frame = page.frame(url="**/frame.html")
    frame.evaluate("location.assign('/frame.html?next')")
    frame.wait_for_url("**/frame.html?next")
    expect(finder(page, "frame")).to_be_visible()
    finder(page, "frame").fill("16 abbey mews")
    option = page.frame_locator("iframe").get_by_role("option")
    option.filter(has_text="16 Abbey Mews").first.click()
    page.wait_for_function("window.got.country === '2'")
    assert got(page) == MEWS


def test_the_administrators_word_finds_practice_addresses_that_count_for_nothing(attached, client):
    address = {**TARGET["addresses"][0], "practice_word": "rehearsal"}
    page = attached(changes={"addresses": [address]})
    finder(page).fill("Rehearsal 1 lantern")
    rows(page).filter(has_text="1 Lantern Row").first.click()
    expect(page.get_by_label("Street")).to_have_value("1 Lantern Row")
    used = {one.subject: one.count for one in client.activity.usage().subjects}
    made = client.keys.list()[-1]
    assert used[made.id] == 0
    finder(page).fill("rehearsal")
    expect(page.get_by_role("option", name="Lantern Row")).to_have_count(0)


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


ALONE = "default-src 'none'; script-src http:"
FOREIGN_FRAME = '<iframe src="data:text/html,other" title="Other"></iframe>'
SET_UP = {
    "an attribute that there is not": ({"tagret": "checkout"}, "Did you mean “data-target”?"),
    "no target": ({"target": ""}, "needs data-target, the key of a published target"),
    "no key": ({"key": ""}, "needs data-key, a browser key"),
    "a server key": ({"key": "anl_server_x_y"}, "is a server key, and everybody can read it"),
    "a key that is cut off": ({"key": "anl_browser_x"}, "has four parts. Copy it whole."),
    "a key that is none": ({"key": "anl_browser_abc_def"}, "This key is not valid"),
    "a key of another origin": (
        {"key_for": {"origins": ["https://other.example"]}},
        "may not be used from http://127.0.0.1:",
    ),
    "a key for something else": (
        {"key_for": {"targets": [], "forms": ["venue"]}},
        "may not be used for the target 'checkout'",
    ),
    "a target that there is not": ({"target": "chekout"}, "Did you mean checkout?"),
    "a target that is not published": ({"publish": False}, "has not been published"),
    "a target for other origins": (
        {"changes": {"origins": ["https://other.example"]}},
        "Add the origin to the target.",
    ),
    "a base that is no address": ({"base": "anchorline"}, "“anchorline” is no web address"),
    "a base of another kind": ({"base": "ftp://a.example"}, "begins with https:// or http://"),
    "a base with a path": ({"base": "http://a.example/b"}, "write http://a.example."),
    "a base where nothing answers": (
        {"base": "http://127.0.0.1:9"},
        "nothing answers at http://127.0.0.1:9. Is that the service's address",
    ),
    "a content policy without the service": ({"policy": ALONE}, "add it to connect-src"),
    "paths that are others": (
        {"changes": {"paths": ["/basket*"]}},
        "it is for the paths /basket*, and this page is /",
    ),
    "a field that is not there": (
        {"changes": {"fields": [*TARGET["fields"][:3], {"key": "country", "find": [{"id": "land"}]}]}},
        "the field “country” is not on this page: looked for id “land”",
    ),
    "a field in a frame of another origin": (
        {"kind": INPUTS.replace('name="ship_postcode"', "") + FOREIGN_FRAME},
        "It may stand in a frame of another origin",
    ),
    "a field that takes no text": (
        {"kind": INPUTS.replace("Postcode <input", 'Postcode <input type="file"')},
        "There is a <input type=\"file\"> instead, into which nothing can be written.",
    ),
    "a field found twice": (
        {"changes": {"fields": [{"key": "street", "find": [{"css": "input"}]}, *TARGET["fields"][1:]]}},
        "was found 4 times",
    ),
    "a selector that is none": (
        {"changes": {"fields": [{"key": "street", "find": [{"css": "[["}, {"name": "ship_street"}]},
                                *TARGET["fields"][1:]]}},
        "“[[” is no CSS selector",
    ),
}  # fmt: skip
# Seen when an address is written.
WRITTEN = {
    "a list without the option": (
        INPUTS.replace("United Kingdom (GB)", "Elsewhere"),
        "the list “country” has no option",
    ),
    "a field that is disabled": (
        INPUTS.replace('name="ship_town"', 'name="ship_town" disabled'),
        "the field “town” is disabled on this page: it is filled as soon as it can be written.",
    ),
    "a field that can only be read": (
        INPUTS.replace('name="ship_town"', 'name="ship_town" readonly'),
        "the field “town” can only be read on this page: it is filled as soon as",
    ),
    "a page that keeps something else": (
        INPUTS + "<script>document.querySelector('[name=ship_town]')"
        ".addEventListener('input', (event) => { event.target.value = 'elsewhere'; });</script>",
        "the page did not keep what was written into “town”: it takes other characters",
    ),
    "a page that cuts it": (
        INPUTS.replace('name="ship_town"', 'name="ship_town" maxlength="5"')
        + "<script>document.querySelector('[name=ship_town]')"
        ".addEventListener('input', (event) => { event.target.value = event.target.value.slice(0, 5); });"
        "</script>",
        "into “town”: it takes 5 characters. Set its length in the target.",
    ),
}  # fmt: skip


def says(page, said):
    """Waits until the developer console says something."""
    for _ in range(1600):
        if any(said in one for one in page.said):
            return
        page.wait_for_timeout(25)
    raise AssertionError(page.said)


@pytest.mark.parametrize("mistake", SET_UP)
def test_a_mistake_of_set_up_is_said_with_its_remedy(attached, mistake):
    given, said = SET_UP[mistake]
    page = attached(**given)
    says(page, said)
    assert page.get_by_label("Street").is_editable(), "people can type by hand"


@pytest.mark.parametrize("mistake", WRITTEN)
def test_a_mistake_that_shows_when_an_address_is_written_is_said(attached, mistake):
    body, said = WRITTEN[mistake]
    page = attached(body)
    finder(page).fill("16 abbey mews")
    rows(page).first.click()
    says(page, said)
    expect(page.get_by_label("Street")).to_have_value("16 Abbey Mews")


def test_what_a_program_asks_wrongly_is_told_to_it(attached, stack):
    page = attached()
    expect(finder(page)).to_be_visible()
    told = page.evaluate(
        """async (url) => { const {attach, attachments} = await import(url + "/embed/attach.js");
        attachments.get("checkout").focus("delivry");
        try { attach({target: "checkout", key: "anl_server_x_y"}); } catch (error) { return String(error); } }""",
        stack.url,
    )
    assert told.startswith("TypeError: attach: key is a server key")
    says(page, "there is no address “delivry” in the target. Did you mean “delivery”?")


def test_a_mistake_is_counted_for_the_administrator_without_what_was_typed(attached, client):
    missing = [*TARGET["fields"][:3], {"key": "country", "find": [{"id": "land"}]}]
    page = attached(changes={"fields": missing})
    page.get_by_label("Street").fill("12 Secret Lane")
    wait_until(lambda: len(client.targets.faults("checkout")) == 1)
    page.reload()
    wait_until(lambda: client.targets.faults("checkout")[0].count == 2)
    (fault,) = client.targets.faults("checkout")
    assert (fault.kind, fault.subject) == ("field_missing", "country")
    assert "Secret" not in fault.detail
    assert "Chrom" in fault.browser


def test_what_goes_leaves_nothing_and_what_comes_back_is_attached_again(attached):
    page = attached()
    expect(finder(page)).to_be_visible()
    page.evaluate("window.form = document.querySelector('form'); form.remove()")
    expect(page.locator("[data-anchorline]")).to_have_count(0)
    page.evaluate("document.body.append(form)")
    expect(finder(page)).to_be_visible()


def test_the_script_twice_puts_one_finder(attached, stack):
    page = attached()
    expect(finder(page)).to_be_visible()
    page.evaluate(
        """async (url) => { const line = document.querySelector("script[data-target]");
        const {attach} = await import(url + "/embed/attach.js?again");
        attach({target: "checkout", key: line.dataset.key, base: url}); }""",
        stack.url,
    )
    says(page, "another copy of the script has attached it already")
    expect(page.locator("[data-anchorline]")).to_have_count(1)


def test_beside_another_release_of_the_script_each_works_with_its_own_finder(attached, stack):
    """The other one has taken the element's name already, and knows nothing of ours."""
    taken = "customElements.define('anchorline-finder', class extends HTMLElement { old = true; });"
    page = attached(f"<script>{taken}</script><anchorline-finder></anchorline-finder>{INPUTS}")
    page.evaluate(
        """async (url) => { const code = await (await fetch(url + "/embed/attach.js")).text();
        window.other = await import(URL.createObjectURL(new Blob([code], {type: "text/javascript"})));
        other.attach({target: "checkout", key: document.querySelector("script[data-target]").dataset.key, base: url}); }""",
        stack.url,
    )
    says(page, "another copy of the script has attached it already")
    finder(page).fill("16 abbey mews")
    page.locator("[role=option]").first.click()
    expect(page.get_by_label("Street")).to_have_value("16 Abbey Mews")
    assert page.evaluate("document.querySelector('anchorline-finder').old")
    expect(page.locator("[data-anchorline]")).to_have_count(1)


def test_a_target_that_could_not_work_is_not_published(stack):
    with Client(stack.url, stack.access["server_key"]) as client:
        document = {
            **TARGET, "key": "faulty", "origins": ["shop.example"],
            "fields": [*TARGET["fields"], {"key": "extra", "find": [{"name": "a", "id": "b"}]}],
        }  # fmt: skip
        draft, _etag = client.targets.put_draft(PageTargetDocument.model_validate(document))
        told = {problem.pointer: problem.detail for problem in draft.problems}
        assert "is no web origin" in told["/origins/0"]
        assert "Give one way" in told["/fields/4/find/0"]
        with pytest.raises(InvalidError):
            client.targets.publish("faulty")
        client.targets.delete("faulty")


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
    window[name] = (...given) => {
      left.listeners += by;
      given[2]?.signal?.addEventListener("abort", () => { left.listeners -= 1; });
      return real.apply(window, given);
    };
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
    const attachment = attach({ target: "other", key: "anl_browser_a_b", base: url });
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
