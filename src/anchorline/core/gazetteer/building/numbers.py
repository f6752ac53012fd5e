"""Numbers, units and PO boxes: the terms that tell addresses of one street apart."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from ...layouts import LayoutLibrary
from ..arrays import INNER_COMPONENTS, NAMED_COMPONENTS, sorted_pool_arrays
from ..inner_terms import inner_terms
from .nodes import Nodes, OrderedRows
from .order import Longs, run_starts
from .words import posting_arrays


def distinct_rows(
    rows: OrderedRows, components: Sequence[str]
) -> tuple[npt.NDArray[np.uint32], npt.NDArray[np.uint32]]:
    """Distinct combinations of some columns, the empty one first, and each row's number."""
    columns = np.column_stack([rows.column(name) for name in components]).astype(np.int64)
    bits = max(1, int(columns.max()).bit_length())
    code = columns[:, 0]
    for place in range(1, len(components)):
        code = code << bits | columns[:, place]
    if bits * len(components) > 63:
        distinct, inverse = np.unique(columns, axis=0, return_inverse=True)
    else:
        _, first, inverse = np.unique(code, return_index=True, return_inverse=True)
        distinct = columns[first]
    if distinct[0].any():
        distinct = np.vstack([np.zeros((1, len(components)), np.int64), distinct])
        inverse = inverse + 1
    return distinct.astype(np.uint32), inverse.ravel().astype(np.uint32)


def number_arrays(
    rows: OrderedRows, nodes: Nodes, texts: Sequence[str], layouts: LayoutLibrary
) -> dict[str, np.ndarray]:
    """Inner and named texts of the addresses, and the postings of the inner ones' terms."""
    # What a box is called differs between countries, so entries of the inner texts do too.
    inner, address_inner = distinct_rows(rows, (*INNER_COMPONENTS, "country_code"))
    named, address_named = distinct_rows(rows, NAMED_COMPONENTS)
    numbers: dict[str, int] = {}
    listed: list[list[int]] = []
    for number, unit, box, code in inner.tolist():
        found: list[str] = []
        if code:
            layout = layouts.require(texts[code])
            found = inner_terms(texts[number], texts[unit], texts[box], layout)
        listed.append([numbers.setdefault(term, len(numbers)) for term in found])
    ordered = sorted(numbers, key=str.encode)
    place = np.empty(len(ordered), dtype=np.int64)
    place[[numbers[term] for term in ordered]] = np.arange(len(ordered))
    lengths = np.fromiter(map(len, listed), dtype=np.int64, count=len(listed))
    total = int(lengths.sum())
    terms_flat = place[np.fromiter((t for ts in listed for t in ts), np.int64, total)]
    term_starts = np.cumsum(lengths) - lengths
    of_inner = np.repeat(np.arange(len(listed)), lengths)
    inside = _terms_inside(nodes, address_inner, lengths, terms_flat, term_starts)
    by_term = posting_arrays("number_inner", len(ordered), terms_flat, of_inner)
    return {
        "inner_texts": np.ascontiguousarray(inner[:, : len(INNER_COMPONENTS)]),
        "address_inner": address_inner,
        "named_texts": named,
        "address_named": address_named,
        **sorted_pool_arrays("number", ordered),
        **_number_postings(len(ordered), *inside),
        "number_inner_ends": by_term["number_inner_ends"],
        "number_inners": by_term["number_inner_nodes"],
    }


def _number_postings(
    count: int, terms: Longs, inside: Longs, often: Longs
) -> dict[str, np.ndarray]:
    """Nodes of each term, and in how many of a node's addresses it is."""
    pairs = terms << 32 | inside
    order = np.argsort(pairs, kind="stable")
    starts = run_starts(pairs[order])
    sums = np.add.reduceat(often[order], starts) if len(order) else often
    return {
        **posting_arrays("number_posting", count, terms, inside),
        "number_posting_counts": np.minimum(sums, 255).astype(np.uint8),
    }


def _terms_inside(
    nodes: Nodes, address_inner: npt.NDArray[np.uint32], lengths: Longs, terms: Longs,
    starts: Longs,
) -> tuple[Longs, Longs, Longs]:  # fmt: skip
    """Terms, street-level nodes or buildings that have them inside, and in how many addresses."""
    building = nodes.inside_street & ~nodes.street_level
    pairs = [nodes.addresses_of(nodes.street_level), nodes.addresses_of(building)]
    node = np.concatenate([pair[0] for pair in pairs])
    address = np.concatenate([pair[1] for pair in pairs])
    distinct, often = np.unique(node << 32 | address_inner[address], return_counts=True)
    node, inner = distinct >> 32, distinct & 0xFFFFFFFF
    counts = lengths[inner]
    flat = np.arange(counts.sum()) - np.repeat(np.cumsum(counts) - counts, counts)
    return (
        terms[np.repeat(starts[inner], counts) + flat],
        np.repeat(node, counts),
        np.repeat(often, counts),
    )
