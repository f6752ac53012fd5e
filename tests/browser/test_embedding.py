"""The custom elements on somebody else's page, from another origin, with a browser key."""

import functools
import http.server
import re
import subprocess
import sys
import threading

import pytest

from .conftest import rows

PAGE = """<!doctype html><html lang="en"><title>Shop</title><h1>Shop</h1>
<script type="module" src="{url}/embed/anchorline.js"></script>
<anchorline-finder id="alone" label="Delivery" country="GB" base="{url}" access="{key}"></anchorline-finder>
<anchorline-form form="tuning-visit" base="{url}" access="{key}" level="2"></anchorline-form>
<script>
  addEventListener("anchorline-pick", (event) => {{ document.title = event.detail.label; }});
</script></html>"""


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


def browser_key(stack, origin):
    done = subprocess.run(
        [sys.executable, "-m", "anchorline.service", "key", "browser", "Shop",
         "--origin", origin, "--form", "tuning-visit"],
        env=stack.environment, capture_output=True, text=True, timeout=60,
    )  # fmt: skip
    return done.stdout.strip()


def test_the_elements_work_on_a_page_of_the_keys_origin(page, shop, stack, client):
    origin, folder = shop
    (folder / "index.html").write_text(PAGE.format(url=stack.url, key=browser_key(stack, origin)))
    page.goto(origin)
    alone = page.get_by_role("combobox", name="Delivery")
    alone.fill("16 abbey mews")
    rows(page).first.click()
    page.wait_for_function("document.title.startsWith('16 Abbey Mews')")
    page.get_by_label("Your name").fill("Embedded Quill")
    page.get_by_label("Phone").fill("0123456")
    page.get_by_label("What is it about?").select_option("tuning")
    page.get_by_role("combobox", name="Find the address").first.fill("16 abbey mews")
    page.locator("anchorline-form anchorline-finder [role=option]").first.click()
    page.get_by_text(re.compile("fields filled")).wait_for()
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert (record.values["contact"], record.made_by) == ("Embedded Quill", "Shop")


def test_on_a_page_of_another_origin_the_form_says_that_it_may_not(page, shop, stack):
    origin, folder = shop
    key = browser_key(stack, "https://elsewhere.example")
    (folder / "index.html").write_text(PAGE.format(url=stack.url, key=key))
    page.goto(origin)
    page.get_by_text(f"This browser key may not be used from {origin}.").wait_for()
    assert page.get_by_role("button", name="Try again").is_visible()
