"""Which nodes one typed token hits, and where in them."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from .arrays import Field
from .edition import Edition

# Two bits above those of `Field`.
NUMBER = 128
EXACT = 256
_NAME = int(Field.NAME)

Bits = npt.NDArray[np.uint16]
Nodes = npt.NDArray[np.uint32]


@dataclass(frozen=True, slots=True)
class Hits:
    """Nodes, ascending and distinct, with the places where a token stands in each."""

    nodes: Nodes
    bits: Bits


def token_hits(edition: Edition, token: str, *, unfinished: bool) -> Hits:
    """Nodes with a token as a word, or as a number inside; an unfinished one is a prefix."""
    nodes, bits = _word_hits(edition, token, unfinished)
    found = edition.numbers.find(token)
    if found is not None:
        start = int(edition.number_posting_ends[found - 1]) if found else 0
        numbered = edition.number_posting_nodes[start : int(edition.number_posting_ends[found])]
        nodes = np.concatenate([nodes, numbered])
        bits = np.concatenate([bits, np.full(len(numbered), NUMBER | EXACT, dtype=np.uint16)])
    return _merged(nodes, bits)


def _word_hits(edition: Edition, token: str, unfinished: bool) -> tuple[Nodes, Bits]:
    if unfinished:
        first, end = edition.words.prefix_range(token)
    else:
        exact = edition.words.find(token)
        first, end = (exact, exact + 1) if exact is not None else (0, 0)
    if first == end:
        return np.empty(0, np.uint32), np.empty(0, np.uint16)
    start = int(edition.posting_ends[first - 1]) if first else 0
    stop = int(edition.posting_ends[end - 1])
    bits = edition.posting_fields[start:stop].astype(np.uint16)
    # In a sorted vocabulary the token itself, if it is a word, is the first with its prefix.
    if edition.words.raw(first) == token.encode():
        bits[: int(edition.posting_ends[first]) - start] |= EXACT
    return edition.posting_nodes[start:stop], bits


def _merged(nodes: Nodes, bits: Bits) -> Hits:
    if len(nodes) < 2:
        return Hits(nodes, bits)
    order = np.argsort(nodes, kind="stable")
    nodes, bits = nodes[order], bits[order]
    begins = np.flatnonzero(np.concatenate([[True], nodes[1:] != nodes[:-1]]))
    return Hits(nodes[begins], np.bitwise_or.reduceat(bits, begins))


def hit_by_all(hits: list[Hits]) -> tuple[Nodes, npt.NDArray[np.uint16]]:
    """The nodes that every token hits, and their bits as a matrix of node × token."""
    smallest = min(range(len(hits)), key=lambda i: len(hits[i].nodes))
    nodes = hits[smallest].nodes
    for index in sorted(range(len(hits)), key=lambda i: len(hits[i].nodes)):
        if index != smallest and len(nodes):
            other = hits[index].nodes
            place = np.searchsorted(other, nodes)
            place[place == len(other)] = 0
            nodes = nodes[other[place] == nodes] if len(other) else nodes[:0]
    matrix = np.empty((len(nodes), len(hits)), dtype=np.uint16)
    for column, hit in enumerate(hits):
        matrix[:, column] = hit.bits[np.searchsorted(hit.nodes, nodes)]
    own = (matrix & (_NAME | NUMBER)).any(axis=1)
    return nodes[own], matrix[own]
