"""Marks of short beginnings are kept from one search to the next, and change no answer."""

import random

import pytest

from anchorline.core.gazetteer import Edition, Gazetteer, Row, SearchRequest, build_edition
from anchorline.core.gazetteer.compiled.marks import KeptMarks, Marks
from anchorline.core.layouts import shipped_layouts

NODES_OF_A_MEGABYTE = 8 << 20
MOST_KEPT = 15  # of a megabyte and a little each, in sixteen


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


def test_kept_marks_change_no_answer(built):
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


def test_marks_are_kept_up_to_a_size_and_those_used_last_stay():
    kept, first = KeptMarks(NODES_OF_A_MEGABYTE), Marks(NODES_OF_A_MEGABYTE)
    kept.keep("first", first)
    for key in range(2 * MOST_KEPT):
        kept.keep(key, Marks(NODES_OF_A_MEGABYTE))
        assert kept.find("first") is first
    assert len(kept) == MOST_KEPT
    assert kept.find(0) is None
    assert kept.find(2 * MOST_KEPT - 1) is not None


def test_editions_share_the_room_for_marks_but_no_marks():
    one, other = KeptMarks(NODES_OF_A_MEGABYTE), KeptMarks(NODES_OF_A_MEGABYTE)
    for key in range(MOST_KEPT):
        one.keep(key, Marks(NODES_OF_A_MEGABYTE))
    assert other.find(0) is None
    other.keep("more", Marks(NODES_OF_A_MEGABYTE))
    assert (len(one), len(other)) == (MOST_KEPT - 1, 1)
    other.keep("more", Marks(NODES_OF_A_MEGABYTE))
    assert (len(one), len(other)) == (MOST_KEPT - 1, 1)
