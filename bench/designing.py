"""How the designer feels on a long form: opening it, and a keystroke in a label.

    python -m bench.designing --access var/demo/access.json --fields 300 --pages 10

On a demo that runs. It makes a form of so many fields on so many pages, opens it in headless
Chromium, types into a label, and measures inside the page: from the key to the frame after the
letter stands in the live form, in the outline and in the settings. Beside it, in the same run, a
bare input whose text is copied into one element of a page without any framework.
"""

from __future__ import annotations

import argparse
import json
import statistics
from pathlib import Path
from time import perf_counter

import httpx
from playwright.sync_api import Page, sync_playwright

from anchorline.client import Client, FormDocument

KEY = "long-form"
TYPES = ("text", "number", "date", "long_text", "yes_no", "email")
_WATCH = """({input, shown}) => {
  const box = input(), target = shown();
  window.times = [];
  box.addEventListener('keydown', () => {
    const began = performance.now();
    const watch = new MutationObserver(() => {
      watch.disconnect();
      requestAnimationFrame(() => setTimeout(() => window.times.push(performance.now() - began)));
    });
    watch.observe(target, {childList: true, subtree: true, characterData: true});
  }, true);
}"""


def main() -> None:
    """Makes the form, opens it, types, prints."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawTextHelpFormatter
    )
    parser.add_argument("--access", type=Path, default=Path("var/demo/access.json"))
    parser.add_argument("--fields", type=int, default=300)
    parser.add_argument("--pages", type=int, default=10)
    parser.add_argument("--letters", type=int, default=60)
    given = parser.parse_args()
    access = json.loads(given.access.read_text())
    with Client(access["url"], access["server_key"]) as client:
        if KEY in {form.key for form in client.forms.list()}:
            client.forms.delete(KEY)
        client.forms.put_draft(document(given.fields, given.pages))
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium-headless-shell", args=["--no-sandbox"]
        )
        context = browser.new_context(viewport={"width": 1280, "height": 800})
        context.add_cookies(cookies(access))
        page = context.new_page()
        opening = [opened(page, access["url"], given.fields + given.pages) for _ in range(8)][1:]
        print(f"{given.fields} fields on {given.pages} pages")
        for what, times in zip(
            ("opening", "whole outline"), zip(*opening, strict=True), strict=True
        ):
            shown = " ".join(f"{1000 * time:.0f}" for time in sorted(times))
            print(f"{what:14} median {1000 * statistics.median(times):6.0f} ms   ({shown})")
        say("a letter", typed(page, given.letters))
        say("bare input", bare(page, given.letters))
        browser.close()
    with Client(access["url"], access["server_key"]) as client:
        client.forms.delete(KEY)


def document(fields: int, pages: int) -> FormDocument:
    """A form of so many fields, in turn of each type, with a condition at each tenth."""
    entries: list[dict[str, object]] = []
    for number in range(fields):
        if number % (fields // pages) == 0:
            page = number // (fields // pages) + 1
            entries.append({"key": f"page_{page}", "type": "page", "label": f"Page {page}"})
        entry: dict[str, object] = {
            "key": f"field_{number}",
            "label": f"Field {number}",
            "type": TYPES[number % len(TYPES)],
        }
        if number % 10 == 9:
            entry["shown_when"] = f"NOT(ISBLANK(field_{number - 9}))"
        entries.append(entry)
    return FormDocument.model_validate(
        {"key": KEY, "kind": "web", "title": "Long", "style": "pages", "fields": entries}
    )


def cookies(access: dict[str, str]) -> list[dict[str, str]]:
    """Of a session of the demo's administrator."""
    with httpx.Client(base_url=access["url"], headers={"Origin": access["url"]}) as http:
        given = {"email": access["admin_email"], "password": access["admin_password"]}
        http.post("/api/v1/session", json=given).raise_for_status()
        return [{"name": n, "value": v, "url": access["url"]} for n, v in http.cookies.items()]


def opened(page: Page, url: str, rows: int) -> tuple[float, float]:
    """Seconds until the form can be worked on (its first field stands in the live form, a screen
    of rows in the outline, the settings beside them), and until each of its rows stands there."""
    page.goto("about:blank")
    began = perf_counter()
    page.goto(f"{url}/console/forms/{KEY}", wait_until="commit")
    page.locator("#field_0").wait_for()
    page.locator(".outline-row").nth(30).wait_for()
    page.get_by_role("complementary").get_by_label("Title").wait_for()
    usable = perf_counter() - began
    page.locator(".outline-row").nth(rows - 1).wait_for()
    return usable, perf_counter() - began


def typed(page: Page, letters: int) -> list[float]:
    """Milliseconds of each letter typed into the label of a field."""
    page.locator(".outline-name", has_text="Field 2").first.click()
    box = page.get_by_role("complementary").get_by_label("Label", exact=True)
    box.click()
    page.evaluate(
        f"({_WATCH})({{input: () => document.activeElement, shown: () => document"
        ".querySelector('anchorline-form').shadowRoot})"
    )
    for number in range(letters):
        page.keyboard.press("abcdefgh"[number % 8])
        page.wait_for_timeout(120)
    return list(page.evaluate("window.times"))


def bare(page: Page, letters: int) -> list[float]:
    """Milliseconds of each letter where one element follows an input, without any framework."""
    page.goto("about:blank")
    page.evaluate(
        "() => { document.body.innerHTML = '<input><p></p>';"
        " const [input, p] = document.body.children;"
        " input.addEventListener('input', () => { p.textContent = input.value; }); input.focus(); }"
    )
    page.evaluate(
        f"({_WATCH})({{input: () => document.activeElement,"
        " shown: () => document.querySelector('p')})"
    )
    for number in range(letters):
        page.keyboard.press("abcdefgh"[number % 8])
        page.wait_for_timeout(40)
    return list(page.evaluate("window.times"))


def say(what: str, times: list[float]) -> None:
    """Prints the median, the 95th percentile and the longest."""
    ordered = sorted(times)
    p95 = ordered[int(0.95 * (len(ordered) - 1))]
    print(
        f"{what:14} median {statistics.median(ordered):6.1f} ms   p95 {p95:6.1f} ms   "
        f"longest {ordered[-1]:6.1f} ms   ({len(ordered)} letters)"
    )


if __name__ == "__main__":
    main()
