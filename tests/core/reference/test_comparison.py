"""Two editions held against each other, checked against going through them row by row."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.gazetteer import Edition, Row, build_edition
from anchorline.core.layouts import shipped_layouts
from anchorline.core.reference.comparison import Comparison, compare_editions
from anchorline.core.reference.limits import ActivationLimits
from anchorline.core.reference.progress import seconds_left

LAYOUTS = shipped_layouts()


def edition(rows, number=1):
    built = build_edition(rows, LAYOUTS)
    return Edition("test", number, built.manifest, built.arrays)


def street_row(row_id, number, **parts):
    place = {"number": number, "street": "Kiln Row", "town": "Marl", "postcode": "QV1 1AA"}
    return Row(row_id, "GB", {**place, **parts}, "en", 52.5, -1.5)


COMPONENTS = st.fixed_dictionaries(
    {"town": st.sampled_from(["Marl", "Peat"])},
    optional={
        name: st.sampled_from(["1", "2"]) for name in ("number", "unit", "building", "postcode")
    },
)
EDITIONS = st.dictionaries(
    st.sampled_from("abcdefgh"),
    st.builds(lambda c, d: (c, 52.5 + d), COMPONENTS, st.sampled_from([0.0, 0.0001, 0.01])),
    min_size=1,
)


@given(EDITIONS, EDITIONS)
def test_a_comparison_counts_what_going_through_row_by_row_finds(before, after):
    def rows(state):
        return [Row(i, "GB", parts, "en", latitude, -1.5) for i, (parts, latitude) in state.items()]

    found = compare_editions(edition(rows(before)), edition(rows(after), 2), LAYOUTS)
    both = before.keys() & after.keys()
    changed = {
        i: {k for k in before[i][0].keys() | after[i][0].keys()
            if before[i][0].get(k) != after[i][0].get(k)}
        for i in both
    }  # fmt: skip
    assert (found.before, found.after) == (len(before), len(after))
    assert found.added == len(after.keys() - both)
    assert found.gone == len(before.keys() - both)
    assert found.changed == sum(map(bool, changed.values()))
    names = {name for names in changed.values() for name in names}
    assert found.components == {n: sum(n in c for c in changed.values()) for n in names}
    assert found.moved == sum(abs(before[i][1] - after[i][1]) > 0.005 for i in both)
    by_town = sum(t.added + t.gone + t.changed + t.moved for t in found.towns)
    assert by_town == found.added + found.gone + found.changed + found.moved
    assert Comparison.from_document(found.to_document()) == found


def test_samples_say_what_was_and_what_is():
    old = [street_row("a", "1"), street_row("b", "2"), street_row("c", "3")]
    new = [
        street_row("a", "1a"),
        replace(street_row("b", "2"), latitude=52.6),
        street_row("d", "4", town="Peat"),
    ]
    found = compare_editions(edition(old), edition(new, 2), LAYOUTS)
    (changed,) = found.samples["changed"]
    assert (changed.id, changed.before, changed.after, changed.components) == (
        "test:a", "1 Kiln Row, Marl, QV1 1AA", "1a Kiln Row, Marl, QV1 1AA", ["number"],
    )  # fmt: skip
    (moved,) = found.samples["moved"]
    assert moved.moved_m == pytest.approx(11_119.5, abs=1)
    assert [s.before for s in found.samples["gone"]] == ["3 Kiln Row, Marl, QV1 1AA"]
    assert [s.after for s in found.samples["added"]] == ["4 Kiln Row, Peat, QV1 1AA"]
    assert [(t.town, t.added, t.gone, t.changed, t.moved) for t in found.towns] == [
        ("Marl", 0, 1, 1, 1),
        ("Peat", 1, 0, 0, 0),
    ]


def test_another_spelling_that_changes_is_a_change():
    def rows(street):
        return [
            street_row("a", "1"), street_row("b", "2"), street_row("c", "3"),
            replace(street_row("a", "1", street=street), language="cy"),
            replace(street_row("b", "2", street="Rhes yr Odyn"), language="cy"),
        ]  # fmt: skip

    before, after = edition(rows("Rhes yr Odyn")), edition(rows("Rhes y Felin"), 2)
    assert compare_editions(before, before, LAYOUTS).changed == 0
    found = compare_editions(before, after, LAYOUTS)
    # The street no longer has one name in Welsh, so all its addresses are told otherwise.
    assert found.components == {"alternate names": 3}
    plain = compare_editions(before, edition(rows("Rhes yr Odyn")[:3], 3), LAYOUTS)
    assert (plain.added, plain.gone, plain.components) == (0, 0, {"alternate names": 3})


def test_limits_name_each_share_that_is_exceeded():
    comparison = Comparison(base=1, before=1000, after=990, moved_m=50, gone=30, changed=100)
    said = ActivationLimits(gone=0.02, changed=0.1, moved=0).exceeded(comparison)
    assert said == ["30 addresses are gone: 3.0%, at most 2.0% may."]
    assert ActivationLimits(gone=0.03).exceeded(comparison) == []


def test_time_left_shrinks_to_nothing():
    assert seconds_left("reading", 1, 0.001, 0) is None
    assert seconds_left("building", 1, 1, 0) is None
    reading = seconds_left("reading", 5, 0.5, 0)
    building = seconds_left("building", 2, 1, 10)
    assert reading == pytest.approx(5 + 10 * 1.45)
    assert reading > building > seconds_left("comparing", 0, 1, 10)
    assert seconds_left("building", 100, 1, 10) == 0


def test_the_usual_limits_are_those_of_the_documents():
    usual = ActivationLimits()
    assert (usual.gone, usual.changed, usual.moved) == (0.02, 0.1, 0.05)


def test_a_limit_may_be_reached_and_not_passed():
    def comparison(gone):
        return Comparison(1, 100, 100 - gone, 50.0, gone=gone)

    assert ActivationLimits().exceeded(comparison(2)) == []
    assert ActivationLimits().exceeded(comparison(3)) == [
        "3 addresses are gone: 3.0%, at most 2.0% may."
    ]
    assert ActivationLimits(gone=0).exceeded(comparison(1)) == [
        "1 address is gone: 1.0%, at most 0.0% may."
    ]
