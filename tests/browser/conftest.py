"""Debian's headless Chromium, driven by Playwright; axe-core from npm."""

from __future__ import annotations

import functools
import http.server
import threading
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

from anchorline.client import Client, FormDocument

AXE = (Path(__file__).parents[2] / "node_modules/axe-core/axe.min.js").read_text()
# Nobody waits so long unless something is wrong, however busy the machine is.
PATIENCE_MS = int(__import__("os").environ.get("PATIENCE_MS", "40000"))
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        opened = playwright.chromium.launch(
            executable_path="/usr/bin/chromium-headless-shell",
            args=["--no-sandbox", "--disable-background-networking", "--disable-component-update",
                  "--no-first-run", "--disable-sync", "--disable-quic"],
        )  # fmt: skip
        yield opened
        opened.close()


def watched(context, allowed=()) -> Page:
    """A page whose script errors fail the test that uses it."""
    page = context.new_page()
    page.set_default_timeout(PATIENCE_MS)
    page.faults = []
    page.on("pageerror", lambda error: page.faults.append(str(error)))
    return page


@pytest.fixture
def page(browser) -> Iterator[Page]:
    context = browser.new_context(
        viewport={"width": 1280, "height": 800}, reduced_motion="reduce", locale="en-GB"
    )
    opened = watched(context)
    yield opened
    assert opened.faults == []
    context.close()


@pytest.fixture
def phone(browser) -> Iterator[Page]:
    context = browser.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True,
        reduced_motion="reduce", locale="en-GB",
    )  # fmt: skip
    opened = watched(context)
    yield opened
    assert opened.faults == []
    context.close()


def publish(stack, document) -> None:
    """Makes a form of a document and publishes it."""
    with Client(stack.url, stack.access["server_key"]) as client:
        client.forms.put_draft(FormDocument.model_validate(document))
        client.forms.publish(document["key"])


@pytest.fixture
def form_page(page, stack) -> Page:
    """The public form, ready to be filled."""
    page.goto(f"{stack.url}/f/tuning-visit")
    page.get_by_label("Your name").wait_for()
    return page


@pytest.fixture
def console(page, stack) -> Page:
    """The console, signed in."""
    return signed_in(page, stack)


@pytest.fixture
def scratch_console(page, scratch_stack) -> Page:
    """The console of the demo whose reference data tests may change."""
    return signed_in(page, scratch_stack)


def signed_in(page, stack) -> Page:
    """The console, signed in by the same call that its page makes."""
    cookies = [{"name": n, "value": v, "url": stack.url} for n, v in stack.session().items()]
    page.context.add_cookies(cookies)
    page.goto(f"{stack.url}/")
    page.get_by_role("heading", name="What to do next").wait_for()
    return page


def finder(page, number=0):
    """The finder's input; the form can have several."""
    return page.get_by_role("combobox", name="Find the address").nth(number)


def rows(page):
    """The finder's rows, without the options of select boxes."""
    return page.locator("anchorline-finder [role=option]")


def axe_faults(page) -> list[str]:
    """What axe-core finds on the page as it stands, shadow trees included."""
    # Evaluated through the browser's own tools, so that the page's content policy stays as it is.
    page.evaluate(AXE + "; null")
    found = page.evaluate(
        "axe.run(document, {resultTypes: ['violations']}).then(r => r.violations.map("
        "v => v.id + ': ' + v.nodes.slice(0, 4).map(n => n.html.slice(0, 160) + ' / ' + n.failureSummary).join(' | ')))"
    )
    return list(found)


@pytest.fixture
def shop(tmp_path):
    """A web server of another origin."""
    handler = functools.partial(http.server.SimpleHTTPRequestHandler, directory=tmp_path)
    handler.log_message = lambda *_: None
    server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), handler)
    thread = threading.Thread(target=server.serve_forever)
    thread.start()
    yield f"http://127.0.0.1:{server.server_port}", tmp_path
    server.shutdown()
    thread.join()
    server.server_close()


@pytest.fixture
def colleague(browser, stack):
    """Another administrator's browser."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB")
    page = signed_in(watched(context), stack)
    yield page
    assert page.faults == []
    context.close()
