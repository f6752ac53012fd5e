import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from anchorline.core.gazetteer import Edition, Row, build_edition
from anchorline.core.gazetteer.nearest import distances_m, nearest_addresses
from anchorline.core.layouts import shipped_layouts

LATITUDES = st.floats(-90, 90) | st.sampled_from([-90.0, 90.0, 0.0, 89.9999])
LONGITUDES = st.floats(-180, 180) | st.sampled_from([-180.0, 180.0, 179.9999, -179.9999])
POINTS = st.tuples(LATITUDES, LONGITUDES)


def edition_of(points):
    rows = [
        Row(str(i), "GB", {"town": "T"}, "", latitude, longitude)
        for i, (latitude, longitude) in enumerate(points)
    ]
    built = build_edition(rows, shipped_layouts())
    return Edition("n", 1, built.manifest, built.arrays)


@given(st.lists(POINTS, min_size=1, max_size=40), POINTS, st.integers(1, 5),
       st.sampled_from([10.0, 5_000.0, 500_000.0, 30_000_000.0]))  # fmt: skip
@example([(0.0, 179.999), (0.0, -179.999)], (0.0, 180.0), 2, 5_000.0)
@example([(89.999, 10.0), (89.999, -170.0)], (90.0, 0.0), 2, 5_000.0)
@settings(deadline=None, max_examples=120)
def test_nearest_is_what_brute_force_finds(points, here, limit, radius):
    edition = edition_of(points)
    metres = distances_m(*here, edition.latitudes / 1e7, edition.longitudes / 1e7)
    expected = sorted(m for m in metres.tolist() if m <= radius)[:limit]
    found = nearest_addresses(edition, *here, limit, radius)
    assert [m for m, _ in found] == pytest.approx(expected, abs=1e-6)
    assert [m for m, _ in found] == pytest.approx([metres[a] for _, a in found])


def test_a_known_distance():
    # A degree of latitude on the mean sphere: pi * 6371008.8 / 180 m.
    metres = distances_m(0, 0, np.array([1.0]), np.array([0.0]))
    assert metres[0] == pytest.approx(111_195.08, abs=0.01)


def test_addresses_without_a_position_are_never_near():
    built = build_edition([Row("1", "GB", {"town": "T"})], shipped_layouts())
    edition = Edition("n", 1, built.manifest, built.arrays)
    assert nearest_addresses(edition, 0, 0, 5, 30_000_000.0) == []
