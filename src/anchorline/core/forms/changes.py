"""What changes between two documents of a form, in sentences for whoever publishes.

Sentences name things by their labels, as people know them.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher
from typing import Any

from ..address import escape_pointer
from ..document_changes import Change, from_to
from ..mapping import rule_fills
from ..mapping.words import source_in_words
from .change_words import (
    CONDITIONS,
    PUBLIC,
    SETTINGS,
    STYLES,
    WHOLE,
    country_changes,
    example_changes,
    option_changes,
)
from .conditions import in_words
from .field_types import FIELD_TYPES
from .slot_settings import SETTINGS as SLOT_SETTINGS

Document = Mapping[str, Any]


def changes_between(old: Document, new: Document) -> list[Change]:
    """What changes from one document to another, in the order in which one reads a form."""
    return [*_Comparison(old, new).all()]


@dataclass(frozen=True)
class _Entry:
    """A field or slot of a document with its place."""

    item: Document
    pointer: str
    slot: Document | None = None
    is_slot: bool = False

    @property
    def name(self) -> str:
        """What people know it by."""
        own = self.item.get("label") or _part_name(self.item) or self.item["key"]
        return f"“{self.slot['label']}: {own}”" if self.slot is not None else f"“{own}”"


def _part_name(item: Document) -> str:
    return str(item.get("component") or "").replace("_", " ")


class _Comparison:
    def __init__(self, old: Document, new: Document) -> None:
        self._old, self._new = old, new
        self._before, self._now = _entries(old), _entries(new)
        self._items = {key: entry.item for key, entry in self._now.items()}

    def all(self) -> Iterator[Change]:
        yield from self._settings()
        for key, entry in self._before.items():
            if key not in self._now:
                yield self._removed(entry, key)
        for key, entry in self._now.items():
            earlier = self._before.get(key)
            if earlier is None:
                yield Change("added", entry.pointer, f"{entry.name} is new: {_what(entry)}.")
            else:
                yield from self._changed(earlier, entry)
        yield from self._moved()
        yield from self._translated()

    def _settings(self) -> Iterator[Change]:
        old, new = self._old, self._new
        for name, called in WHOLE.items():
            if old.get(name) != new.get(name):
                yield Change("changed", f"/{name}", f"{called} {from_to(old, new, name)}.")
        style = new.get("style") or "whole"
        if (old.get("style") or "whole") != style:
            yield Change("changed", "/style", f"The form is now filled {STYLES[style]}.")
        if old.get("kind") != new.get("kind"):
            who = "anyone at its public page" if new.get("kind") == "web" else "staff only"
            yield Change("changed", "/kind", f"The form is now filled by {who}.")
        if bool(old.get("keeps_hidden")) != bool(new.get("keeps_hidden")):
            now = "is now kept too" if new.get("keeps_hidden") else "is no longer kept"
            yield Change("changed", "/keeps_hidden", f"What a condition hides {now}.")
        yield from self._public()

    def _public(self) -> Iterator[Change]:
        old, new = self._old.get("public") or {}, self._new.get("public") or {}
        for name in dict.fromkeys([*old, *new]):
            if old.get(name) != new.get(name):
                detail = f"{PUBLIC[name]} {from_to(old, new, name)}."
                yield Change("changed", f"/public/{name}", detail)

    def _removed(self, entry: _Entry, key: str) -> Change:
        if entry.is_slot:
            return Change("removed", entry.pointer, f"The address {entry.name} is removed", key)
        field_type = FIELD_TYPES.get(entry.item.get("type") or "text")
        holds = field_type is None or field_type.holds_value
        return Change("removed", entry.pointer, f"{entry.name} is removed", key if holds else None)

    def _changed(self, before: _Entry, now: _Entry) -> Iterator[Change]:
        old, new = before.item, now.item
        for name in dict.fromkeys([*old, *new]):
            if old.get(name) == new.get(name) or name in ("key", "parts"):
                continue
            for detail in self._setting(name, before, now):
                yield Change("changed", f"{now.pointer}/{name}", detail)

    def _setting(self, name: str, before: _Entry, now: _Entry) -> Iterator[str]:
        old, new, called = before.item, now.item, now.name
        if name == "label":
            yield f"{before.name} is now called {called}."
        elif name == "required":
            is_needed = bool(new.get("required", now.is_slot))
            yield f"{called} is {'now' if is_needed else 'no longer'} required."
        elif name in CONDITIONS:
            always, when = CONDITIONS[name]
            condition = new.get(name)
            yield f"{called} {f'{when} {self._said(condition)}' if condition else always}."
        elif name == "formula":
            yield f"{called} is worked out otherwise: {new.get(name)}"
        elif name == "type":
            yield f"{called} is now {_what(now)}; records keep what they have."
        elif name == "options":
            yield from option_changes(called, old.get(name) or (), new.get(name) or ())
        elif name == "countries":
            yield from country_changes(called, old.get(name) or (), new.get(name) or ())
        elif name in SLOT_SETTINGS:
            yield self._slot_setting(name, new, called)
        elif name == "mapping":
            yield from self._mapping(called, old.get(name) or (), new.get(name) or ())
        elif name == "examples":
            yield from example_changes(called, old.get(name) or (), new.get(name) or ())
        else:
            yield f"{SETTINGS.get(name, name)} of {called} {from_to(old, new, name)}."

    def _slot_setting(self, name: str, new: Document, called: str) -> str:
        setting = SLOT_SETTINGS[name]
        names = {key: entry.name for key, entry in {**self._before, **self._now}.items()}
        value = setting.says(new.get(name), lambda key: names.get(key, key))
        return f"{setting.title} of {called}: now {value}."

    def _said(self, condition: str) -> str:
        return in_words(condition, self._items) or condition

    def _mapping(
        self, called: str, old: Sequence[Document], new: Sequence[Document]
    ) -> Iterator[str]:
        names = {key: entry.name for key, entry in {**self._before, **self._now}.items()}

        def goes(rule: Document) -> str:
            targets = " and ".join(names.get(key, key) for key in rule_fills(rule))
            return f"{source_in_words(rule)} into {targets}"

        gone = [rule for rule in old if rule not in new]
        come = [rule for rule in new if rule not in old]
        for rule in come:
            earlier = next((one for one in gone if rule_fills(one) == rule_fills(rule)), None)
            if earlier is None:
                yield f"The address {called} now fills {goes(rule)}."
            else:
                gone.remove(earlier)
                yield f"The address {called} fills {goes(rule)} otherwise than before."
        for rule in gone:
            yield f"The address {called} no longer fills {goes(rule)}."
        if not gone and not come:
            yield f"The rules of the address {called} stand in another order."

    def _moved(self) -> Iterator[Change]:
        before = [key for key in _order(self._old) if key in self._now]
        now = [key for key in _order(self._new) if key in self._before]
        kept = {
            key
            for block in SequenceMatcher(a=before, b=now, autojunk=False).get_matching_blocks()
            for key in now[block.b : block.b + block.size]
        }
        whole = _order(self._new)
        for key in now:
            if key in kept:
                continue
            at = whole.index(key)
            after = self._now[whole[at - 1]].name if at else None
            place = f"after {after}" if after else "at the beginning"
            detail = f"{self._now[key].name} now stands {place}."
            yield Change("moved", self._now[key].pointer, detail)

    def _translated(self) -> Iterator[Change]:
        old, new = self._old.get("translations") or {}, self._new.get("translations") or {}
        for language in dict.fromkeys([*old, *new]):
            if old.get(language) == new.get(language):
                continue
            pointer = f"/translations/{escape_pointer(language)}"
            if language not in old:
                yield Change("added", pointer, f"The form can now be read in “{language}”.")
            elif language not in new:
                yield Change("removed", pointer, f"The form is no longer there in “{language}”.")
            else:
                yield Change("changed", pointer, f"Its translation into “{language}” has changed.")


def _entries(document: Document) -> dict[str, _Entry]:
    """Fields, slots and their parts by key, in the order on the form."""
    slots = {slot["key"]: (n, slot) for n, slot in enumerate(document.get("slots") or ())}
    found: dict[str, _Entry] = {}

    def place(key: str) -> None:
        at, slot = slots[key]
        found[key] = _Entry(slot, f"/slots/{at}", is_slot=True)
        for n, part in enumerate(slot.get("parts") or ()):
            found[part["key"]] = _Entry(part, f"/slots/{at}/parts/{n}", slot)

    for n, entry in enumerate(document.get("fields") or ()):
        if "slot" not in entry:
            found[entry["key"]] = _Entry(entry, f"/fields/{n}")
        elif entry["slot"] in slots:
            place(entry["slot"])
    for key in slots:
        if key not in found:
            place(key)
    return found


def _order(document: Document) -> list[str]:
    """Keys of fields and slots in the order on the form, without parts."""
    return [key for key, entry in _entries(document).items() if entry.slot is None]


def _what(entry: _Entry) -> str:
    if entry.is_slot:
        return "an address"
    field_type = FIELD_TYPES.get(entry.item.get("type") or "text")
    name = field_type.title.lower() if field_type else str(entry.item.get("type"))
    return f"{'an' if name[0] in 'aeiou' else 'a'} {name}" if name[0] != "y" else name
