"""The words of every node, and the numbers inside it, as postings."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from functools import lru_cache

import numpy as np

from ..layouts import Layout, LayoutLibrary
from ..text import compact, tokens
from .arrays import Field, pool_arrays
from .build_nodes import Node
from .rows import Row

_LEADING_DIGITS = re.compile(r"\d+")
_CONTEXT = (
    ("street", Field.STREET),
    ("district", Field.DISTRICT),
    ("town", Field.TOWN),
    ("region", Field.REGION),
    ("region_code", Field.REGION),
)


def posting_arrays(
    rows: Sequence[Row], nodes: Sequence[Node], layouts: LayoutLibrary
) -> dict[str, np.ndarray]:
    """The vocabulary and its postings, and those of numbers."""
    words: dict[str, dict[int, int]] = defaultdict(dict)
    numbers: dict[str, dict[int, int]] = defaultdict(dict)
    for index, node in enumerate(nodes):
        layout = layouts.require(node.country_code)
        for word, place in _words_of(node, layout):
            words[word][index] = words[word].get(index, 0) | place
        if node.street_level or node.kind in ("postcode", "building"):
            for address in node.addresses:
                for term in inner_terms(rows[address].components, layout):
                    numbers[term][index] = 0
    return {**_csr("word", "posting", words), **_csr("number", "number_posting", numbers)}


@lru_cache(maxsize=65536)
def number_terms(number: str, unit: str) -> frozenset[str]:
    """Folded terms by which an address is found inside its street: of its number and unit."""
    terms: set[str] = set()
    for text in filter(None, (number, unit)):
        found = tokens(text)
        terms.update(found)
        terms.add(compact(text))
        terms.update(m.group() for t in found if (m := _LEADING_DIGITS.match(t)))
    return frozenset(terms)


def inner_terms(components: Mapping[str, str], layout: Layout) -> frozenset[str]:
    """Folded terms of all that tells an address from the others in its street or building."""
    terms = number_terms(components.get("number", ""), components.get("unit", ""))
    box = components.get("po_box")
    return terms.union(tokens(box), layout.literal_words("po_box")) if box else terms


@lru_cache(maxsize=65536)
def postcode_terms(postcode: str) -> frozenset[str]:
    """Terms by which a postcode is found: its parts, and all of it without blanks."""
    return frozenset((*tokens(postcode), compact(postcode)))


def _words_of(node: Node, layout: Layout) -> Iterable[tuple[str, int]]:
    if node.kind == "postcode":
        for term in postcode_terms(node.name):
            yield term, Field.NAME | Field.NAME_START
    else:
        for position, word in enumerate(node.name_tokens()):
            yield word, Field.NAME if position else Field.NAME | Field.NAME_START
        if node.kind not in ("town", "region") or node.street_level:
            for postcode in node.postcodes if node.kind != "district" else ():
                for term in postcode_terms(postcode):
                    yield term, Field.POSTCODE
    for component, place in _CONTEXT:
        if component != node.kind or node.street_level:
            text = node.components.get(component, "")
            for word in (*tokens(text), *(layout.literal_words(component) if text else ())):
                yield word, place


def _csr(vocabulary: str, postings: str, table: dict[str, dict[int, int]]) -> dict[str, np.ndarray]:
    """A sorted pool of words, and each word's nodes and fields, one after the other."""
    ordered = sorted(table, key=str.encode)
    counts = np.fromiter((len(table[w]) for w in ordered), dtype=np.uint32, count=len(ordered))
    nodes: list[int] = []
    fields: list[int] = []
    for word in ordered:
        for node, place in sorted(table[word].items()):
            nodes.append(node)
            fields.append(place)
    return {
        **pool_arrays(vocabulary, ordered),
        f"{postings}_ends": np.cumsum(counts, dtype=np.uint32),
        f"{postings}_nodes": np.array(nodes or [0], dtype=np.uint32),
        **(
            {f"{postings}_fields": np.array(fields or [0], dtype=np.uint8)}
            if postings == "posting"
            else {}
        ),
    }
