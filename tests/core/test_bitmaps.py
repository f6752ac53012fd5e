"""Bitmaps of short beginnings are kept from one search to the next, and change no answer."""

import random

import numpy as np
import pytest

from anchorline.core.gazetteer import Edition, Gazetteer, Row, SearchRequest, build_edition
from anchorline.core.gazetteer.building.bitmaps import BITMAP_IF_ONE_OF
from anchorline.core.gazetteer.compiled.bitmaps import Bitmap, BitmapCache
from anchorline.core.layouts import shipped_layouts

NODES_OF_A_MEGABYTE = 8 << 20
MOST_KEPT = 7  # of a megabyte and a little each, in eight


@pytest.fixture(scope="module")
def built():
    """A town in which thousands of streets begin alike, and thousands in another way."""
    rows = (
        Row(
            f"{place}-{number}",
            "GB",
            {"street": f"{name}{place:04d} {kind}", "town": "Marl", "number": str(number)},
        )
        for place in range(5000)
        for name in (("Ab", "Cd")[place % 2],)
        for kind in (("Way", "Lane", "Abbey Road")[place % 3],)
        for number in range(1, 2 + place % 3)
    )
    return build_edition(rows, shipped_layouts())


def test_kept_bitmaps_change_no_answer(built):
    def opened():
        return Gazetteer([Edition("d", 1, built.manifest, built.arrays)], shipped_layouts())

    queries = [
        "1 ab",
        "2 ab",
        "3 a",
        "3 ab",
        "3 cd",
        "2 c lane",
        "ab marl",
        "way cd",
        "lane a marl",
    ]
    fresh = {query: opened().suggest(SearchRequest(query)) for query in queries}
    assert all(fresh.values())
    again = opened()
    for query in random.Random(1).choices(queries, k=60):
        assert again.suggest(SearchRequest(query)) == fresh[query], query


@pytest.mark.parametrize(
    ("bitmap", "lists"), [("word", "posting"), ("name", "name"), ("number", "number_posting")]
)
def test_what_very_many_nodes_have_has_a_bitmap_in_the_edition(built, bitmap, lists):
    arrays = built.arrays
    nodes, ends = arrays[f"{lists}_nodes"], [0, *arrays[f"{lists}_ends"].tolist()]
    ranges = list(map(tuple, arrays[f"bitmap_{bitmap}s"].tolist()))
    possible = {(place, place + 1) for place in range(len(ends) - 1)}
    if bitmap != "number":
        possible.update(map(tuple, arrays["head_words"].tolist()))
    least = arrays["node_kind"].size / BITMAP_IF_ONE_OF
    assert set(ranges) == {r for r in possible if ends[r[1]] - ends[r[0]] > least}
    assert len(ranges) >= 3
    for (first, end), bits in zip(ranges, arrays[f"bitmap_{bitmap}_bits"], strict=True):
        marked = np.flatnonzero(np.unpackbits(bits.view(np.uint8), bitorder="little"))
        assert marked.tolist() == np.unique(nodes[ends[first] : ends[end]]).tolist()


def test_bitmaps_are_kept_up_to_a_size_and_those_used_last_stay():
    kept, first = BitmapCache(NODES_OF_A_MEGABYTE), Bitmap(NODES_OF_A_MEGABYTE)
    kept.keep("first", first)
    for key in range(2 * MOST_KEPT):
        kept.keep(key, Bitmap(NODES_OF_A_MEGABYTE))
        assert kept.find("first") is first
    assert len(kept) == MOST_KEPT
    assert kept.find(0) is None
    assert kept.find(2 * MOST_KEPT - 1) is not None


def test_editions_share_the_room_for_bitmaps_but_no_bitmaps():
    one, other = BitmapCache(NODES_OF_A_MEGABYTE), BitmapCache(NODES_OF_A_MEGABYTE)
    for key in range(MOST_KEPT):
        one.keep(key, Bitmap(NODES_OF_A_MEGABYTE))
    assert other.find(0) is None
    other.keep("more", Bitmap(NODES_OF_A_MEGABYTE))
    assert (len(one), len(other)) == (MOST_KEPT - 1, 1)
    other.keep("more", Bitmap(NODES_OF_A_MEGABYTE))
    assert (len(one), len(other)) == (MOST_KEPT - 1, 1)
