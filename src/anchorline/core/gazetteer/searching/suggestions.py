"""Making the finder's rows: addresses, groups, and street numbers with several addresses.

Typed numbers select addresses inside a node: first those with exactly that street number, then
those that have it in another way (`12` in `12a`, or as a unit).
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from dataclasses import replace
from functools import cached_property, lru_cache, partial
from itertools import groupby, takewhile

from ...layouts import LayoutLibrary
from ...text import compact, fold, tokens
from ..alternate_names import best_language, with_language
from ..arrays import NAMED_COMPONENTS, UNIT_MARK
from ..edition import Edition
from ..groups import find_group
from ..inner_terms import inner_terms
from ..labels import LabelWriter
from ..suggestion import Suggestion
from .terms import LookUp, Term

LABELS_KEPT = 8192
NEIGHBOURS = 4
MOST_BEGUN = 20


class SuggestionBuilder:
    """Makes rows of one edition."""

    def __init__(self, edition: Edition, labels: LabelWriter, layouts: LayoutLibrary) -> None:
        self.edition, self._layouts = edition, layouts
        self.look_up = LookUp(edition)
        # Key by key the same rows come again and again.
        cached = lru_cache(maxsize=LABELS_KEPT)
        self._address_label = cached(partial(labels.address, edition))
        self._group_label = cached(partial(labels.group, edition))

    @cached_property
    def country_names(self) -> dict[str, str]:
        """Codes of the edition's countries by their folded names in any language."""
        return {
            fold(name): code
            for code in self.edition.countries
            for name in self._layouts.require(code).known_names()
        }

    def address(self, index: int, language: str = "") -> Suggestion:
        """The row of one address, in another of its languages if one is given."""
        edition = self.edition
        return Suggestion(
            with_language(edition.address_id(index), language),
            "address",
            self._address_label(index, language),
            edition.node_country_code(edition.street_of(index)),
            1,
        )

    def node(self, node: int, language: str = "") -> Suggestion:
        """The row of a node: a group, or its only address."""
        edition = self.edition
        count = edition.node_count(node)
        if count == 1:
            return self.address(edition.address_range(node)[0], language)
        return Suggestion(
            with_language(edition.node_id(node), language),
            edition.node_kind_name(node),
            self._group_label(node, language=language),
            edition.node_country_code(node),
            count,
        )

    def number(self, node: int, number: str, count: int, language: str = "") -> Suggestion:
        """The row of a street number with several addresses."""
        edition = self.edition
        return Suggestion(
            with_language(f"{edition.node_id(node)}~{compact(number)}", language),
            "building",
            self._group_label(node, number=number, language=language),
            edition.node_country_code(node),
            count,
        )

    def by_number(self, node: int, addresses: Iterable[int]) -> list[Suggestion]:
        """Rows of a node's addresses in the order given, those of one street number as a group."""
        rows: list[Suggestion] = []
        addresses = list(addresses)
        if len(addresses) == 1:
            return [self.address(addresses[0])]
        for number, same in groupby(addresses, key=self.edition.number_of):
            group = list(same)
            if len(group) == 1 or not number:
                rows += map(self.address, group)
            else:
                rows.append(self.number(node, number, len(group)))
        return rows

    def in_all_languages(self, row: Suggestion) -> list[Suggestion]:
        """A row, and the same in the other languages in which it is spelt."""
        return [row, *(self._respelt(row, language) for language in self._others(row))]

    def in_language(self, row: Suggestion, wanted: str) -> Suggestion:
        """A row in a wanted language (BCP 47), or as it is where it is not spelt in that."""
        own = self.edition.node_text(self._what(row)[0], "language")
        language = best_language(wanted, [own, *self._others(row)])
        return self._respelt(row, language) if language and language != own else row

    def _others(self, row: Suggestion) -> list[str]:
        """The languages other than its own in which a row is spelt."""
        alternate_names = self.edition.alternate_names
        node, _, index = self._what(row)
        found = alternate_names.of_node(node)
        return sorted(found if index is None else {**found, **alternate_names.of_address(index)})

    def _respelt(self, row: Suggestion, language: str) -> Suggestion:
        """The same row in another language."""
        node, number, index = self._what(row)
        if index is not None:
            other = self.address(index, language)
        elif number:
            number = self.edition.number_of(self._addresses_at(node, number)[0])
            other = self.number(node, number, row.count, language)
        else:
            other = self.node(node, language)
        return replace(other, score=row.score, why=row.why)

    def _what(self, row: Suggestion) -> tuple[int, str, int | None]:
        """A row's node (of an address: its street's), its street number, and its address."""
        local = row.id.partition(":")[2]
        if row.count == 1:
            index = self.edition.find_address(local)
            if index is not None:
                return self.edition.street_of(index), "", index
        found = find_group(self.edition, local)
        if found is None:
            raise KeyError(row.id)
        return *found, None

    def _addresses_at(self, node: int, number: str) -> list[int]:
        edition = self.edition
        addresses: list[int] = edition.node_addresses(node).tolist()
        return [a for a in addresses if compact(edition.number_of(a)) == number]

    def terms_of(self, index: int) -> set[str]:
        """All folded terms that tell an address from the others in its group."""
        edition = self.edition
        components = edition.address_components(index)
        country = edition.node_country_code(edition.street_of(index))
        get = components.get
        layout = self._layouts.require(country)
        inner = inner_terms(get("number", ""), get("unit", ""), get("po_box", ""), layout)
        terms = {term.removeprefix(UNIT_MARK) for term in inner}
        if "postcode" in components:
            terms.update((*tokens(components["postcode"]), compact(components["postcode"])))
        others = (
            edition.alternate_names.of_address(index).values() if edition.alternate_names else ()
        )
        for known in (components, *others):
            for name in NAMED_COMPONENTS:
                terms.update(tokens(known.get(name, "")))
        return terms


