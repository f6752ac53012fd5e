"""What a newer release says about the very things that an own layout changes.

When an own layout is published, what the shipped layouts said at that time about the things it
changes is kept with it (its *base facts*). Where the shipped layouts say something else later, the
own layout still holds, and the difference is shown: its administrator keeps it by publishing again,
or takes the change out.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from ..library import LayoutLibrary
from ..model import Layout
from ..notation import written_line
from .document import OwnLayout

# By country: {"ask": {component: {"labels": {…}, "required": …} or None}, "lines": {script: […]}}.
BaseFacts = dict[str, dict[str, Any]]


@dataclass(frozen=True, slots=True)
class Conflict:
    """Something that an own layout changes and the shipped layout has changed since.

    Attributes:
        country_code: of the shipped layout.
        pointer: the entry of the own layout's document.
        was: what the shipped layout said when the own one was published.
        now: what it says today; both empty where it says nothing.
        detail: a sentence.
    """

    country_code: str
    pointer: str
    was: str
    now: str
    detail: str


def base_of(own: OwnLayout, shipped: LayoutLibrary) -> BaseFacts:
    """What the shipped layouts say about the things that an own layout changes."""
    return {code: _base_facts(own, shipped.require(code)) for code in own.countries}


def conflicts(own: OwnLayout, base: BaseFacts, shipped: LayoutLibrary) -> list[Conflict]:
    """The conflicts of a published own layout with the shipped layouts of today."""
    now = base_of(own, shipped)
    return [
        conflict
        for code in own.countries
        if code in base
        for conflict in [
            *_about_ask(own, code, base[code], now[code]),
            *_about_lines(own, code, base[code], now[code]),
        ]
    ]


def _base_facts(own: OwnLayout, layout: Layout) -> dict[str, Any]:
    ask: dict[str, Any] = {}
    for change in own.ask:
        entry = layout.component(change.component)
        ask[change.component] = entry and {
            "labels": {tag: entry.labels[tag] for tag in change.labels if tag in entry.labels},
            "required": entry.required,
        }
    scripts = {change.script for change in own.lines} & set(layout.lines)
    return {
        "ask": ask,
        "lines": {script: list(map(written_line, layout.lines[script])) for script in scripts},
    }


def _about_ask(
    own: OwnLayout, code: str, was: Mapping[str, Any], now: Mapping[str, Any]
) -> Iterator[Conflict]:
    for change in own.ask:
        name, pointer = change.component, f"/ask/{change.index}"
        if name not in was["ask"]:
            continue
        old, new = was["ask"][name], now["ask"][name]
        if (old is None) != (new is None):
            says = "asks for it now" if old is None else "no longer asks for it"
            yield Conflict(code, pointer, "", "", f"The shipped layout of {code} {says}: {name}.")
        if old is None or new is None:
            continue
        for tag in change.labels:
            before, after = old["labels"].get(tag, ""), new["labels"].get(tag, "")
            if before != after:
                detail = f"The shipped layout of {code} calls {name} “{after}” now ({tag})."
                yield Conflict(code, pointer, before, after, detail)
        if change.required is not None and old["required"] != new["required"]:
            says = "requires" if new["required"] else "no longer requires"
            yield Conflict(code, pointer, "", "", f"The shipped layout of {code} {says} {name}.")


def _about_lines(
    own: OwnLayout, code: str, was: Mapping[str, Any], now: Mapping[str, Any]
) -> Iterator[Conflict]:
    for change in own.lines:
        old, new = was["lines"].get(change.script), now["lines"].get(change.script)
        anchor = change.after if change.act == "add" else change.line
        if old is None or new is None or anchor is None:
            continue
        text = written_line(anchor)
        if text in old and text not in new:
            instead = [line for line in new if line not in old]
            detail = (
                f"The shipped layout of {code} has the line “{text}” no more, "
                f"so this change has nothing to stand on."
            )
            yield Conflict(code, f"/lines/{change.index}", text, " / ".join(instead), detail)
