"""Practice addresses: there for every country, fitting its layout, found as all others are."""

import pytest

from anchorline.core.gazetteer import SearchRequest
from anchorline.core.layouts import check_components, shipped_layouts, write_lines
from anchorline.core.practice import is_practice, practice_gazetteer, practice_rows

LAYOUTS = shipped_layouts()
ROWS = list(practice_rows(LAYOUTS))


@pytest.fixture(scope="module")
def practice():
    return practice_gazetteer(LAYOUTS)


def test_each_country_has_five_that_its_layout_finds_nothing_wrong_with():
    by_country = {}
    for row in ROWS:
        by_country.setdefault(row.country_code, []).append(row)
    assert set(by_country) == {layout.country_code for layout in LAYOUTS}
    for code, rows in by_country.items():
        layout = LAYOUTS.require(code)
        assert len(rows) == 5
        assert len({tuple(row.components.items()) for row in rows}) == 5, code
        for row in rows:
            assert check_components(layout, row.components)[1] == [], (code, row.components)
            assert write_lines(layout, row.components), code


def test_they_are_found_opened_and_looked_up_by_their_ids(practice):
    (street,) = practice.suggest(SearchRequest(text="lantern row", countries=("GB",), limit=4))
    assert (street.kind, street.count, is_practice(street.id)) == ("street", 3, True)
    inside = practice.suggest(SearchRequest(text="", within=street.id, limit=9))
    found, edition = practice.address(inside[0].id)
    assert (found.id, edition.dataset) == ("practice:GB1", "practice")
    assert found.components["street"] == "Lantern Row"


@pytest.mark.parametrize(("identifier", "told"), [
    ("practice:GB1", True), ("practice", False), ("practices:GB1", False), ("demo:practice:1", False),
])  # fmt: skip
def test_an_id_tells_whether_it_is_one_of_practice(identifier, told):
    assert is_practice(identifier) == told
