"""Countries, kinds, a group to stay inside of, nearness, and texts meant to be hard."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anchorline.core.gazetteer import SearchRequest
from anchorline.core.gazetteer.searching.near import nodes_near
from anchorline.core.gazetteer.searching.opening import inside
from anchorline.core.gazetteer.searching.restrictions import both, wanted_nodes
from anchorline.core.kinds import NODE_KINDS


def every_node(edition):
    return np.arange(edition.node_count_total, dtype=np.uint32)


@given(st.data())
@settings(deadline=None, max_examples=30)
def test_inside_a_group_are_the_nodes_all_of_whose_addresses_are(edition, data):
    ranges = [n for n in range(edition.node_count_total) if not edition.is_listed(n)]
    group = data.draw(st.sampled_from(ranges))
    members = set(edition.node_addresses(group).tolist())
    kept = set(np.flatnonzero(inside(edition, group)(every_node(edition))).tolist())
    some = data.draw(st.lists(st.sampled_from(range(edition.node_count_total)), max_size=60))
    for node in {*some, *list(kept)[:40]} - {group}:
        assert (node in kept) == (set(edition.node_addresses(node).tolist()) <= members), node
    assert group not in kept


@pytest.mark.parametrize("kind", NODE_KINDS)
def test_kinds_and_countries_keep_just_these(edition, kind):
    keep = wanted_nodes(edition, SearchRequest("", kinds=(kind,), countries=("FR", "JP")))
    kept = keep(every_node(edition))
    for node in range(0, edition.node_count_total, 5):
        wanted = edition.node_kind_name(node) == kind
        assert kept[node] == (wanted and edition.node_country_code(node) in ("FR", "JP"))


def test_what_restricts_nothing_is_no_filter(edition):
    assert wanted_nodes(edition, SearchRequest("", countries=edition.countries)) is None
    assert wanted_nodes(edition, SearchRequest("", kinds=("address", "town"))) is None
    assert both(None, None) is None


def test_nodes_near_a_point_are_those_in_the_streets_there(edition):
    index = 100
    street = edition.street_of(index)
    facts = edition.address(index).facts
    near = nodes_near(edition, facts.latitude, facts.longitude)
    assert street in near
    assert near.tolist() == sorted(set(near.tolist()))
    assert not len(nodes_near(edition, -60.0, -120.0))


@pytest.mark.parametrize("limit", [1, 3, 8, 50])
def test_what_is_corrected_does_not_hang_on_how_many_rows_are_wanted(gazetteer, limit):
    answer = gazetteer.search(SearchRequest("16 abbye mews brackwater", limit=limit))
    assert answer.corrected == {"abbye": "abbey"}
    assert answer.rows[0].label == "16 Abbey Mews, Brackwater, QV1 1AA"


@pytest.mark.parametrize(
    "text",
    ["12345 " * 33, "1 2 3 4 5 6 7 8 9 " * 11, "a b c d e f g " * 14, "kilncrescent" * 16,
     "qv1 1aa " * 25, "zzkq " * 40, "flat flat flat 3 3 3", "# // -- ,,", "\u0301\u0301", "ß" * 200],
)  # fmt: skip
def test_texts_meant_to_be_hard_are_answered(gazetteer, text):
    answer = gazetteer.search(SearchRequest(text[:200], trace=True))
    assert len(answer.steps) < 150, "the number of interpretations is bounded"
    assert len(answer.rows) <= 8


def test_typing_inside_a_town_corrects_inside_it_alone(gazetteer):
    (town,) = gazetteer.suggest(SearchRequest("brackwater", kinds=("town",)))
    answer = gazetteer.search(SearchRequest("klin cresent", within=town.id))
    assert [row.label for row in answer.rows] == ["Kiln Crescent, Brackwater"]
    assert set(answer.corrected) == {"klin", "cresent"}
