"""Documents of earlier releases, read as today's: what is kept is never rewritten.

| format | was | is |
|---|---|---|
| 1 | `show_when: {field, values}` | `shown_when`, a formula; none where it hung on itself |
| 1 | the first of several rules into one field kept it | `if_written: leave` says so |

Some of the second format have the conditions of the first.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

Document = dict[str, Any]
FORMAT = 2
_PLAIN = re.compile(r"[a-z][a-z0-9_]*")


def upgraded(document: Document, written_as: int = FORMAT) -> Document:
    """A document as today's releases write it; the same one where nothing is of an earlier time.

    Args:
        written_as: the format in which it was written down.
    """
    with_formulas = _with_formulas(document)
    return with_word_for_written_fields(with_formulas) if written_as < 2 else with_formulas


def _with_formulas(document: Document) -> Document:
    places = [document.get("fields") or [], document.get("slots") or []]
    places += [slot.get("parts") or [] for slot in document.get("slots") or []]
    if not any("show_when" in entry for entries in places for entry in entries):
        return document
    types = {
        entry["key"]: entry.get("type") or "text"
        for entries in places
        for entry in entries
        if "key" in entry
    }

    looks_at = {
        entry["key"]: entry["show_when"]["field"]
        for entries in places
        for entry in entries
        if entry.get("show_when") and "key" in entry
    }

    def entry_of_today(entry: Document) -> Document:
        kept = {name: value for name, value in entry.items() if name != "show_when"}
        if "parts" in kept:
            kept["parts"] = [entry_of_today(part) for part in kept["parts"]]
        condition = entry.get("show_when")
        if condition and not _goes_in_a_circle(entry.get("key", ""), looks_at):
            kept["shown_when"] = condition_as_formula(condition, types)
        return kept

    return document | {
        name: [entry_of_today(entry) for entry in document[name]]
        for name in ("fields", "slots")
        if document.get(name)
    }


def _goes_in_a_circle(key: str, looks_at: Mapping[str, str]) -> bool:
    """Whether a condition hangs on itself, which formulas may not: then it is always shown."""
    seen: set[str] = set()
    place = looks_at.get(key)
    while place is not None and place not in seen:
        if place == key:
            return True
        seen.add(place)
        place = looks_at.get(place)
    return False


def condition_as_formula(condition: Mapping[str, Any], types: Mapping[str, str]) -> str:
    """The formula that holds where a field has one of some values.

    Args:
        condition: `field`, and `values` as texts.
        types: of the fields.
    """
    key = condition["field"]
    name = key if _PLAIN.fullmatch(key) else f"'{key}'"
    kind = types.get(key, "text")
    wanted = [_compared(name, kind, str(value)) for value in condition["values"]]
    return wanted[0] if len(wanted) == 1 else f"OR({'; '.join(wanted)})"


def _compared(name: str, kind: str, value: str) -> str:
    if kind in ("yes_no", "consent") and value in ("yes", "no"):
        return name if value == "yes" else f"NOT({name})"
    if value == "":
        return f"ISBLANK({name})"
    if kind == "number" and re.fullmatch(r"-?[0-9]+(\.[0-9]+)?", value):
        return f"{name} = {value}"
    quoted = value.replace('"', '""')
    return f'{name} = "{quoted}"'


def with_word_for_written_fields(document: Document) -> Document:
    """A document in which the later ones of several rules into one field say what was so.

    The same document where nothing is of an earlier time.
    """
    slots = [_slot_with_word(slot) for slot in document.get("slots") or []]
    return document if slots == (document.get("slots") or []) else document | {"slots": slots}


def _slot_with_word(slot: Document) -> Document:
    written: set[str] = set()
    rules = []
    for rule in slot.get("mapping") or []:
        into = rule.get("into")
        is_later = into in written and not rule.get("if_written")
        rules.append(rule | {"if_written": "leave"} if is_later else rule)
        if into:
            written.add(into)
    return slot | {"mapping": rules} if rules else slot