def addresses_with(
    edition: Edition, node: int, terms: Sequence[Term], most: int
) -> tuple[list[int], list[int]]:
    """A node's addresses that have all number terms: with just that street number, and others.

    Args:
        terms: terms that stand for numbers or postcodes in the node; the numbers settle which
            addresses are looked at, the postcodes are held against these.
    """
    chosen: Sequence[int] | None = None
    postcodes: list[Term] = []
    numbers: list[str] = []
    for term in terms:
        found: list[int] = []
        if term.inside:
            among = edition.address_range(node) if chosen is None else chosen
            found = edition.inside.having(among, term.number, term.unit)
        if found:
            chosen = found
            numbers.append(term.token.text)
        elif term.spans:
            postcodes.append(term)
        else:
            return [], []
    if chosen is None:
        return [], []
    for term in postcodes:
        chosen = [index for index in chosen if _has_postcode(edition, index, term)]
    just: list[int] = []
    others: list[int] = []
    for index in chosen[: 20 * most]:
        number = edition.number_of(index)
        by_number = number in numbers or compact(number) in numbers
        (just if by_number else others).append(index)
    return just, others


def _has_postcode(edition: Edition, index: int, term: Term) -> bool:
    text = compact(edition.texts[int(edition.address_postcode[index])])
    word = edition.words.find(text) if text else None
    return word is not None and any(first <= word < end for first, end in term.spans)


def numbers_begun(edition: Edition, node: int, typed: str, leave_out: Collection[int]) -> list[int]:
    """A node's addresses whose street number begins as typed, but for those left out."""
    number_of = edition.number_of
    return [
        index
        for index in edition.address_range(node)
        if index not in leave_out and compact(number_of(index)).startswith(typed)
    ]


def addresses_begun(
    builder: SuggestionBuilder,
    node: int,
    narrowing: Sequence[Term],
    typed: str,
    leave_out: Sequence[int],
) -> list[int]:
    """A node's addresses in which what is typed last begins a number.

    Its street number, or where other terms settle that already, anything that tells it from its
    neighbours: a unit, say.

    Args:
        narrowing: the other terms that stand for numbers or postcodes in the node.
    """
    if not narrowing:
        return numbers_begun(builder.edition, node, typed, frozenset(leave_out))
    just, others = addresses_with(builder.edition, node, narrowing, MOST_BEGUN)
    return [
        index
        for index in just + others
        if index not in leave_out and any(t.startswith(typed) for t in builder.terms_of(index))
    ]


def nearest_numbers(edition: Edition, node: int, typed: str) -> list[int]:
    """A node's addresses with the street numbers nearest to a typed one, in natural order."""
    wanted = _leading_number(typed)
    known = [
        (abs(value - wanted), index)
        for index in edition.node_addresses(node).tolist()
        if (value := _leading_number(edition.number_of(index))) >= 0
    ]
    nearest = sorted({distance for distance, _ in known})[:NEIGHBOURS]
    return [index for distance, index in known if distance in nearest][: 2 * NEIGHBOURS]


def _leading_number(text: str) -> int:
    """The digits that a number begins with, as a value; -1 where it begins otherwise."""
    digits = "".join(takewhile(str.isdecimal, text))
    return int(digits) if digits else -1


def fitting_addresses(
    builder: SuggestionBuilder, addresses: Iterable[int], typed: Sequence[str], *, unfinished: bool
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
        terms = builder.terms_of(address)
        if all(token in terms for token in typed):
            by_number = compact(builder.edition.number_of(address)) in typed
            (numbered if by_number else whole).append(address)
        elif (
            unfinished
            and all(token in terms for token in typed[:-1])
            and any(term.startswith(typed[-1]) for term in terms)
        ):
            begun.append(address)
    return numbered + whole + begun
