"""The order in which an edition stores its addresses, and the runs of equal keys in it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

import numpy as np
import numpy.typing as npt

from ...text import fold, natural_key
from ..arrays import distinct_sorted
from .table import RowTable

Longs = npt.NDArray[np.int64]

_ROOM = 2**62


def storage_order(table: RowTable) -> Longs:
    """Row numbers by country, region, town, district, street, number, building, unit and id."""
    texts = table.texts

    def ranked(component: str, key: Callable[[str], Any]) -> Longs:
        return ranks(table.column(component), texts, key)

    path = combined([
        ranked("country_code", str),
        *(ranked(name, fold) for name in ("region", "town", "district")),
        ranked("street", natural_key),
    ])  # fmt: skip
    within = combined([ranked(name, natural_key) for name in ("number", "building", "unit")])
    return np.lexsort((id_ranks(table.ids), within, path))


def id_ranks(ids: Sequence[str]) -> Longs:
    """For each id its place among them all, by the bytes of its UTF-8."""
    encoded = np.array([text.encode() for text in ids], dtype=np.bytes_)
    found = np.empty(len(ids), dtype=np.int64)
    found[np.argsort(encoded, kind="stable")] = np.arange(len(ids))
    return found


def ranks(column: npt.NDArray[np.uint32], texts: Sequence[str], key: Callable[[str], Any]) -> Longs:
    """For each cell the place of its text among the column's distinct texts, by a sort key."""
    distinct = distinct_sorted(column).tolist()
    distinct.sort(key=lambda number: (key(texts[number]), texts[number]))
    places = np.zeros(len(texts), dtype=np.int64)
    places[distinct] = np.arange(len(distinct))
    return places[column]


def combined(columns: Sequence[npt.NDArray[np.integer]]) -> Longs:
    """One number a row that orders and tells apart as the columns do, the first one first."""
    code = columns[0].astype(np.int64)
    size = int(code.max()) + 1
    for column in columns[1:]:
        width = int(column.max()) + 1
        if size * width >= _ROOM:
            distinct, code = np.unique(code, return_inverse=True)
            size = len(distinct)
        code = code * width + column
        size *= width
    return code


def run_starts(code: Longs) -> Longs:
    """Where in a grouped column another value begins, the first one included."""
    return np.flatnonzero(np.concatenate([[True], code[1:] != code[:-1]]))
