"""Reading the formulas of a form: each is checked once, in an order in which all are known."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
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
        self._folded = {key.upper(): key for key in self._items}
        self._kinds: dict[str, frozenset[str]] = {}
        for key, item in self._items.items():
            if not isinstance(item, Field):
                continue
            field_type = FIELD_TYPES.get(item.type)
            if field_type is None or field_type.holds_value:
                self._kinds[key] = field_type.kinds if field_type else _ANY
        # The kinds of formula fields become known on the way.
        self._known = Names(self._kinds, [slot.key for slot in form.slots])

    def read(self) -> Form:
        """The form with its formulas; what is wrong is in `problems`."""
        for key, texts in self._written.items():
            self._parsed[key] = {s: p for s, w in texts.items() if (p := self._parse(w))}
        order = self._order()
        self._look_ahead(order)
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
        needs: dict[str, list[str]] = {}
        for key in self._items:
            names = [n for p in self._parsed.get(key, {}).values() for n in self._names(p)]
            needs[key] = [*sorted(names), *self._form.within(key)]
        try:
            return in_order(needs)
        except CircleError as error:
            circle = " → ".join(f"“{self._label(key)}”" for key in error.circle)
            written = [w for key in error.circle for w in self._written.get(key, {}).values()]
            first = next(iter(written), None)
            detail = f"These depend on each other: {circle}. Take one of these formulas out."
            self.problems.append(Problem(first.pointer if first else "/fields", detail))
            return list(self._items)

    def _names(self, parsed: Parsed) -> list[str]:
        """Keys of the fields and slots that a formula speaks of."""
        names = (self._folded.get(name.upper()) for name in fields_of(parsed.tree))
        return [name for name in names if name is not None]

    def _look_ahead(self, order: Sequence[str]) -> None:
        """Refuses conditions on what stands on a later page than what they decide."""
        pages, page = {}, 0
        for item in self._form.items:
            page += isinstance(item, Field) and item.type == "page"
            for key in (item.key, *(p.key for p in getattr(item, "parts", ()))):
                pages[key] = page
        # A formula field is known as soon as what it is worked out from is.
        known_from = dict(pages)
        for key in order:
            for setting, parsed in self._parsed.get(key, {}).items():
                names = self._names(parsed)
                if setting == "formula":
                    known_from[key] = max((known_from[name] for name in names), default=0)
                    continue
                later = next((name for name in names if known_from[name] > pages[key]), None)
                if later is not None:
                    detail = (
                        f"This asks for “{self._label(later)}”, which is filled on a later page. "
                        "Move one of them, or ask for something that is known by then."
                    )
                    self.problems.append(Problem(self._written[key][setting].pointer, detail))

    def _label(self, key: str) -> str:
        return getattr(self._items[key], "label", "") or key

    def _checked(self, key: str) -> dict[str, Formula]:
        found: dict[str, Formula] = {}
        for setting, parsed in self._parsed.get(key, {}).items():
            written = self._written[key][setting]
            try:
                formula = check(parsed, self._known)
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
