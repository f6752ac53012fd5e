"""Which addresses inside a node typed tokens mean, and how they are put into rows.

A token fits an address by a term of its number or unit, of its postcode, or by the beginning
of one where it is still being typed. Addresses that share a street number become one row,
a group, where there are several.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from itertools import groupby

from ..layouts import LayoutLibrary
from ..text import compact, tokens
from .build_postings import inner_terms, postcode_terms
from .edition import Edition
from .labels import address_label, group_label
from .suggestion import Suggestion


def fitting_addresses(
    edition: Edition,
    addresses: Iterable[int],
    typed: Sequence[str],
    layouts: LayoutLibrary,
    *,
    unfinished: bool,
) -> list[int]:
    """The addresses that every token fits.

    Those whose street number was typed come first, then those that fit by whole terms (a
    flat's number, say), then those that fit by a term still being typed.
    """
    if not typed:
        return list(addresses)
    numbered: list[int] = []
    whole: list[int] = []
    begun: list[int] = []
    for address in addresses:
        terms = _terms(edition, address, layouts)
        if all(token in terms for token in typed):
            by_number = compact(edition.address_text(address, "number")) in typed
            (numbered if by_number else whole).append(address)
        elif (
            unfinished
            and all(token in terms for token in typed[:-1])
            and any(term.startswith(typed[-1]) for term in terms)
        ):
            begun.append(address)
    return numbered + whole + begun


def _terms(edition: Edition, address: int, layouts: LayoutLibrary) -> set[str]:
    components = edition.address_components(address)
    country = edition.node_country_code(int(edition.address_street[address]))
    terms = set(inner_terms(components, layouts.require(country)))
    terms |= postcode_terms(components.get("postcode", ""))
    for name in ("building", "organisation", "place"):
        if name in components:
            terms.update(tokens(components[name]))
    return terms


def member_rows(
    edition: Edition,
    node: int,
    addresses: Sequence[int],
    layouts: LayoutLibrary,
    *,
    by_number: bool,
) -> list[Suggestion]:
    """Rows for addresses of a node, in the order given.

    Args:
        by_number: addresses of one street number become one group, where there are several.
    """
    if not by_number:
        return [address_row(edition, address, layouts) for address in addresses]
    rows: list[Suggestion] = []
    for number, same in groupby(addresses, key=lambda a: edition.address_text(a, "number")):
        group = list(same)
        if len(group) == 1 or not number:
            rows += [address_row(edition, address, layouts) for address in group]
        else:
            rows.append(number_row(edition, node, number, len(group), layouts))
    return rows


def address_row(edition: Edition, address: int, layouts: LayoutLibrary) -> Suggestion:
    """The row of one address."""
    return Suggestion(
        id=edition.address_id(address),
        kind="address",
        label=address_label(edition, address, layouts),
        country_code=edition.node_country_code(int(edition.address_street[address])),
        count=1,
    )


def number_row(
    edition: Edition, node: int, number: str, count: int, layouts: LayoutLibrary
) -> Suggestion:
    """The row of a street number with several addresses."""
    return Suggestion(
        id=f"{edition.node_id(node)}~{compact(number)}",
        kind="building",
        label=group_label(edition, node, layouts, number=number),
        country_code=edition.node_country_code(node),
        count=count,
    )


def node_row(edition: Edition, node: int, layouts: LayoutLibrary) -> Suggestion:
    """The row of a node: a group, or its only address."""
    if edition.node_count(node) == 1:
        return address_row(edition, int(edition.node_addresses(node)[0]), layouts)
    return Suggestion(
        id=edition.node_id(node),
        kind=edition.node_kind_name(node),
        label=group_label(edition, node, layouts),
        country_code=edition.node_country_code(node),
        count=edition.node_count(node),
    )
