"""Reading a change from a document: a name, or an object with its settings."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ...address import escape_pointer
from ...faults import Faults
from ...layouts import is_language
from .kind import CHANGES, Change, ChangeKind, Setting


def read_change(entry: str | Mapping[str, Any], pointer: str, faults: Faults) -> Change | None:
    """A change as a rule uses it, or None with the reason in `faults`.

    Args:
        entry: `upper`, `{"first": 3}` or `{"pad": {"to": 5, "with": "0"}}`: a name, the first
            setting alone, or settings by name. A table stands for itself.
    """
    if isinstance(entry, str):
        name, given = entry, None
    elif len(entry) == 1:
        ((name, given),) = entry.items()
    else:
        faults.say(pointer, "Write one change: its name, or its name with its settings.")
        return None
    kind = CHANGES.get(name)
    if kind is None:
        faults.unknown("change", name, CHANGES, pointer)
        return None
    place = pointer if isinstance(entry, str) else f"{pointer}/{escape_pointer(name)}"
    before = len(faults.problems)
    settings = _settings(kind, given, place, faults)
    for setting, detail in kind.faults(settings) if len(faults.problems) == before else ():
        faults.say(f"{place}/{setting}", detail)
    return Change(kind, settings) if len(faults.problems) == before else None


def _settings(kind: ChangeKind, given: Any, pointer: str, faults: Faults) -> dict[str, Any]:
    known = {setting.name: setting for setting in kind.settings}
    if kind.is_table:
        values = {} if given is None else {kind.settings[0].name: given}
    elif isinstance(given, Mapping):
        values = dict(given)
    elif given is None or not known:
        values = {}
        if given is not None:
            faults.say(pointer, f"The change {kind.name} has no settings: write its name alone.")
    else:
        values = {kind.settings[0].name: given}
    for name in values:
        faults.one_of(f"setting of {kind.name}", name, known, f"{pointer}/{escape_pointer(name)}")
    if values.keys() - known.keys():
        return {}  # what is missing may be what was misspelt
    found: dict[str, Any] = {}
    for name, setting in known.items():
        value = values.get(name)
        if value is None:
            if setting.default is None:
                faults.say(pointer, f"Give the change {kind.name} its {setting.title.lower()}.")
            found[name] = setting.default
        elif fault := _fault(setting, value):
            place = pointer if kind.is_table else f"{pointer}/{name}"
            faults.say(place, f"{setting.title}: {fault}")
        else:
            found[name] = value
    return found


def _fault(setting: Setting, value: Any) -> str:
    """Why a value cannot be that of a setting; empty where it can."""
    if setting.type == "count":
        is_count = isinstance(value, int) and not isinstance(value, bool)
        if not is_count or not setting.least <= value <= setting.most:
            return f"a whole number from {setting.least} to {setting.most}, not {value!r}."
    elif setting.type == "choice":
        if value not in setting.options:
            return f"one of {', '.join(setting.options)}, not {value!r}."
    elif setting.type == "table":
        is_table = isinstance(value, Mapping) and all(
            isinstance(one, str) for pair in value.items() for one in pair
        )
        if not is_table or not value:
            return "a table of texts, each with the text that stands for it."
    elif not isinstance(value, str):
        return f"a text, not {value!r}."
    elif setting.type == "language" and not is_language(value):
        return f"a language such as de or pt-BR, not {value!r}."
    return ""
