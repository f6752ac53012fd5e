"""A form that takes the rows of a table."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from ...layouts import LayoutLibrary
from ..new_items import USUAL_PARTS, key_from, new_slot
from .address_columns import AddressColumns, recognised
from .columns import Column, read_columns
from .value_types import guess_type


@dataclass(frozen=True, slots=True)
class Guess:
    """What a column is taken for.

    Attributes:
        becomes: a field, a part of an address, or nothing of its own.
        key: of the field or part.
        because: the reason, a sentence.
    """

    column: str
    becomes: Literal["field", "part", "left_out"]
    because: str
    key: str | None = None
    type: str | None = None
    component: str | None = None
    slot: str | None = None


@dataclass(frozen=True, slots=True)
class Proposal:
    """A document, and a guess for each column."""

    document: dict[str, Any]
    guesses: list[Guess]


def propose(
    text: str,
    title: str,
    countries: Sequence[str],
    layouts: LayoutLibrary,
    plain: Collection[int] = (),
    left_out: Collection[int] = (),
) -> Proposal:
    """A record form for the rows of a table.

    Args:
        text: the row with the columns' names, and perhaps some rows, with tabs, commas or
            semicolons between.
        title: of the form.
        countries: ISO 3166-1 alpha-2 codes that its addresses are in.
        plain: places of columns that stay fields of their own, from 0.
        left_out: places of columns that the form does not take.

    Raises:
        TableError: it is no table.
    """
    columns = read_columns(text)
    names = [column.name for column in columns]
    addresses, read = recognised(names, layouts, {*plain, *left_out})
    return _Proposing(columns, title, countries, addresses, read, left_out).made()


class _Proposing:
    def __init__(
        self,
        columns: list[Column],
        title: str,
        countries: Sequence[str],
        addresses: list[AddressColumns],
        read: Mapping[int, tuple[str, str]],
        left_out: Collection[int],
    ) -> None:
        self._columns, self._countries = columns, countries
        self._title = title.strip() or "New form"
        self._addresses, self._read, self._left_out = addresses, read, left_out
        self._taken: set[str] = set()
        self._guesses: dict[int, Guess] = {}

    def made(self) -> Proposal:
        fields: list[dict[str, Any]] = []
        slots: list[dict[str, Any]] = []
        of_column = {
            at: address
            for address in self._addresses
            for places in address.columns.values()
            for at in places
        }
        done: set[int] = set()
        for at, column in enumerate(self._columns):
            address = of_column.get(at)
            if at in self._left_out:
                self._guesses[at] = Guess(column.name, "left_out", "You left it out.")
            elif address is None:
                fields.append(self._field(at, column))
            elif id(address) not in done:
                done.add(id(address))
                slot = self._slot(address, len(slots))
                slots.append(slot)
                fields.append({"slot": slot["key"]})
        document: dict[str, Any] = {
            "key": key_from(self._title, (), "form").replace("_", "-"),
            "kind": "record",
            "title": self._title,
            "fields": fields,
        }
        if slots:
            document["slots"] = slots
        return Proposal(document, [self._guesses[at] for at in range(len(self._columns))])

    def _field(self, at: int, column: Column) -> dict[str, Any]:
        guess = guess_type(column)
        key = self._key(column.name, f"column_{at + 1}")
        self._guesses[at] = Guess(column.name, "field", guess.because, key, guess.type)
        field: dict[str, Any] = {"key": key, "label": column.name}
        if guess.type != "text":
            field["type"] = guess.type
        if guess.options:
            field["options"] = [{"value": value[:200]} for value in guess.options]
        return field

    def _slot(self, address: AddressColumns, number: int) -> dict[str, Any]:
        label = address.whose[:1].upper() + address.whose[1:] if address.whose else "Address"
        if not address.whose and number:
            label = f"Address {number + 1}"
        key = self._key(label, f"address_{number + 1}")
        # What a table does not have a column for is asked for all the same: it may be needed.
        slot = new_slot(key, label, self._countries, USUAL_PARTS)
        self._taken.update(part["key"] for part in slot["parts"])
        parts = {part["component"]: part for part in slot["parts"]}
        for component, places in address.columns.items():
            for at in places:
                self._part(at, component, key, parts)
        return slot

    def _part(self, at: int, component: str, slot: str, parts: dict[str, dict[str, Any]]) -> None:
        column = self._columns[at]
        word = self._read[at][1]
        if component not in parts:
            because = "The address asks for its country by itself."
            self._guesses[at] = Guess(column.name, "left_out", because, slot=slot)
            return
        because = f"“{word}” is a name for this part of an address."
        self._guesses[at] = Guess(
            column.name, "part", because, parts[component]["key"], None, component, slot
        )

    def _key(self, label: str, otherwise: str) -> str:
        key = key_from(label, self._taken, otherwise)
        self._taken.add(key)
        return key
