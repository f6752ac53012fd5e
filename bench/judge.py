"""Whether an answer has the target, and how far down."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from anchorline.core.gazetteer import Edition, Suggestion
from anchorline.core.gazetteer.groups import find_group

from .queries import Query

_GROUPS = {
    "number": ("building",),
    "street": ("street",),
    "street or postcode": ("street", "postcode"),
    "postcode": ("postcode",),
}


def rank(edition: Edition, query: Query, rows: Sequence[Suggestion]) -> int:
    """The place of the target, or of a group that the query cannot see into; 0 where absent."""
    index = edition.find_address(query.target)
    for place, row in enumerate(rows, start=1):
        local = row.id.partition(":")[2]
        if local == query.target:
            return place
        if row.count > 1 and row.kind in _GROUPS[query.level]:
            found = find_group(edition, local)
            if found is not None and index in edition.node_addresses(found[0]):
                number = found[1]
                if not number or number == edition.number_of(index or 0):
                    return place
    return 0


def common_words(edition: Edition, count: int) -> list[str]:
    """The words with the most postings."""
    ends = np.array(edition.posting_ends_at)
    counts = np.diff(ends, prepend=0)
    return [edition.words[int(word)] for word in np.argsort(-counts)[:count]]


def warm(edition: Edition) -> None:
    """Touches every page of an edition's arrays."""
    for array in edition.arrays.values():
        flat = array.reshape(-1).view(np.uint8)
        flat[::4096].sum()
