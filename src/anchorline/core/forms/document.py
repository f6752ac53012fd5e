"""Reading a form document: from plain data to a `Form`, or the list of what is wrong.

The schema (which keys, which types) is checked where the document comes in; here it is held
against itself: names that must exist, keys that must differ, mappings that must lead somewhere.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from typing import Any

from ..address import COMPONENTS, escape_pointer
from ..errors import DocumentError, Problem
from ..faults import Faults
from ..kinds import SUGGESTION_KINDS
from ..layouts import LayoutLibrary, unknown_country_detail
from ..mapping import read_rules, rule_fills
from .field_types import FIELD_TYPES, SOME_HAVE
from .formula_reading import with_formulas
from .model import FORM_KINDS, FORM_STYLES, Field, Form, Option, PhoneSettings, Slot
from .public import read_public
from .slot_settings import check_references, read_settings
from .translations import translation_problems

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


class _Reader(Faults):
    """Reads one document and gathers its problems."""

    def __init__(self, layouts: LayoutLibrary) -> None:
        super().__init__()
        self._layouts = layouts

    def form(self, document: Document) -> Form:
        self.key(document["key"], "/key")
        self.one_of("kind of form", document["kind"], FORM_KINDS, "/kind")
        style = document.get("style") or "whole"
        self.one_of("style", style, FORM_STYLES, "/style")
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
            public=read_public(document, self),
        )
        if self._distinct_keys(form, document):  # what formulas speak of is there once
            self.problems += translation_problems(form, document)
            form, problems = with_formulas(form, document)
            self.problems += problems
        keys = [f.key for f in form.all_fields()]
        self._mapping_targets(document, keys)
        self._references(form, document)
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
                self.unknown("slot", key, slots, f"{pointer}/slot")
            elif key in placed:
                self.say(f"{pointer}/slot", f"The slot {key!r} is already on the form.")
            else:
                placed.add(key)
                yield slots[key]
        yield from (slot for key, slot in slots.items() if key not in placed)

    def _field(self, entry: Document, pointer: str, slot: str | None = None) -> Field:
        key, kind = entry["key"], entry.get("type") or "text"
        self.key(key, f"{pointer}/key")
        self.one_of("type of field", kind, FIELD_TYPES, f"{pointer}/type")
        component = entry.get("component")
        if component is not None:
            self.one_of("component", component, COMPONENTS, f"{pointer}/component")
        label = entry.get("label") or ""
        options = tuple(
            Option(o["value"], o.get("label") or o["value"]) for o in entry.get("options") or ()
        )
        field_type = FIELD_TYPES.get(kind)
        if not label and component is None and field_type is not None and field_type.needs_label:
            self.say(f"{pointer}/label", "Give the field a label, so that people know it.")
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
            searches=tuple(entry.get("searches") or ()),
            open_to_all=bool(entry.get("open_to_all")),
            makes_new=bool(entry.get("makes_new")),
            phone=_phone(entry.get("phone") or {}),
            columns=entry.get("columns"),
            foldable=bool(entry.get("foldable")),
            folded=bool(entry.get("folded")),
            component=component,
            slot=slot,
        )
        if kind == "formula" and not entry.get("formula"):
            self.say(f"{pointer}/formula", "Write what the field comes to: = and a formula.")
        for setting in SOME_HAVE:
            value = entry.get(setting)
            stands = value is not None and value is not False and value != []
            if field_type and stands and setting not in field_type.settings:
                having = [name for name, t in FIELD_TYPES.items() if setting in t.settings]
                detail = f"Leave it out: only fields of the type {' or '.join(having)} have it."
                self.say(f"{pointer}/{setting}", detail)
        for setting, detail in field_type.faults(field) if field_type else ():
            self.say(f"{pointer}/{setting}", detail)
        return self._with_default(field, entry.get("default"), pointer)

    def _with_default(self, field: Field, default: object, pointer: str) -> Field:
        """A field with what stands in it at first."""
        field_type = FIELD_TYPES.get(field.type)
        if field_type is None or default in (None, "", []):
            return field
        if not field_type.is_filled or field_type.always_needed:
            detail = f"Leave it out: nothing can stand in a {field_type.title.lower()} at first."
            self.say(f"{pointer}/default", detail)
            return field
        value, fault = field_type.read(field, default)
        if fault:
            self.say(f"{pointer}/default", fault)
        return replace(field, default=None if fault else value)

    def _slot(self, entry: Document, pointer: str) -> Slot:
        self.key(entry["key"], f"{pointer}/key")
        codes = [layout.country_code for layout in self._layouts]
        # One that names none is there for all.
        countries = tuple(entry.get("countries") or codes)
        for index, code in enumerate(countries):
            if code not in codes:
                detail = unknown_country_detail(code, codes, "layout for country")
                self.say(f"{pointer}/countries/{index}", detail)
        country = entry.get("country") or None
        if country is not None and country not in countries:
            self.unknown("country of this slot", country, countries, f"{pointer}/country")
        for index, example in enumerate(entry.get("examples") or ()):
            for name in example["components"]:
                place = f"{pointer}/examples/{index}/components/{escape_pointer(name)}"
                self.one_of("component", name, COMPONENTS, place)
        for index, kind in enumerate(entry.get("kinds") or ()):
            self.one_of("kind of suggestion", kind, SUGGESTION_KINDS, f"{pointer}/kinds/{index}")
        return Slot(
            key=entry["key"],
            label=entry["label"],
            countries=tuple(code for code in countries if code in codes),
            country=country,
            kinds=tuple(entry.get("kinds") or ()),
            required=entry.get("required", True) is not False,
            help=entry.get("help") or "",
            settings=read_settings(entry, pointer, self),
            parts=tuple(
                self._field(part, f"{pointer}/parts/{index}", slot=entry["key"])
                for index, part in enumerate(entry.get("parts") or ())
            ),
            mapping=read_rules(entry.get("mapping") or (), f"{pointer}/mapping", self),
        )

    def _references(self, form: Form, document: Document) -> None:
        places = {slot["key"]: f"/slots/{n}" for n, slot in enumerate(_slots(document))}
        slots = ((places[slot.key], slot.key, slot.settings) for slot in form.slots)
        check_references(slots, {f.key: f.type for f in form.all_fields()}, self)
        keys = [slot.key for slot in form.slots]
        for index, entry in enumerate(document.get("fields", ())):
            named = (entry.get("phone") or {}).get("slot")
            if named is not None:
                self.one_of("slot", named, keys, f"/fields/{index}/phone/slot")

    def _distinct_keys(self, form: Form, document: Document) -> bool:
        counted: dict[str, int] = {}
        for key in [f.key for f in form.all_fields()] + [s["key"] for s in _slots(document)]:
            counted[key] = counted.get(key, 0) + 1
        for key, times in counted.items():
            if times > 1:
                self.say("/fields", f"The key {key!r} is used {times} times; keys must differ.")
        return all(times == 1 for times in counted.values())

    def _mapping_targets(self, document: Document, keys: Sequence[str]) -> None:
        for s, slot in enumerate(_slots(document)):
            for r, rule in enumerate(slot.get("mapping") or ()):
                for key in rule_fills(rule):
                    if key not in keys:
                        self.unknown("field", key, keys, f"/slots/{s}/mapping/{r}/into")


def _phone(entry: Document) -> PhoneSettings:
    lists = {name: tuple(entry.get(name) or ()) for name in ("only", "without", "first")}
    return PhoneSettings(
        country=entry.get("country"),
        slot=entry.get("slot"),
        national=bool(entry.get("national")),
        **lists,
    )


def _that_lead_somewhere(item: Field | Slot, keys: Sequence[str]) -> Field | Slot:
    """A slot without the rules that no field can follow."""
    if not isinstance(item, Slot):
        return item
    rules = tuple(rule for rule in item.mapping if set(rule.into) <= set(keys))
    return replace(item, mapping=rules) if rules != item.mapping else item


def _slots(document: Document) -> Sequence[Document]:
    return document.get("slots") or ()
