"""The made-up world: believable on a map, and in each country's manner."""

import re
from collections import Counter
from itertools import pairwise

import numpy as np
import pytest

from anchorline.core.gazetteer.nearest import distances_m
from anchorline.demo.world import COUNTRIES, make_rows

HABITS = {
    "GB": r"Flat \d+", "FR": r"\d+ (bis|ter)", "DE": r"\d+[abc]", "US": r"Apt \d+[AB]",
    "BR": r"Apto \d+0\d", "JP": r"\d+-\d+", "IE": r"Apartment \d+",
}  # fmt: skip


@pytest.fixture(scope="module")
def rows():
    return list(make_rows(12_000, seed=3))


def test_every_country_has_its_share_and_all_kinds_of_addresses(rows):
    assert Counter(r.country_code for r in rows) == dict.fromkeys(COUNTRIES, 1200)
    for code in COUNTRIES:
        of_country = [r for r in rows if r.country_code == code]
        for name in ("unit", "building", "organisation", "place", "po_box"):
            assert any(name in r.components for r in of_country), (code, name)
        assert len({r.id for r in of_country}) == 1200


@pytest.mark.parametrize("code", HABITS)
def test_numbers_and_flats_are_written_as_the_country_does(rows, code):
    texts = [
        r.components.get(name, "")
        for r in rows if r.country_code == code for name in ("number", "unit")
    ]  # fmt: skip
    assert any(re.fullmatch(HABITS[code], text) for text in texts)


def test_neighbours_in_a_street_stand_side_by_side(rows):
    for one, other in pairwise(rows):
        same = all(
            one.components.get(n) == other.components.get(n) for n in ("street", "town", "district")
        )
        if not (same and one.components.get("street") and one.country_code == other.country_code):
            continue
        metres = distances_m(
            one.latitude, one.longitude, np.array([other.latitude]), np.array([other.longitude])
        )[0]
        assert metres < 60, (one, other)


def test_a_postcode_is_shared_by_neighbours_of_one_town_only(rows):
    towns = {}
    for row in rows:
        key = (row.country_code, row.components["postcode"])
        towns.setdefault(key, set()).add(row.components["town"])
    assert max(map(len, towns.values())) == 1
    sizes = Counter((r.country_code, r.components["postcode"]) for r in rows)
    several = sum(1 for (code, _), n in sizes.items() if n > 1 and code != "IE")
    assert several > 0.8 * sum(1 for code, _ in sizes if code != "IE")
