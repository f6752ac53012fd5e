"""A page target: how a page of somebody else's is recognised, its fields, and what fills them.

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
from ..fields import TargetField, read_field
from ..receivers import Document, as_form, of_target
from .ways import AUTOFILL_TOKENS, NARROWER, SITS, WAYS, WRITES


@dataclass(frozen=True, slots=True)
class Way:
    """A way to find a field: a key of WAYS and its value.

    Attributes:
        block: the heading of the part of the page that it must stand in; empty for any.
        position: which of those that are found, counted from 1; 0 for the only one.
    """

    by: str
    value: str
    block: str = ""
    position: int = 0


@dataclass(frozen=True, slots=True)
class PageField:
    """A field of a page.

    Attributes:
        ways: how it is found, in this order; of one that is split, those of its first piece.
        writes: of a list, a key of WRITES.
    """

    field: TargetField
    ways: tuple[Way, ...]
    writes: str = "any"


@dataclass(frozen=True, slots=True)
class PageAddress:
    """Where the finder of one address sits: a key of SITS, seen from a field."""

    key: str
    sits: str
    at: str


@dataclass(frozen=True, slots=True)
class PageTarget:
    """A page target.

    Attributes:
        origins: web origins of its pages.
        paths: patterns of their paths, `*` for any characters; empty for every page.
        form: its fields, and the addresses as slots.
    """

    key: str
    title: str
    origins: tuple[str, ...]
    paths: tuple[str, ...]
    fields: tuple[PageField, ...]
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
    fields = tuple(
        _field(entry, f"/fields/{at}", faults)
        for at, entry in enumerate(document.get("fields") or ())
    )
    keys = [one.field.key for one in fields]
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
        fields=fields,
        addresses=addresses,
        form=form,
    )
    return target, [*faults.problems, *map(of_target, problems)]


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


def _field(entry: Document, pointer: str, faults: Faults) -> PageField:
    pieces = entry.get("pieces") or ()
    ways = _ways(entry, pointer, faults) if not pieces else ()
    for at, piece in enumerate(pieces):
        found = _ways(piece, f"{pointer}/pieces/{at}", faults)
        ways = ways or found
    writes = entry.get("writes") or "any"
    faults.one_of("way to choose an option", writes, WRITES, f"{pointer}/writes")
    return PageField(read_field(entry, pointer, faults), ways, writes)


def _ways(entry: Document, pointer: str, faults: Faults) -> tuple[Way, ...]:
    ways: list[Way] = []
    for at, way in enumerate(entry.get("find") or ()):
        place = f"{pointer}/find/{at}"
        given = [(name, value) for name, value in way.items() if value and name not in NARROWER]
        if len(given) != 1:
            faults.say(place, f"Give one way to find it: one of {', '.join(WAYS)}.")
            continue
        name, value = given[0]
        faults.one_of("way to find a field", name, WAYS, place)
        if name == "autocomplete":
            faults.one_of("autofill token", value, AUTOFILL_TOKENS, f"{place}/autocomplete")
        ways.append(Way(name, value, way.get("block") or "", way.get("position") or 0))
    if not entry.get("find"):
        faults.say(f"{pointer}/find", f"Say how the page's field is found: by {', '.join(WAYS)}.")
    return tuple(ways)


def _address(entry: Document, pointer: str, fields: Sequence[str], faults: Faults) -> PageAddress:
    finder = entry.get("finder") or {}
    sits, at = finder.get("sits") or "before", finder.get("at") or ""
    faults.one_of("place of the finder", sits, SITS, f"{pointer}/finder/sits")
    if not at:
        near = nearest_names("street", fields)
        example = f", such as {near[0]}" if near else ""
        faults.say(f"{pointer}/finder/at", f"Name the field that the finder sits at{example}.")
    else:
        faults.one_of("field", at, fields, f"{pointer}/finder/at")
    return PageAddress(entry["key"], sits, at)
