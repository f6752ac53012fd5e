"""A rule of a document in words, for people who read a list of rules."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from .changes import CHANGES
from .rules import IF_WRITTEN

Entry = Mapping[str, Any]
_FACTS = {
    "id": "the id of the address",
    "line": "the address in one line",
    "lines": "the address in its lines",
}


def source_in_words(rule: Entry) -> str:
    """What a rule takes: `number street, town`."""
    if rule.get("components"):
        return _joined(rule)
    if rule.get("facts"):
        return " and ".join(_FACTS.get(name, name) for name in rule["facts"])
    if rule.get("lines"):
        which = rule["lines"]
        if which == "all":
            return "all lines of the country"
        return "the line with the street" if which == "street" else f"line {which} of the country"
    if rule.get("formula"):
        return f"={str(rule['formula']).removeprefix('=')}"
    if rule.get("fit"):
        named = [_name(one) for one in rule["fit"].get("components") or ()]
        return f"{', '.join(named) or 'the rest'}, fitted to lines"
    if rule.get("link"):
        link = rule["link"]
        by = " and ".join(source_in_words(one) for one in link.get("find") or ())
        made = ", made where there is none" if link.get("creates") else ""
        return f"the record of {link['form']} by {by or 'nothing'}{made}"
    return "nothing"


def conditions_in_words(rule: Entry) -> str:
    """When a rule applies, and what it does to a field that is written; empty for always."""
    told = []
    if rule.get("otherwise"):
        told.append("else")
    if rule.get("when"):
        told.append(f"when {str(rule['when']).removeprefix('=')}")
    if rule.get("if_written"):
        word = IF_WRITTEN.get(rule["if_written"], rule["if_written"])
        told.append(f"if the field is written: {word}")
    return "; ".join(told)


def changes_in_words(changes: Sequence[str | Entry]) -> Iterator[str]:
    """Changes by their titles, each with its settings."""
    for change in changes:
        name, settings = (change, None) if isinstance(change, str) else next(iter(change.items()))
        title = CHANGES[name].title if name in CHANGES else name
        if isinstance(settings, Mapping):
            told = ", ".join(f"{key} {value}" for key, value in settings.items())
            yield f"{title} ({told})"
        else:
            yield title if settings is None else f"{title} {settings}"


def _joined(group: Entry) -> str:
    join = group.get("join")
    parts = (_name(part) if isinstance(part, str) else _group(part) for part in group["components"])
    return (" " if join is None else join).join(parts)


def _group(group: Entry) -> str:
    told = ", ".join(changes_in_words(group.get("changes") or ()))
    return f"{_joined(group)} ({told})" if told else _joined(group)


def _name(component: str) -> str:
    return component.replace("_", " ")
