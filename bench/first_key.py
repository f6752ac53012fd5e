"""How soon the first suggestion stands on a public page after the first key, on a page just opened.

    python -m bench.first_key --access var/demo/access.json --times 15

On a demo that runs. Each time a fresh browser context without any cache opens the form and types one
letter into the finder; measured inside the page, from the key to the frame after the first row. What
the network and the service took of it (from the request's start to its answer's end) is told apart.
Beside it, in the same run, an input with a `datalist` that is filled by a plain `fetch` of the same
address at each key, without any pause.
"""

from __future__ import annotations

import argparse
import json
import statistics
from pathlib import Path

from playwright.sync_api import Browser, sync_playwright

_WATCH = """(isOurs) => {
  const root = isOurs ? document.querySelector('anchorline-form').shadowRoot.querySelector('anchorline-finder').shadowRoot : document;
  const box = root.querySelector('input'), list = root.querySelector(isOurs ? '#list' : 'datalist');
  window.first = new Promise(done => {
    box.addEventListener('keydown', () => {
      const began = performance.now();
      const watch = new MutationObserver(() => {
        if (!list.children.length) return;
        watch.disconnect();
        requestAnimationFrame(() => setTimeout(() => {
          const asked = performance.getEntriesByType('resource').filter(e => e.name.includes('/suggest')).at(-1);
          done([performance.now() - began, asked.responseEnd - asked.startTime]);
        }));
      });
      watch.observe(list, {childList: true});
    }, {capture: true, once: true});
  });
  box.focus();
}"""
_PLAIN = """(key) => {
  document.body.innerHTML = '<input list="l"><datalist id="l"></datalist>';
  const [box, list] = document.body.children;
  box.addEventListener('input', async () => {
    const answer = await fetch(`/api/v1/suggest?q=${box.value}&limit=8`, {headers: {Authorization: `Bearer ${key}`}});
    list.replaceChildren(...(await answer.json()).suggestions.map(row => new Option(row.label)));
  });
}"""


def main() -> None:
    """Opens, types, prints."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawTextHelpFormatter
    )
    parser.add_argument("--access", type=Path, default=Path("var/demo/access.json"))
    parser.add_argument("--form", default="tuning-visit")
    parser.add_argument("--times", type=int, default=15)
    given = parser.parse_args()
    access = json.loads(given.access.read_text())
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium-headless-shell", args=["--no-sandbox"]
        )
        ours = [first(browser, access, given.form, plain=False) for _ in range(given.times)]
        plain = [first(browser, access, given.form, plain=True) for _ in range(given.times)]
        browser.close()
    say("the form", ours)
    say("a datalist", plain)


def first(
    browser: Browser, access: dict[str, str], form: str, *, plain: bool
) -> tuple[float, float]:
    """Milliseconds from the first key to the first row, and of these those of the request."""
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.goto(f"{access['url']}/f/{form}")
    page.get_by_role("combobox", name="Find the address").first.wait_for()
    if plain:
        page.evaluate(_PLAIN, access["browser_key"])
    page.evaluate(_WATCH, not plain)
    page.keyboard.press("k")
    whole, request = page.evaluate("window.first")
    context.close()
    return whole, request


def say(what: str, times: list[tuple[float, float]]) -> None:
    """Prints the medians and the 95th percentiles."""
    for called, values in (
        ("key to first row", [whole for whole, _ in times]),
        ("of it the request", [request for _, request in times]),
        ("beyond the request", [whole - request for whole, request in times]),
    ):
        ordered = sorted(values)
        p95 = ordered[int(0.95 * (len(ordered) - 1))]
        print(
            f"{what:11} {called:19} median {statistics.median(ordered):6.1f} ms   p95 {p95:6.1f} ms"
        )


if __name__ == "__main__":
    main()
