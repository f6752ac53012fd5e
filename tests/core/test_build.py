"""What a built index holds, against an obvious reading of the rows."""

import random
from collections import defaultdict

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.errors import EditionError
from anchorline.core.gazetteer import Edition, Gazetteer, Row, SearchRequest, build_edition
from anchorline.core.gazetteer.arrays import FIELD_BITS, HEAVY, Field
from anchorline.core.gazetteer.building.heads import HEAD_SIZE
from anchorline.core.gazetteer.building.order import combined, id_ranks, run_starts
from anchorline.core.gazetteer.building.table import RowTable
from anchorline.core.gazetteer.inner_terms import inner_terms, terms_of
from anchorline.core.gazetteer.typo_keys import shortened
from anchorline.core.layouts import shipped_layouts
from anchorline.core.text import natural_key


@given(st.lists(st.tuples(*[st.integers(0, 2**40) for _ in range(3)]), min_size=1, max_size=30))
def test_columns_in_one_number_are_ordered_and_told_apart_as_columns(rows):
    columns = [np.array(column, dtype=np.int64) for column in zip(*rows, strict=True)]
    code = combined(columns).tolist()
    assert sorted(range(len(rows)), key=code.__getitem__) == sorted(
        range(len(rows)), key=rows.__getitem__
    )
    assert len(set(code)) == len(set(rows))


@given(st.lists(st.integers(0, 3), min_size=1))
def test_runs_begin_where_the_value_changes(values):
    starts = run_starts(np.array(values)).tolist()
    assert starts == [i for i, v in enumerate(values) if i == 0 or values[i - 1] != v]


@given(st.lists(st.text("aZ9é-", min_size=1, max_size=5), unique=True, min_size=1))
def test_ids_are_ranked_by_their_bytes(ids):
    ranks = id_ranks(ids).tolist()
    assert [ids[ranks.index(i)] for i in range(len(ids))] == sorted(ids, key=str.encode)


@pytest.mark.parametrize(
    ("text", "terms"),
    [
        ("12", {"12"}),
        ("12a", {"12a", "12"}),
        ("12 bis", {"12", "bis", "12bis"}),
        ("12-14", {"12", "14", "1214"}),
        ("Flat 3", {"flat", "3", "flat3"}),
    ],
)
def test_a_number_is_found_by_its_parts_by_all_of_it_and_by_its_digits(text, terms):
    assert set(terms_of(text)) == terms


def test_terms_of_units_and_boxes_are_marked_and_boxes_have_the_lines_words():
    layout = shipped_layouts().require("GB")
    assert set(inner_terms("12", "Flat 3", "", layout)) == {"12", "#flat", "#3", "#flat3"}
    assert {"#po", "#box", "#9"} <= set(inner_terms("", "", "9", layout))


def test_letters_left_out_in_all_ways():
    assert shortened("abca", 1) == {"bca", "aca", "aba", "abc"}
    assert shortened("abc", 2) == {"a", "b", "c"}
    assert shortened("abc", 3) == set()


def test_the_order_of_rows_in_the_file_makes_no_difference(world):
    rows = [row for row in world if row.country_code in ("GB", "JP")]
    shuffled = list(rows)
    random.Random(3).shuffle(shuffled)
    gazetteers = []
    for some in (rows, shuffled):
        built = build_edition(some, shipped_layouts())
        edition = Edition("d", 1, built.manifest, built.arrays)
        gazetteers.append(Gazetteer([edition], shipped_layouts()))
    for text in ("brack", "kiln cres", "12", "本町", "qv1", "flat 3", "museum"):
        first, second = (g.suggest(SearchRequest(text, limit=30)) for g in gazetteers)
        assert first == second, text


def test_addresses_of_a_street_stand_in_natural_order(edition):
    for street in edition.street_nodes[:200].tolist():
        numbers = [natural_key(edition.number_of(i)) for i in edition.node_addresses(street)]
        assert numbers == sorted(numbers)


def test_nodes_are_numbered_by_weight_and_postings_ascend(edition):
    weights = edition.node_weight.tolist()
    assert weights == sorted(weights, reverse=True)
    for word in range(0, len(edition.words), 7):
        nodes = edition.postings(word, word + 1).tolist()
        assert nodes == sorted(set(nodes))


def test_every_word_of_a_node_is_in_its_row_and_in_the_postings(edition):
    for node in range(0, edition.node_count_total, 11):
        cells = edition.node_words[node].tolist()
        filled = [code for code in cells if code & 7 != Field.NOTHING]
        assert filled == cells[: len(filled)], "words stand together at the beginning"
        fields = [code & 7 for code in filled]
        own = [field >= Field.NAME_ALSO for field in fields]
        assert own == sorted(own, reverse=True), "the own name's words come first"
        for code in filled:
            assert node in edition.postings(code >> FIELD_BITS, (code >> FIELD_BITS) + 1)


def test_heads_are_the_heaviest_of_each_country_and_kind_that_begin_so():
    rows = (
        Row(f"{code}{i}", code, {"street": f"{word}{i:04d} Way", "town": "Marl", "number": "1"})
        for code, word in (("GB", "abc"), ("IE", "abd"))
        for i in range(HEAVY)
    )
    built = build_edition(rows, shipped_layouts())
    edition = Edition("d", 1, built.manifest, built.arrays)
    span = edition.words.prefix_range("ab")
    head = edition.head(*span)
    assert head is not None
    shelves = defaultdict(list)
    for node in np.unique(edition.postings(*span)).tolist():
        cells = edition.node_words[node].tolist()
        if any(span[0] <= c >> FIELD_BITS < span[1] and c & 7 >= Field.NAME_ALSO for c in cells):
            shelves[edition.node_country_code(node), edition.node_kind_name(node)].append(node)
    expected = sorted(node for nodes in shelves.values() for node in nodes[:HEAD_SIZE])
    assert head.tolist() == expected
    assert edition.head(*edition.words.prefix_range("abc0001")) is None
    found = Gazetteer([edition], shipped_layouts()).suggest(
        SearchRequest("ab", countries=("IE",), limit=8)
    )
    assert [row.country_code for row in found] == ["IE"] * 8


def test_no_rows_are_no_edition():
    with pytest.raises(EditionError, match="at least one"):
        build_edition([], shipped_layouts())


def test_a_table_keeps_each_text_once():
    table = RowTable(
        Row(str(i), "GB", {"street": "Same Street", "number": str(i)}, latitude=1.5, longitude=-2.0)
        for i in range(50)
    )
    assert len(table) == 50
    assert len(table.texts) == 1 + 1 + 50 + 1  # the empty one, the street, numbers, the country
    assert table.column("street").tolist() == [table.texts.index("Same Street")] * 50
    assert (table.latitudes[0], table.longitudes[0]) == (15_000_000, -20_000_000)
