"""What stands above every document that is edited in the console: kept, published, and more."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect


def kept(page: Page) -> None:
    """Waits until everything is on the service, that which was typed just now as well."""
    page.evaluate("new Promise((done) => setTimeout(done, 30))")  # until it is seen that it was
    expect(page.get_by_text(re.compile(r"^kept \d\d:\d\d"))).to_be_visible()


def published(page: Page) -> list[str]:
    """Publishes, and returns the sentences that were shown."""
    page.get_by_role("button", name="Publish …").click()
    dialog = page.get_by_role("dialog", name="Publish")
    button = dialog.get_by_role("button", name="Publish", exact=True)
    expect(button).to_be_enabled()
    said = dialog.locator(".changes li").all_inner_texts()
    button.click()
    expect(page.get_by_text(re.compile(r"Version \d+ is published")).last).to_be_visible()
    return said


def more(page: Page, what: str) -> None:
    """Chooses from what else can be done with the document."""
    page.get_by_role("button", name="More").click()
    page.get_by_role("menuitem", name=what).click()
