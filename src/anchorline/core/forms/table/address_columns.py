"""Columns of addresses, recognised by their names.

A name is the component, as any layout calls it in any of its languages or as tables often do, with
or without words for whose address it is: `Town`, `Delivery town`, `PLZ (Rechnung)`, `Street 2`.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Sequence
from dataclasses import dataclass, field
from functools import lru_cache

from ...layouts import LayoutLibrary, component_terms
from ...text import fold

_WORD = re.compile(r"[^\W_]+")
# What tables call them beside the layouts' labels.
_ALSO: dict[str, tuple[str, ...]] = {
    "unit": ("apt", "apartment", "flat", "suite", "wohnung", "appartement", "apto", "complemento"),
    "building": ("building name", "house name", "gebaude", "batiment", "edificio", "gebouw"),
    "number": (
        "house no", "house number", "hausnr", "hausnummer", "huisnr", "huisnummer", "nr", "no",
        "numero", "street number",
    ),
    "street": (
        "street address", "address line", "address", "addr", "strasse", "str", "straat", "rue",
        "adresse", "endereco", "rua", "logradouro", "calle", "adres", "anschrift", "住所", "road",
    ),
    "po_box": ("pobox", "po box", "postfach", "postbus", "boite postale", "caixa postal"),
    "district": ("suburb", "neighbourhood", "locality", "bairro", "ortsteil", "町域", "quartier"),
    "town": (
        "city", "post town", "ort", "stadt", "ville", "plaats", "woonplaats", "stad", "cidade",
        "baile", "市区町村", "municipality", "wohnort", "commune",
    ),
    "region": ("county", "state", "province", "region", "bundesland", "provincie", "estado"),
    "postcode": (
        "post code", "postal code", "zip", "zip code", "plz", "postleitzahl", "code postal", "cp",
        "cep", "eircode", "郵便番号", "pc",
    ),
    "country": ("land", "pays", "pais", "tir", "国", "country code"),
}  # fmt: skip
# A number of a table is an address's only beside a street.
_WEAK = {"number", "unit", "building", "district", "region", "organisation"}
_ENOUGH = {"street", "postcode", "town"}
_LEFT_OUT = {"organisation", "recipient", "place", "nation", "region_code", "country_code"}


@dataclass
class AddressColumns:
    """Columns that are one address: by component, the places of its columns.

    `whose`: the words that name it; empty where there are none.
    """

    whose: str
    columns: dict[str, list[int]] = field(default_factory=dict)


def recognised(
    names: Sequence[str], layouts: LayoutLibrary, plain: Collection[int] = ()
) -> tuple[list[AddressColumns], dict[int, tuple[str, str]]]:
    """The addresses among columns, and for each of their columns the component and the word.

    Args:
        names: of the columns.
        plain: places of columns that are no parts of addresses, whatever they are called.
    """
    terms = _terms(layouts)
    found: list[AddressColumns] = []
    read: dict[int, tuple[str, str]] = {}
    for at, name in enumerate(names):
        component, word, whose = _read(name, terms)
        if not component or at in plain:
            continue
        group = _group_of(found, whose, component, at)
        group.columns.setdefault(component, []).append(at)
        read[at] = (component, word)
    addresses = [
        group for group in found if len(_ENOUGH & set(group.columns)) >= 1 and _is_address(group)
    ]
    kept = {at for group in addresses for places in group.columns.values() for at in places}
    return addresses, {at: said for at, said in read.items() if at in kept}


def component_of(name: str, layouts: LayoutLibrary) -> tuple[str, str]:
    """The component that a name says, and the words that say it; both empty where there is none."""
    component, word, _whose = _read(name, _terms(layouts))
    return component, word


def _is_address(group: AddressColumns) -> bool:
    """Whether there is enough of it: two of its parts, or a street alone."""
    return len(group.columns) >= 2 or "street" in group.columns


def _group_of(found: list[AddressColumns], whose: str, component: str, at: int) -> AddressColumns:
    """The address that a column belongs to: of the same words, and still without it."""
    for group in reversed(found):
        if group.whose == whose:
            # A second line of a street follows the first; a second town is another address.
            before = group.columns.get(component)
            if before is None or (component == "street" and before[-1] == at - 1):
                return group
            break
    else:
        # Without words of its own it belongs to the address that was begun before it.
        if not whose and found and component in _WEAK and component not in found[-1].columns:
            return found[-1]
    found.append(AddressColumns(whose))
    return found[-1]


def _read(name: str, terms: dict[tuple[str, ...], str]) -> tuple[str, str, str]:
    """The component of a column's name, the words that say it, and whose address it is."""
    spans = [(fold(found[0]), found[0]) for found in _WORD.finditer(name)]
    words = [folded for folded, _ in spans]
    for length in range(min(4, len(words)), 0, -1):
        for start in (0, len(words) - length, *range(1, len(words) - length)):
            component = terms.get(tuple(words[start : start + length]))
            if component:
                rest = [raw for _, raw in (*spans[:start], *spans[start + length :])]
                said = " ".join(raw for _, raw in spans[start : start + length])
                # Lines of one street are numbered: they are no addresses of their own.
                if component == "street" and len(rest) == 1 and rest[0].isdecimal():
                    rest = []
                return component, said, " ".join(rest)
    return "", "", ""


@lru_cache(maxsize=4)
def _terms(layouts: LayoutLibrary) -> dict[tuple[str, ...], str]:
    """Components by the words that they are called, folded."""
    called: dict[tuple[str, ...], str] = {}

    def add(label: str, component: str) -> None:
        words = tuple(fold(word) for word in _WORD.findall(label))
        if words:
            called.setdefault(words, component)

    for component, labels in _ALSO.items():
        for label in labels:
            add(label, component)
    for component, label in component_terms().items():
        if component not in _LEFT_OUT:
            add(label, component)
    for layout in layouts:
        for entry in layout.components:
            name = "region" if entry.component == "region_code" else entry.component
            if name not in _LEFT_OUT:
                for label in entry.labels.values():
                    add(re.sub(r"\(.*?\)", "", label), name)
    return called
