"""What a slot can do, feature by feature: how it is switched on, and how one sees that it works.

A feature that the core knows and that has no entry here fails the matrix.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from playwright.sync_api import Locator, Page, expect

HERE = {"latitude": 51.535459, "longitude": -2.880898}
PARTS = ("postcode", "organisation", "unit", "number", "street", "town")
# In the order in which they are filled: each has a way of its own.
SLOTS = ("by_location", "by_hand", "same", "by_lines")


@dataclass(frozen=True)
class Feature:
    """One feature.

    Attributes:
        slot: on which of the form's slots it is tried.
        settings: what switches it on.
        works: looks at the filled slot.
    """

    slot: str
    settings: dict[str, Any]
    works: Callable[[Page, Locator], None] = field(repr=False)


def part(group: Locator, component: str) -> Locator:
    return group.locator(f"[id$='_{component}']")


def _one_box(_page, group):
    expect(part(group, "street")).to_be_hidden()
    expect(group.locator(".filled-lines .lines")).to_have_text("16 Abbey Mews\nBRACKWATER\nQV1 1AA")


def _lines(_page, group):
    expect(group.locator(".filled-lines")).to_be_visible()
    group.get_by_role("button", name="Change", exact=True).click()
    expect(part(group, "street")).to_be_visible()


def _all_parts(_page, group):
    expect(part(group, "unit")).to_be_visible()
    expect(group.get_by_role("button", name="Add more")).to_be_hidden()


def _own_order(_page, group):
    shown = group.locator(".parts input:visible")
    expect(shown.first).to_have_attribute("id", re.compile("_postcode$"))


def _locked(_page, group):
    expect(part(group, "number")).to_have_attribute("readonly", "")
    group.get_by_role("button", name="Change it by hand").click()
    part(group, "number").fill("12a")


def _same(_page, group):
    expect(part(group, "number")).to_have_value("12a")
    expect(part(group, "street")).to_have_value("Kiln Crescent")
    expect(group.get_by_role("checkbox", name="The same as: by_hand")).to_be_checked()


def _location(_page, group):
    expect(group.locator(".near-list")).to_be_hidden()
    expect(finder(group)).to_have_value(re.compile("^16 Abbey Mews"))


def _map(_page, group):
    expect(group.locator(".slot-map [role=status]")).to_have_text(
        re.compile(r"The pin is at 5\d\.\d{5}, -2\.\d{5}\.")
    )
    expect(group.locator(".map-pin")).to_be_visible()


def _asks_for(name: str, value: str) -> Callable[[Page, Locator], None]:
    def works(_page: Page, group: Locator) -> None:
        expect(group.locator("anchorline-finder")).to_have_attribute(name, value)

    return works


FEATURES: dict[str, Feature] = {
    "appearance": Feature("by_location", {"appearance": "one_box"}, _one_box),
    "location": Feature("by_location", {"location": True}, _location),
    # What is kept of it is seen in the record.
    "keeps_position": Feature("by_location", {"keeps_position": True}, _location),
    "shows_empty": Feature("by_hand", {"shows_empty": True}, _all_parts),
    "keeps_order": Feature("by_hand", {"keeps_order": True}, _own_order),
    "map": Feature("by_hand", {"map": {"place": "beside"}}, _map),
    "near": Feature("by_hand", {"near": {"slot": "by_location"}}, _asks_for("near", "51.535459,-2.880898")),
    "datasets": Feature("by_hand", {"datasets": ["demo"]}, _asks_for("datasets", "demo")),
    "language": Feature("by_hand", {"language": "en"}, _asks_for("language", "en")),
    "practice_word": Feature("by_hand", {"practice_word": "rehearsal"}, _asks_for("practice-word", "rehearsal")),
    "locked": Feature("by_hand", {"locked": True}, _locked),
    "same_as": Feature("same", {"same_as": "by_hand"}, _same),
    "shown_as": Feature("by_lines", {"shown_as": "lines"}, _lines),
}  # fmt: skip


def finder(group: Locator) -> Locator:
    return group.get_by_role("combobox", name="Find the address")


def fill(group: Locator, slot: str) -> None:
    """Fills a slot in its own way."""
    if slot == "by_location":
        group.get_by_role("button", name="Use my location").click()
        group.locator(".near-list button", has_text="16 Abbey Mews").click()
    elif slot == "same":
        group.get_by_role("checkbox", name="The same as: by_hand").check()
    else:
        finder(group).fill("12 kiln crescent brackwater" if slot == "by_hand" else "14 abbey mews")
        group.get_by_role("option", name=re.compile("^1[24] ")).first.click()
    group.get_by_text(re.compile(r"\d fields? filled")).wait_for()


def document(kind: str, style: str) -> dict[str, Any]:
    """A form with every feature."""
    slots = []
    for key in SLOTS:
        settings: dict[str, Any] = {}
        for feature in FEATURES.values():
            settings |= feature.settings if feature.slot == key else {}
        slots.append({
            "key": key, "label": key, "countries": ["GB"], "required": False, **settings,
            "parts": [{"key": f"{key}_{name}", "component": name} for name in PARTS],
            "mapping": [{"components": [name], "into": f"{key}_{name}"} for name in PARTS],
        })  # fmt: skip
    fields = [
        entry
        for key in SLOTS
        for entry in ({"key": f"{key}_page", "type": "page", "label": f"Page {key}"}, {"slot": key})
    ]
    return {
        "key": f"matrix-{kind}-{style}", "kind": kind, "title": f"Matrix {kind} {style}", "style": style,
        "fields": [{"key": "name", "label": "Name"}, *fields], "slots": slots,
    }  # fmt: skip
