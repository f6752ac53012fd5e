"""Bilingual places: one address in several spellings, found by any and shown in one."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anchorline.core.gazetteer import Edition, Gazetteer, Row, SearchRequest, build_edition
from anchorline.core.gazetteer.alternate_names import best_language
from anchorline.core.layouts import shipped_layouts

NAMES = {
    "en": ("Mill Road", "Wernbridge", "Millers' Hall"),
    "cy": ("Heol y Felin", "Pontwern", "Neuadd y Melinydd"),
}


def rows():
    """Two streets of a bilingual town, one of them with a hall, and one of a town beside it."""
    made = []
    for language, (street, town, hall) in NAMES.items():
        for number in range(1, 6):
            components = {
                "number": str(number),
                "street": street,
                "town": town,
                "postcode": "QW1 1AA",
            }
            if number == 3:
                components["place"] = hall
            made.append(Row(f"A{number}", "GB", components, language, 52.0, -3.5))
        other = {"number": "1", "street": "Ffordd Newydd", "town": town, "postcode": "QW1 2AA"}
        made.append(Row("B1", "GB", other, language, 52.1, -3.5))
    plain = {"number": "1", "street": "Mill Road", "town": "Marl", "postcode": "QX1 1AA"}
    made.append(Row("C1", "GB", plain, "en", 52.2, -3.5))
    return made


def opened(some):
    built = build_edition(some, shipped_layouts())
    return Edition("d", 1, built.manifest, built.arrays)


@pytest.fixture(scope="module")
def bilingual():
    return opened(rows())


@pytest.fixture(scope="module")
def gazetteer(bilingual):
    return Gazetteer([bilingual], shipped_layouts())


def labels(gazetteer, text, **given):
    return [row.label for row in gazetteer.suggest(SearchRequest(text, **given))]


def test_rows_of_one_id_are_one_address(bilingual):
    assert bilingual.address_count == 7
    assert bilingual.alternate_names.languages == ("cy",)
    town = next(
        n for n in range(bilingual.node_count_total)
        if bilingual.node_kind_name(n) == "town" and bilingual.node_text(n, "town") == "Wernbridge"
    )  # fmt: skip
    assert bilingual.node_count(town) == 6
    assert bilingual.node_components(town, "cy")["town"] == "Pontwern"


@pytest.mark.parametrize(
    ("typed", "label"),
    [
        ("mill road wern", "Mill Road, Wernbridge, QW1 1AA"),
        ("heol y fel", "Heol y Felin, Pontwern, QW1 1AA"),
        ("pontwern felin 2", "2 Heol y Felin, Pontwern, QW1 1AA"),
        ("wernbridge 2", "2 Mill Road, Wernbridge, QW1 1AA"),
        ("neuadd", "Neuadd y Melinydd, 3 Heol y Felin, Pontwern, QW1 1AA"),
        ("heol y flein 2", "2 Heol y Felin, Pontwern, QW1 1AA"),
        ("felin wernbridge", "Mill Road, Wernbridge, QW1 1AA"),
    ],
)
def test_a_place_is_found_by_any_spelling_and_shown_in_the_one_typed(gazetteer, typed, label):
    assert labels(gazetteer, typed)[0] == label


def test_a_wanted_language_picks_the_spelling_whatever_was_typed(gazetteer):
    assert labels(gazetteer, "mill road 2", language="cy")[0].startswith("2 Heol y Felin, Pontwern")
    assert labels(gazetteer, "heol y felin 2", language="en-GB")[0].startswith("2 Mill Road")
    # A language that a place is not spelt in changes nothing.
    assert labels(gazetteer, "mill road marl", language="cy") == ["1 Mill Road, Marl, QX1 1AA"]
    assert labels(gazetteer, "pontwern felin 2", language="fr")[0].startswith("2 Mill Road")


def test_what_is_picked_comes_in_the_spelling_that_was_shown(gazetteer):
    welsh = gazetteer.suggest(SearchRequest("felin 3 pontwern"))[0]
    assert welsh.id == "d:A3@cy"
    address, _ = gazetteer.address(welsh.id)
    assert address.id == welsh.id
    assert address.components["street"] == "Heol y Felin"
    assert address.components["place"] == "Neuadd y Melinydd"
    assert address.facts.languages == ("cy", "en")
    english, _ = gazetteer.address("d:A3")
    assert english.components["town"] == "Wernbridge"
    assert english.facts.languages == ("en", "cy")
    # An id outlives a spelling that a later edition no longer has.
    assert gazetteer.address("d:C1@cy")[0].id == "d:C1"
    assert gazetteer.address("d:Z9@cy") is None


def test_a_group_opens_in_the_language_in_which_it_was_shown(gazetteer):
    group = gazetteer.suggest(SearchRequest("heol y felin"))[0]
    assert group.count == 5
    assert labels(gazetteer, "", within=group.id)[0].startswith("1 Heol y Felin")
    assert labels(gazetteer, "", within=group.id, language="en")[0].startswith("1 Mill Road")
    town = gazetteer.suggest(SearchRequest("pontwern", kinds=("town",)))[0]
    assert labels(gazetteer, "", within=town.id) == [
        "1 Ffordd Newydd, Pontwern, QW1 2AA", "Heol y Felin, Pontwern, QW1 1AA",
    ]  # fmt: skip


def test_the_order_of_the_file_and_of_its_languages_does_not_matter(bilingual):
    backward = opened(reversed(rows()))
    assert backward.alternate_names.languages == bilingual.alternate_names.languages
    for index in range(bilingual.address_count):
        assert backward.address(index) == bilingual.address(index)
        assert backward.address(index, "cy") == bilingual.address(index, "cy")
    for name, array in bilingual.arrays.items():
        if name.startswith("spelt") and not name.endswith("texts"):
            assert np.array_equal(array, backward.arrays[name]), name


@given(st.lists(st.tuples(st.integers(0, 6), st.sampled_from(["", "en", "cy", "fr"])), min_size=1))
@settings(deadline=None, max_examples=50)
def test_every_spelling_that_was_loaded_is_found_and_counts_stay_those_of_addresses(pairs):
    made = [
        Row(f"R{place}", "GB", {"street": f"Street{place} {language or 'plain'}", "number": "1",
                                "town": f"Town{language}"}, language)
        for place, language in dict.fromkeys(pairs)
    ]  # fmt: skip
    edition = opened(made)
    gazetteer = Gazetteer([edition], shipped_layouts())
    assert edition.address_count == len({row.id for row in made})
    for row in made:
        found = gazetteer.suggest(SearchRequest(f"1 {row.components['street']}"))[0]
        assert found.id.partition(":")[2].partition("@")[0] == row.id
        assert found.label.startswith(f"1 {row.components['street']}, {row.components['town']}")
        assert gazetteer.address(found.id)[0].components["street"] == row.components["street"]


@pytest.mark.parametrize(
    ("wanted", "known", "found"),
    [
        ("fr", ["nl", "fr"], "fr"),
        ("fr-BE", ["nl", "fr"], "fr"),
        ("FR", ["nl", "fr"], "fr"),
        ("ja", ["ja-Latn"], "ja-Latn"),
        ("ja-Latn-JP", ["ja", "ja-Latn"], "ja-Latn"),
        ("de", ["nl", "fr"], ""),
        ("", ["nl"], ""),
        ("f", ["fr"], ""),
    ],
)
def test_a_language_is_looked_up_by_its_beginnings(wanted, known, found):
    assert best_language(wanted, known) == found
