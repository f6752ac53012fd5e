"""Reading a mapping from a document: its rules, or what is wrong with them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from ..faults import Faults
from .changes import read_change
from .rules import IF_WRITTEN, Rule
from .sources import SOURCES
from .sources.formula import read_formula

Entry = Mapping[str, Any]


def rule_fills(entry: Entry) -> tuple[str, ...]:
    """The keys of the receivers that a rule of a document writes, also of a faulty one."""
    kind = next((SOURCES[name] for name in SOURCES if entry.get(name)), None)
    if kind is None:
        return (entry["into"],) if entry.get("into") else ()
    return kind.fills(entry)


def mapping_fills(entries: Iterable[Entry]) -> list[str]:
    """The keys of all receivers that rules of a document write, each once."""
    return list(dict.fromkeys(key for entry in entries for key in rule_fills(entry)))


def read_rules(entries: Sequence[Entry], pointer: str, faults: Faults) -> tuple[Rule, ...]:
    """The rules of a mapping that can be followed; what is wrong goes to `faults`."""
    found: list[Rule] = []
    for index, entry in enumerate(entries):
        rule = read_rule(entry, index, pointer, faults)
        if rule is not None:
            found.append(rule)
    return tuple(found)


def read_rule(entry: Entry, at: int, mapping: str, faults: Faults) -> Rule | None:
    """One rule, or None where it cannot be followed; `mapping` is the pointer to the mapping."""
    pointer = f"{mapping}/{at}"
    before = len(faults.problems)
    given = [name for name in SOURCES if entry.get(name)]
    if len(given) != 1:
        listed = ", ".join(list(SOURCES)[:-1]) + f" or {list(SOURCES)[-1]}"
        told = "only one of them" if given else "one of them"
        faults.say(pointer, f"Say what goes into the field: {listed}, and {told}.")
        return None
    kind = SOURCES[given[0]]
    into = kind.fills(entry)
    if not into:
        faults.say(f"{pointer}/into", "Say into which field this goes.")
    source = kind.read(entry, pointer, faults, read_rules)
    changes = tuple(
        change
        for index, one in enumerate(entry.get("changes") or ())
        if (change := read_change(one, f"{pointer}/changes/{index}", faults)) is not None
    )
    when = entry.get("when")
    if_written = entry.get("if_written") or ""
    if if_written:
        faults.one_of("word for a written field", if_written, IF_WRITTEN, f"{pointer}/if_written")
    formula = read_formula(when, f"{pointer}/when", faults) if when else None
    if len(faults.problems) > before:
        return None
    join = entry.get("join")
    return Rule(
        source=source,
        into=into,
        changes=changes,
        when=formula,
        otherwise=bool(entry.get("otherwise")),
        if_written=if_written,
        between=" " if join is None else join,
        keeps_place=bool(entry.get("keeps_place")),
        at=at,
    )
