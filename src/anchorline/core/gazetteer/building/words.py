"""The words of every node: the vocabulary, its postings, and each node's own row of words."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import cast

import numpy as np
import numpy.typing as npt

from ...abbreviations import index_words
from ...kinds import NODE_KINDS
from ...layouts import LayoutLibrary
from ...text import compact
from ..arrays import (
    FIELD_BITS,
    FIELD_MASK,
    MOST_WORDS,
    NODE_COMPONENTS,
    Field,
    distinct_sorted,
    sorted_pool_arrays,
)
from .alternate_names import AlternateNames
from .nodes import Nodes, OrderedRows
from .order import Longs

# What surrounds a node's own name, the most telling first: rows of words are filled in this order.
_AROUND: tuple[tuple[str, Field], ...] = (
    ("building", Field.AROUND),
    ("organisation", Field.AROUND),
    ("place", Field.AROUND),
    ("street", Field.AROUND),
    ("district", Field.AROUND),
    ("town", Field.TOWN),
    ("region", Field.REGION),
    ("region_code", Field.REGION),
    ("nation", Field.REGION),
)
_STREET_LEVEL_TOWN = NODE_KINDS.index("town")
Pairs = tuple[Longs, Longs, npt.NDArray[np.uint8]]


@dataclass(slots=True)
class Words:
    """The vocabulary and where its words stand.

    Attributes:
        vocabulary: the words, sorted by their bytes.
        arrays: what the edition keeps of them.
        own_words, own_nodes, own_starts: pairs of a word and a node whose own name has it,
            and whether it begins that name.
    """

    vocabulary: list[str]
    arrays: dict[str, np.ndarray]
    own_words: Longs
    own_nodes: Longs
    own_starts: npt.NDArray[np.bool_]


class _Collected:
    """Words of texts while the vocabulary is still growing."""

    def __init__(self, texts: Sequence[str], layouts: LayoutLibrary) -> None:
        self.numbers: dict[str, int] = {}
        self._texts, self._layouts = texts, layouts

    def spread(
        self, nodes: Longs, countries: npt.NDArray[np.uint32], texts: npt.NDArray[np.uint32],
        component: str,
    ) -> tuple[Longs, Longs, Longs]:  # fmt: skip
        """Every word of every text: its node, its number, and its `Field` in a name."""
        pairs, inverse = np.unique(countries.astype(np.int64) << 32 | texts, return_inverse=True)
        listed = [
            self._words_of(int(pair >> 32), int(pair & 0xFFFFFFFF), component) for pair in pairs
        ]
        lengths = np.fromiter(map(len, listed), dtype=np.int64, count=len(listed))
        codes = np.fromiter((w for words in listed for w in words), np.int64, int(lengths.sum()))
        starts = np.cumsum(lengths) - lengths
        counts = lengths[inverse]
        place = np.arange(counts.sum()) - np.repeat(np.cumsum(counts) - counts, counts)
        flat = codes[np.repeat(starts[inverse], counts) + place]
        return np.repeat(nodes, counts), flat >> FIELD_BITS, flat & FIELD_MASK

    def _words_of(self, country: int, text: int, component: str) -> list[int]:
        """Codes of a text's words, as in `node_words`, as far as they are numbered by now."""
        layout = self._layouts.require(self._texts[country])
        if component == "postcode":
            words = [(compact(self._texts[text]), 0)]
        else:
            words = index_words(self._texts[text], layout.languages)
            if component in ("district", "town", "region") and words:
                known = {word for word, _ in words}
                last = words[-1][1]
                words += [(w, last) for w in layout.literal_words(component) if w not in known]
        numbers = self.numbers
        codes: list[int] = []
        before = -1
        for word, place in words:
            field = (
                Field.NAME_ALSO if place == before else Field.NAME if place else Field.NAME_START
            )
            codes.append(numbers.setdefault(word, len(numbers)) << FIELD_BITS | field)
            before = place
        return codes


def word_arrays(
    rows: OrderedRows,
    nodes: Nodes,
    alternate_names: AlternateNames,
    texts: Sequence[str],
    layouts: LayoutLibrary,
) -> Words:
    """The vocabulary, postings, rows of words and lengths of names."""
    collected = _Collected(texts, layouts)
    names = _names(nodes, alternate_names)
    parts = [_own_words(some, collected) for some in names]
    parts += [pairs for some in names for pairs in _words_around(some, collected)]
    node, word, place = (np.concatenate([part[i] for part in parts]) for i in range(3))
    postcode_node, postcode_word = _postcodes_inside(rows, nodes, collected)
    vocabulary = sorted(collected.numbers, key=str.encode)
    sorted_place = np.empty(len(vocabulary), dtype=np.int64)
    sorted_place[[collected.numbers[w] for w in vocabulary]] = np.arange(len(vocabulary))
    word, postcode_word = sorted_place[word], sorted_place[postcode_word]
    own = place >= Field.NAME_ALSO
    own_words, own_nodes = word[own], node[own]
    matrix, crowded = _rows_of_words(len(nodes), len(vocabulary), node, word, place)
    all_words = np.concatenate([word, postcode_word])
    all_nodes = np.concatenate([node, postcode_node])
    return Words(
        vocabulary=vocabulary,
        arrays={
            **sorted_pool_arrays("word", vocabulary),
            **posting_arrays("posting", len(vocabulary), all_words, all_nodes),
            **posting_arrays("name", len(vocabulary), own_words, own_nodes),
            "node_words": matrix,
            "crowded_nodes": crowded,
        },
        own_words=own_words,
        own_nodes=own_nodes,
        own_starts=_starts(place[own]),
    )


