"""A page target: how a page of somebody else's is recognised, its inputs, and what fills them.

Its addresses have the same rules as a form's; what is wrong with them is found in the same way.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ...errors import Problem, nearest_names
from ...faults import Faults
from ...forms import Form, Slot, read_unfinished
from ...keys import OriginError, web_origin
from ...layouts import LayoutLibrary
from ..receivers import Document, as_form, of_target
from .ways import AUTOFILL_TOKENS, SITS, WAYS, WRITES


@dataclass(frozen=True, slots=True)
class PageInput:
    """An input of a page.

    Attributes:
        ways: how it is found, in this order: a key of WAYS and its value.
        writes: of a list, a key of WRITES.
    """

    key: str
    label: str
    ways: tuple[tuple[str, str], ...]
    writes: str = "any"


@dataclass(frozen=True, slots=True)
class PageAddress:
    """Where the finder of one address sits: a key of SITS, seen from an input."""

    key: str
    sits: str
    at: str


@dataclass(frozen=True, slots=True)
class PageTarget:
    """A page target.

    Attributes:
        origins: web origins of its pages.
        paths: patterns of their paths, `*` for any characters; empty for every page.
        form: the inputs as fields, and the addresses as slots.
    """

    key: str
    title: str
    origins: tuple[str, ...]
    paths: tuple[str, ...]
    inputs: tuple[PageInput, ...]
    addresses: tuple[PageAddress, ...]
    form: Form

    def address(self, key: str) -> Slot | None:
        """An address with its mapping."""
        return self.form.slot(key)


def read_page_target(
    document: Document, layouts: LayoutLibrary
) -> tuple[PageTarget, list[Problem]]:
    """A target as far as its document can be read, and what is wrong with it."""
    faults = Faults()
    form, problems = read_unfinished(as_form(document), layouts)
    inputs = tuple(
        _input(entry, f"/inputs/{at}", faults)
        for at, entry in enumerate(document.get("inputs") or ())
    )
    keys = [one.key for one in inputs]
    addresses = tuple(
        _address(entry, f"/addresses/{at}", keys, faults)
        for at, entry in enumerate(document.get("addresses") or ())
    )
    if not addresses:
        faults.say("/addresses", "Say which address is captured: its countries and its mapping.")
    target = PageTarget(
        key=document["key"],
        title=document["title"],
        origins=tuple(_origins(document.get("origins") or (), faults)),
        paths=tuple(_paths(document.get("paths") or (), faults)),
        inputs=inputs,
        addresses=addresses,
        form=form,
    )
    return target, [*faults.problems, *(of_target(one, document) for one in problems)]


def matches_path(pattern: str, path: str) -> bool:
    """Whether a page's path is as a pattern has it; `*` stands for any characters, also none."""
    first, *others = pattern.split("*")
    if not others:
        return path == pattern
    if not path.startswith(first):
        return False
    at = len(first)
    for piece in others[:-1]:
        found = path.find(piece, at)
        if found < 0:
            return False
        at = found + len(piece)
    last = others[-1]
    return len(path) - len(last) >= at and path.endswith(last)


def _origins(given: Sequence[str], faults: Faults) -> Iterator[str]:
    if not given:
        faults.say("/origins", "Name the web origins of its pages, such as https://shop.example.")
    for at, text in enumerate(given):
        try:
            yield web_origin(text)
        except OriginError as error:
            faults.say(f"/origins/{at}", str(error))


def _paths(given: Sequence[str], faults: Faults) -> Iterator[str]:
    for at, pattern in enumerate(given):
        if pattern.startswith("/"):
            yield pattern
        else:
            detail = (
                f"A path begins with /: write /{pattern.lstrip('/')}, and * for any characters."
            )
            faults.say(f"/paths/{at}", detail)


def _input(entry: Document, pointer: str, faults: Faults) -> PageInput:
    ways: list[tuple[str, str]] = []
    for at, way in enumerate(entry.get("find") or ()):
        place = f"{pointer}/find/{at}"
        given = [(name, value) for name, value in way.items() if value]
        if len(given) != 1:
            faults.say(place, f"Give one way to find it: one of {', '.join(WAYS)}.")
            continue
        name, value = given[0]
        faults.one_of("way to find an input", name, WAYS, place)
        if name == "autocomplete":
            faults.one_of("autofill token", value, AUTOFILL_TOKENS, f"{place}/autocomplete")
        ways.append((name, value))
    if not entry.get("find"):
        faults.say(f"{pointer}/find", f"Say how the page's input is found: by {', '.join(WAYS)}.")
    writes = entry.get("writes") or "any"
    faults.one_of("way to choose an option", writes, WRITES, f"{pointer}/writes")
    return PageInput(entry["key"], entry.get("label") or entry["key"], tuple(ways), writes)


def _address(entry: Document, pointer: str, inputs: Sequence[str], faults: Faults) -> PageAddress:
    finder = entry.get("finder") or {}
    sits, at = finder.get("sits") or "before", finder.get("at") or ""
    faults.one_of("place of the finder", sits, SITS, f"{pointer}/finder/sits")
    if not at:
        near = nearest_names("street", inputs)
        example = f", such as {near[0]}" if near else ""
        faults.say(f"{pointer}/finder/at", f"Name the input that the finder sits at{example}.")
    else:
        faults.one_of("input", at, inputs, f"{pointer}/finder/at")
    return PageAddress(entry["key"], sits, at)
