"""The console's designer, as an administrator uses it: by what is written on it."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from .drafts import kept, published


class Designer:
    """One open form in the designer, used by mouse."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.settings = page.get_by_role("complementary", name="Settings")
        self.outline = page.get_by_role("navigation", name="Outline")
        self.live = page.get_by_role("region", name="The live form")

    def begin(self, url: str, title: str, who: str = "Anyone, at its public page") -> Designer:
        """Begins an empty form."""
        self.page.goto(f"{url}/console/forms/new")
        self.page.get_by_text("An empty form").click()
        self.page.get_by_label("Title").fill(title)
        self.page.get_by_text(who).click()
        self.page.get_by_role("button", name="Begin", exact=True).click()
        self.outline.wait_for()
        return self

    def add(self, kind: str, label: str = "") -> Designer:
        """Adds something at the end, and names it."""
        self.outline.get_by_role("button", name="Add something").click()
        dialog = self.page.get_by_role("dialog", name="Add to the form")
        dialog.get_by_label("Search what to add").fill(kind)
        dialog.get_by_text(kind, exact=True).click()
        expect(dialog).to_be_hidden()
        if label:
            name = "Heading" if kind == "Address" else "Text" if kind == "Note" else "Label"
            self.set(name, label)
        return self

    def select(self, label: str) -> Designer:
        """Chooses something in the outline."""
        self.outline.locator(".outline-name", has_text=label).click()
        expect(self.settings.get_by_role("heading", name=label)).to_be_visible()
        return self

    def whole(self) -> Designer:
        """Chooses the form itself."""
        self.outline.locator(".outline-form").click()
        return self

    def set(self, label: str, text: str) -> Designer:
        """Writes a setting that is a text, and leaves it."""
        box = self.settings.get_by_label(label, exact=True)
        box.fill(text)
        box.blur()
        return self

    def switch(self, label: str) -> Designer:
        """Turns a setting on or off."""
        self.settings.get_by_role("switch", name=label).click()
        return self

    def choose(self, label: str, option: str) -> Designer:
        """Chooses from a list."""
        self.settings.get_by_role("combobox", name=label).first.click()
        self.page.locator(".ant-select-item-option:visible", has_text=option).first.click()
        return self

    def options(self, *labels: str) -> Designer:
        """Writes the options of a choice; two are there already."""
        for number, label in enumerate(labels, 1):
            if number > 2:
                self.settings.get_by_role("button", name="Add an option").click()
            box = self.settings.get_by_label(f"Option {number}", exact=True)
            box.fill(label)
            box.blur()
        return self

    def condition(self, field: str, value: str = "", title: str = "Shown") -> Designer:
        """Puts a condition together from its selects."""
        part = self.settings.get_by_role("group", name=title)
        part.get_by_role("button", name=re.compile("condition …$")).click()
        self.choose("What is asked for", field)
        if value:
            self.choose("With what", value)
        return self

    def formula(self, text: str) -> Designer:
        """Writes the formula of a formula field."""
        editor = self.settings.get_by_role("textbox", name="What it comes to")
        editor.click()
        self.page.keyboard.press("Control+a")
        self.page.keyboard.insert_text(text)
        return self

    def kept(self) -> Designer:
        """Waits until everything is on the service."""
        kept(self.page)
        return self

    def publish(self) -> list[str]:
        """Publishes, and returns the sentences that were shown."""
        return published(self.page)

    def is_in_order(self, *names: str) -> None:
        """Waits until the outline has these items."""
        expect(self.outline.locator(".outline-text")).to_have_text(list(names))
