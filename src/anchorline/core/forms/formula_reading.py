"""Reading the formulas of a form: each is checked once, in an order in which all are known."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from ..errors import Problem
from ..formula import CircleError, Formula, FormulaError, Names, check, in_order, parse
from ..formula.functions import TAKEN_FOR
from ..formula.parsing import Parsed
from ..formula.tree import fields_of
from .field_types import FIELD_TYPES
from .model import Field, Form, Slot

SETTINGS = ("formula", "shown_when", "required_when")
_ANY = frozenset({"number", "text", "yes_no", "date", "empty"})


@dataclass(frozen=True, slots=True)
class _Written:
    """A formula as it stands in a document."""

    text: str
    pointer: str


Written = Mapping[str, Mapping[str, _Written]]


def with_formulas(form: Form, document: Mapping[str, Any]) -> tuple[Form, list[Problem]]:
    """A form with the formulas of its document, and what is wrong with them."""
    written = _written(document)
    if not any(written.values()):
        return form, []
    reader = _FormulaReader(form, written)
    return reader.read(), reader.problems


def _written(document: Mapping[str, Any]) -> Written:
    """The formulas of a document by the key of their field or slot and by their setting."""
    found: dict[str, dict[str, _Written]] = {}

    def add(entries: Iterable[Mapping[str, Any]], pointer: str) -> None:
        for index, entry in enumerate(entries):
            place = f"{pointer}/{index}"
            if "key" in entry:
                found[entry["key"]] = {
                    setting: _Written(entry[setting], f"{place}/{setting}")
                    for setting in SETTINGS
                    if entry.get(setting)
                }
            add(entry.get("parts") or (), f"{place}/parts")

    add(document.get("fields") or (), "/fields")
    add(document.get("slots") or (), "/slots")
    return found


class _FormulaReader:
    def __init__(self, form: Form, written: Written) -> None:
        self.problems: list[Problem] = []
        self._form, self._written = form, written
        self._items: dict[str, Field | Slot] = {key: form.item(key) for key in form.order}
        self._parsed: dict[str, dict[str, Parsed]] = {}
        self._kinds: dict[str, frozenset[str]] = {}
        for key, item in self._items.items():
            if isinstance(item, Field) and FIELD_TYPES[item.type].holds_value:
                self._kinds[key] = FIELD_TYPES[item.type].kinds

    def read(self) -> Form:
        """The form with its formulas; what is wrong is in `problems`."""
        for key, texts in self._written.items():
            self._parsed[key] = {s: p for s, w in texts.items() if (p := self._parse(w))}
        order = self._order()
        found: dict[str, dict[str, Formula]] = {}
        for key in order:
            item = self._items[key]
            found[key] = formulas = self._checked(key)
            if isinstance(item, Field) and item.type == "formula":
                formula = formulas.get("formula")
                self._kinds[key] = (formula.gives if formula else _ANY) | {"empty"}
        items = tuple(_with(item, found) for item in self._form.items)
        return replace(self._form, items=items, order=tuple(order))

    def _parse(self, written: _Written) -> Parsed | None:
        try:
            return parse(written.text)
        except FormulaError as error:
            self._say(written, error)
            return None

    def _order(self) -> list[str]:
        known = {key.upper(): key for key in self._items}
        needs: dict[str, list[str]] = {}
        for key, item in self._items.items():
            names = {
                name.upper()
                for parsed in self._parsed.get(key, {}).values()
                for name in fields_of(parsed.tree)
            }
            needs[key] = [known[name] for name in sorted(names) if name in known]
            if isinstance(item, Field) and item.slot is not None:
                needs[key].append(item.slot)
        try:
            return in_order(needs)
        except CircleError as error:
            circle = " → ".join(f"“{self._label(key)}”" for key in error.circle)
            first = next(iter(self._written[error.circle[0]].values()), None)
            detail = f"These depend on each other: {circle}. Take one of these formulas out."
            self.problems.append(Problem(first.pointer if first else "/fields", detail))
            return list(self._items)

    def _label(self, key: str) -> str:
        return getattr(self._items[key], "label", "") or key

    def _checked(self, key: str) -> dict[str, Formula]:
        slots = [slot.key for slot in self._form.slots]
        names = Names(self._kinds, slots)
        found: dict[str, Formula] = {}
        for setting, parsed in self._parsed.get(key, {}).items():
            written = self._written[key][setting]
            try:
                formula = check(parsed, names)
            except FormulaError as error:
                self._say(written, error)
                continue
            if setting != "formula" and not formula.gives & TAKEN_FOR["yes_no"]:
                detail = "A condition is yes or no; this is a date. Compare it with another one."
                self.problems.append(Problem(written.pointer, detail))
            found[setting] = formula
        return found

    def _say(self, written: _Written, error: FormulaError) -> None:
        self.problems.append(Problem(written.pointer, error.detail, error.at, error.length))


def _with(item: Field | Slot, found: Mapping[str, Mapping[str, Formula]]) -> Field | Slot:
    if isinstance(item, Field):
        return _field_with(item, found)
    formulas: dict[str, Any] = dict(found.get(item.key, {}))
    formulas.pop("formula", None)
    parts = tuple(_field_with(part, found) for part in item.parts)
    return replace(item, parts=parts, **formulas)


def _field_with(item: Field, found: Mapping[str, Mapping[str, Formula]]) -> Field:
    formulas: dict[str, Any] = dict(found.get(item.key, {}))
    return replace(item, **formulas)