def posting_arrays(name: str, vocabulary: int, words: Longs, nodes: Longs) -> dict[str, np.ndarray]:
    """Nodes of each word, ascending and distinct, one word's after the other's."""
    pairs = distinct_sorted(words << 32 | nodes)
    ends = np.cumsum(np.bincount(pairs >> 32, minlength=vocabulary))
    return {
        f"{name}_ends": ends.astype(np.uint32),
        f"{name}_nodes": (pairs & 0xFFFFFFFF).astype(np.uint32),
    }


@dataclass(slots=True)
class _Names:
    """What nodes, or alternate names of nodes, are called: their own names and those around."""

    nodes: Longs
    kind: npt.NDArray[np.uint8]
    country: npt.NDArray[np.uint32]
    name: npt.NDArray[np.uint32]
    texts: npt.NDArray[np.uint32]
    rest_of_town: npt.NDArray[np.bool_]


def _names(nodes: Nodes, alternate_names: AlternateNames) -> list[_Names]:
    """The names of all nodes, and those of their alternate names."""
    rest_of_town = nodes.street_level & (nodes.kind == _STREET_LEVEL_TOWN)
    every = np.arange(len(nodes))
    at, texts = alternate_names.nodes, alternate_names.node_texts
    columns = np.array([NODE_COMPONENTS.index(kind) for kind in NODE_KINDS])
    other = texts[np.arange(len(at)), columns[nodes.kind[at]]]
    return [
        _Names(every, nodes.kind, nodes.country, nodes.name, nodes.texts, rest_of_town),
        _Names(
            at, nodes.kind[at], nodes.country[at], np.where(nodes.name[at] != 0, other, 0),
            texts, rest_of_town[at],
        ),
    ]  # fmt: skip


def _own_words(names: _Names, collected: _Collected) -> Pairs:
    """Words of the nodes' own names."""
    parts: list[tuple[Longs, Longs, Longs]] = []
    for number, kind in enumerate(NODE_KINDS):
        chosen = np.flatnonzero((names.kind == number) & (names.name != 0))
        parts.append(
            collected.spread(names.nodes[chosen], names.country[chosen], names.name[chosen], kind)
        )
    node, word, field = (np.concatenate([part[i] for part in parts]) for i in range(3))
    return node, word, field.astype(np.uint8)


def _starts(fields: npt.NDArray[np.uint8]) -> npt.NDArray[np.bool_]:
    """Which words of names begin them, in any form."""
    last = np.maximum.accumulate(np.where(fields != Field.NAME_ALSO, np.arange(len(fields)), 0))
    begins: npt.NDArray[np.bool_] = fields[last] == Field.NAME_START
    return begins


def _words_around(names: _Names, collected: _Collected) -> list[Pairs]:
    found: list[Pairs] = []
    for component, field in _AROUND:
        texts = names.texts[:, NODE_COMPONENTS.index(component)]
        around = texts != 0
        if component in NODE_KINDS:
            around &= (names.kind != NODE_KINDS.index(component)) | names.rest_of_town
        chosen = np.flatnonzero(around)
        node, word, _ = collected.spread(
            names.nodes[chosen], names.country[chosen], texts[chosen], component
        )
        found.append((node, word, np.full(len(node), field, dtype=np.uint8)))
    return found


def _postcodes_inside(
    rows: OrderedRows, nodes: Nodes, collected: _Collected
) -> tuple[Longs, Longs]:
    """Pairs of a node and a postcode of its addresses, for nodes that lie in one street."""
    postcodes = rows.column("postcode").astype(np.int64)
    pairs = [np.zeros(0, dtype=np.int64)]
    listed = nodes.inside_street
    for wanted in (nodes.street_level, listed):
        node, address = nodes.addresses_of(wanted)
        pairs.append(distinct_sorted(node << 32 | postcodes[address]))
    both = np.concatenate(pairs)
    node, text = both >> 32, (both & 0xFFFFFFFF).astype(np.uint32)
    named = text != 0
    node, text = node[named], text[named]
    found, word, _ = collected.spread(node, nodes.country[node], text, "postcode")
    return found, word


def _rows_of_words(
    nodes: int, vocabulary: int, node: Longs, word: Longs, field: npt.NDArray[np.uint8]
) -> tuple[npt.NDArray[np.uint32], npt.NDArray[np.uint32]]:
    """Node × width codes, and the nodes that have more words than fit."""
    order = np.argsort(node, kind="stable")
    node, codes = node[order], (word[order] << FIELD_BITS | field[order]).astype(np.uint32)
    counts = np.bincount(node, minlength=nodes)
    width = min(MOST_WORDS, max(8, -(-int(counts.max(initial=0)) // 8) * 8))
    place = np.arange(len(node)) - np.repeat(np.cumsum(counts) - counts, counts)
    matrix = np.full((nodes, width), vocabulary << FIELD_BITS | Field.NOTHING, dtype=np.uint32)
    fits = place < width
    matrix[node[fits], place[fits]] = codes[fits]
    return matrix, cast(npt.NDArray[np.uint32], np.flatnonzero(counts > width).astype(np.uint32))
