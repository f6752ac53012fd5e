"""Reading a form document: from plain data to a `Form`, or the list of what is wrong.

The schema (which keys, which types) is checked where the document comes in; here it is held
against itself: names that must exist, keys that must differ, mappings that must lead somewhere.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from typing import Any

from ..address import COMPONENTS
from ..errors import DocumentError, Problem, nearest_names, unknown_name_detail
from ..kinds import SUGGESTION_KINDS
from ..layouts import LayoutLibrary, unknown_country_detail
from ..mapping.changes import CHANGES
from ..mapping.rules import Rule
from .field_types import FIELD_TYPES, SOME_HAVE
from .formula_reading import with_formulas
from .model import FORM_KINDS, FORM_STYLES, Field, Form, Option, Slot
from .translations import translation_problems

_KEY = re.compile(r"[a-z][a-z0-9_-]{0,63}")
Document = Mapping[str, Any]


def read_form(document: Document, layouts: LayoutLibrary) -> Form:
    """The form of a document.

    Raises:
        DocumentError: with every problem found, each with a pointer into the document.
    """
    form, problems = read_unfinished(document, layouts)
    if problems:
        raise DocumentError(f"form {document.get('key', '')}", problems)
    return form


def read_unfinished(document: Document, layouts: LayoutLibrary) -> tuple[Form, list[Problem]]:
    """A form as far as its document can be read, and what is wrong with it.

    What is unknown in it is left out of the form: formulas that cannot be, rules that lead nowhere.
    """
    reader = _Reader(layouts)
    form = reader.form(document)
    return form, reader.problems


class _Reader:
    """Reads one document and gathers its problems."""

    def __init__(self, layouts: LayoutLibrary) -> None:
        self.problems: list[Problem] = []
        self._layouts = layouts

    def form(self, document: Document) -> Form:
        self._key(document["key"], "/key")
        self._one_of("kind of form", document["kind"], FORM_KINDS, "/kind")
        style = document.get("style") or "whole"
        self._one_of("style", style, FORM_STYLES, "/style")
        slots = {
            slot["key"]: self._slot(slot, f"/slots/{index}")
            for index, slot in enumerate(document.get("slots", ()))
        }
        form = Form(
            key=document["key"],
            kind=document["kind"],
            title=document["title"],
            intro=document.get("intro") or "",
            thanks=document.get("thanks") or "",
            items=tuple(self._items(document.get("fields", ()), slots)),
            style=style,
            keeps_hidden=bool(document.get("keeps_hidden")),
        )
        if self._distinct_keys(form, document):  # what formulas speak of is there once
            self.problems += translation_problems(form, document)
            form, problems = with_formulas(form, document)
            self.problems += problems
        keys = [f.key for f in form.all_fields()]
        self._mapping_targets(document, keys)
        items = tuple(_that_lead_somewhere(item, keys) for item in form.items)
        return replace(form, items=items) if items != form.items else form

    def _items(
        self, entries: Sequence[Document], slots: Mapping[str, Slot]
    ) -> Iterable[Field | Slot]:
        placed: set[str] = set()
        for index, entry in enumerate(entries):
            pointer = f"/fields/{index}"
            key = entry.get("slot")
            if key is None:
                yield self._field(entry, pointer)
            elif key not in slots:
                self._unknown("slot", key, slots, f"{pointer}/slot")
            elif key in placed:
                self._say(f"{pointer}/slot", f"The slot {key!r} is already on the form.")
            else:
                placed.add(key)
                yield slots[key]
        yield from (slot for key, slot in slots.items() if key not in placed)

    def _field(self, entry: Document, pointer: str, slot: str | None = None) -> Field:
        key, kind = entry["key"], entry.get("type") or "text"
        self._key(key, f"{pointer}/key")
        self._one_of("type of field", kind, FIELD_TYPES, f"{pointer}/type")
        component = entry.get("component")
        if component is not None:
            self._one_of("component", component, COMPONENTS, f"{pointer}/component")
        label = entry.get("label") or ""
        options = tuple(
            Option(o["value"], o.get("label") or o["value"]) for o in entry.get("options") or ()
        )
        field_type = FIELD_TYPES.get(kind)
        if not label and component is None and field_type is not None and field_type.needs_label:
            self._say(f"{pointer}/label", "Give the field a label, so that people know it.")
        field = Field(
            key=key,
            type=kind,
            label=label,
            required=bool(entry.get("required") or (field_type and field_type.always_needed)),
            help=entry.get("help") or "",
            options=options,
            placeholder=entry.get("placeholder") or "",
            max_length=entry.get("max_length") or (field_type.longest if field_type else None),
            least=entry.get("least"),
            most=entry.get("most"),
            decimals=entry.get("decimals"),
            unit=entry.get("unit") or "",
            hidden=bool(entry.get("hidden")),
            form=entry.get("form"),
            shows=entry.get("shows"),
            columns=entry.get("columns"),
            foldable=bool(entry.get("foldable")),
            folded=bool(entry.get("folded")),
            component=component,
            slot=slot,
        )
        if kind == "formula" and not entry.get("formula"):
            self._say(f"{pointer}/formula", "Write what the field comes to: = and a formula.")
        for setting in SOME_HAVE:
            value = entry.get(setting)
            stands = value is not None and value is not False and value != []
            if field_type and stands and setting not in field_type.settings:
                having = [name for name, t in FIELD_TYPES.items() if setting in t.settings]
                detail = f"Leave it out: only fields of the type {' or '.join(having)} have it."
                self._say(f"{pointer}/{setting}", detail)
        for setting, detail in field_type.faults(field) if field_type else ():
            self._say(f"{pointer}/{setting}", detail)
        return self._with_default(field, entry.get("default"), pointer)

    def _with_default(self, field: Field, default: object, pointer: str) -> Field:
        """A field with what stands in it at first."""
        field_type = FIELD_TYPES.get(field.type)
        if field_type is None or default in (None, "", []):
            return field
        if not field_type.is_filled or field_type.always_needed:
            detail = f"Leave it out: nothing can stand in a {field_type.title.lower()} at first."
            self._say(f"{pointer}/default", detail)
            return field
        value, fault = field_type.read(field, default)
        if fault:
            self._say(f"{pointer}/default", fault)
        return replace(field, default=None if fault else value)

    def _slot(self, entry: Document, pointer: str) -> Slot:
        self._key(entry["key"], f"{pointer}/key")
        codes = [layout.country_code for layout in self._layouts]
        countries = tuple(entry["countries"])
        for index, code in enumerate(countries):
            if code not in codes:
                detail = unknown_country_detail(code, codes, "layout for country")
                self._say(f"{pointer}/countries/{index}", detail)
        country = entry.get("country") or None
        if country is not None and country not in countries:
            self._unknown("country of this slot", country, countries, f"{pointer}/country")
        for index, kind in enumerate(entry.get("kinds") or ()):
            self._one_of("kind of suggestion", kind, SUGGESTION_KINDS, f"{pointer}/kinds/{index}")
        return Slot(
            key=entry["key"],
            label=entry["label"],
            countries=tuple(code for code in countries if code in codes),
            country=country,
            kinds=tuple(entry.get("kinds") or ()),
            required=entry.get("required", True) is not False,
            help=entry.get("help") or "",
            parts=tuple(
                self._field(part, f"{pointer}/parts/{index}", slot=entry["key"])
                for index, part in enumerate(entry.get("parts") or ())
            ),
            mapping=tuple(
                self._rule(rule, f"{pointer}/mapping/{index}")
                for index, rule in enumerate(entry.get("mapping") or ())
            ),
        )

    def _rule(self, entry: Document, pointer: str) -> Rule:
        for index, name in enumerate(entry["components"]):
            self._one_of("component", name, COMPONENTS, f"{pointer}/components/{index}")
        for index, change in enumerate(entry.get("changes") or ()):
            self._one_of("change", change, CHANGES, f"{pointer}/changes/{index}")
        join = entry.get("join")
        return Rule(
            components=tuple(entry["components"]),
            into=entry["into"],
            join=" " if join is None else join,
            changes=tuple(entry.get("changes") or ()),
        )

    def _distinct_keys(self, form: Form, document: Document) -> bool:
        counted: dict[str, int] = {}
        for key in [f.key for f in form.all_fields()] + [s["key"] for s in _slots(document)]:
            counted[key] = counted.get(key, 0) + 1
        for key, times in counted.items():
            if times > 1:
                self._say("/fields", f"The key {key!r} is used {times} times; keys must differ.")
        return all(times == 1 for times in counted.values())

    def _mapping_targets(self, document: Document, keys: Sequence[str]) -> None:
        for s, slot in enumerate(_slots(document)):
            for r, rule in enumerate(slot.get("mapping") or ()):
                if rule["into"] not in keys:
                    self._unknown("field", rule["into"], keys, f"/slots/{s}/mapping/{r}/into")

    def _key(self, key: str, pointer: str) -> None:
        if not _KEY.fullmatch(key):
            self._say(
                pointer,
                f"{key!r} cannot be a key: use small letters, digits, _ and -, "
                "beginning with a letter, at most 64.",
            )

    def _one_of(self, what: str, name: str, known: Iterable[str], pointer: str) -> None:
        choices = list(known)
        if name not in choices:
            self._unknown(what, name, choices, pointer)

    def _unknown(self, what: str, name: str, known: Iterable[str], pointer: str) -> None:
        self._say(pointer, unknown_name_detail(what, name, nearest_names(name, known)))

    def _say(self, pointer: str, detail: str) -> None:
        self.problems.append(Problem(pointer, detail))


def _that_lead_somewhere(item: Field | Slot, keys: Sequence[str]) -> Field | Slot:
    """A slot without the rules that no field can follow."""
    if not isinstance(item, Slot):
        return item
    rules = tuple(
        rule
        for rule in item.mapping
        if rule.into in keys
        and set(rule.components) <= set(COMPONENTS)
        and set(rule.changes) <= set(CHANGES)
    )
    return replace(item, mapping=rules) if rules != item.mapping else item


def _slots(document: Document) -> Sequence[Document]:
    return document.get("slots") or ()
