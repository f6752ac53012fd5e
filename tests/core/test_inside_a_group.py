"""What is typed inside an opened group, and tokens that may be one."""

import pytest

from anchorline.core.gazetteer import Edition, Gazetteer, Row, SearchRequest, build_edition
from anchorline.core.gazetteer.searching.interpretations import put_together
from anchorline.core.gazetteer.searching.terms import Token
from anchorline.core.layouts import shipped_layouts


def row(identifier, **components):
    return Row(identifier, "GB", {"street": "Mill Street", "town": "Marl", **components})


FLATS = [
    row(f"flat{n}", number="12", unit=f"Flat {n}", building="Fern Court") for n in (1, 2, 12, 21)
]
NUMBERS = [row(f"n{n}", number=n, postcode="QV1 4AB") for n in ("1", "2", "2a", "21", "14")]
OTHERS = [
    row("n14c", number="14", postcode="QV1 4AC"),
    row("long3", street="Long Lane", number="3", postcode="QV1 4AC"),
    row("long15", street="Long Lane", number="15", unit="Flat 3", postcode="QV1 4AC"),
    row("long20", street="Long Lane", number="20-22", postcode="QV1 4AC"),
    row("long22", street="Long Lane", number="22", postcode="QV1 4AC"),
    row("longb", street="Long Lane", number="15", unit="Flat B", postcode="QV1 4AC"),
    row("longa22", street="Longa Lane", number="22", postcode="QV1 4AE"),
    row("longa3", street="Longa Lane", number="3", postcode="QV1 4AE"),
    Row("kade", "NL", {"number": "9", "street": "Kade", "town": "Eikdam", "postcode": "0201 DG"}),
    row("low1", street="Low Row", number="1", postcode="QV1 4AD"),
]


@pytest.fixture(scope="module")
def edition():
    built = build_edition([*FLATS, *NUMBERS, *OTHERS], shipped_layouts())
    return Edition("d", 1, built.manifest, built.arrays)


@pytest.fixture(scope="module")
def inside(edition):
    """Numbers, or flats, of the rows that what is typed leaves of a group."""
    finder = Gazetteer([edition], shipped_layouts())
    street = finder.suggest(SearchRequest("mill street"))[0]
    house = finder.suggest(SearchRequest("12", within=street.id))[0]

    def ask(typed, group="street"):
        within = street.id if group == "street" else house.id
        rows = finder.suggest(SearchRequest(typed, within=within, limit=20))
        return [row.label.split(" Mill")[0].split(",")[0] for row in rows]

    return ask


@pytest.mark.parametrize(
    ("typed", "numbers"),
    [
        ("", ["1", "2", "2a", "12", "14", "21"]),
        ("1", ["1", "12", "14"]),
        ("2", ["2", "2a", "12", "21"]),
        ("12", ["12"]),
        ("fern 2", ["12"]),
        ("2 fern", ["Flat 2"]),
        ("fern 9", []),
        ("9 fern", []),
        ("14 qv1", ["14"]),
        ("qv1 14", ["14"]),
    ],
)
def test_numbers_come_first_then_what_fits_whole_then_what_is_begun(inside, typed, numbers):
    assert inside(typed) == numbers


@pytest.mark.parametrize(
    ("typed", "flats"),
    [
        ("", ["Flat 1", "Flat 2", "Flat 12", "Flat 21"]),
        ("1", ["Flat 1", "Flat 2", "Flat 12", "Flat 21"]),
        ("flat 2", ["Flat 2", "Flat 21"]),
        ("2 fl", ["Flat 2"]),
        ("12 flat 2", ["Flat 2", "Flat 21"]),
    ],
)
def test_flats_that_fit_whole_come_before_those_begun(inside, typed, flats):
    assert inside(typed, "house") == flats


@pytest.mark.parametrize(
    ("typed", "labels"),
    [
        ("flat 2 mill street", ["Flat 2, Fern Court, 12 Mill Street"]),
        ("flat 3 long lane", ["Flat 3, 15 Long Lane"]),
        ("flat b long lane", ["Flat B, 15 Long Lane"]),
        ("15 b long lane", ["Flat B, 15 Long Lane"]),
        ("long", ["Long Lane", "Longa Lane"]),
        ("long lane 3", ["3 Long Lane"]),
        ("long lane 3 ", ["3 Long Lane"]),
        ("long lane 22", ["22 Long Lane", "20-22 Long Lane"]),
        ("22 lane", ["22 Long Lane", "22 Longa Lane", "20-22 Long Lane"]),
        ("long lane 20", ["20-22 Long Lane"]),
        ("marl 99", ["Marl"]),
        ("qx1 4ac", ["QV1 4AC, Long Lane · Mill Street"]),
        ("qx1 4ad", ["1 Low Row"]),
        ("mlll street 14", ["14 Mill Street"]),
        ("mill street 14 qv1 4ac", ["14 Mill Street"]),
        ("14 qv1 4ab", ["14 Mill Street"]),
        ("mlll street 2a", ["2a Mill Street"]),
        ("long lane flat 3", ["Flat 3, 15 Long Lane"]),
        ("flat 1 mill street", ["Flat 1, Fern Court, 12 Mill Street"]),
        ("1 low row", ["1 Low Row"]),
        ("lnog lane 3", ["3 Long Lane"]),
    ],
)
def test_nothing_beside_what_is_meant_is_found(edition, typed, labels):
    found = Gazetteer([edition], shipped_layouts()).suggest(SearchRequest(typed))
    assert [row.label.split(", Marl")[0] for row in found] == labels


def test_what_is_said_of_a_search_is_that_of_the_dataset_whose_row_leads(edition):
    built = build_edition([row("x", number="1", street="High Row", town="Elm")], shipped_layouts())
    other = Edition("other", 1, built.manifest, built.arrays)
    for editions in ([edition, other], [other, edition]):
        answer = Gazetteer(editions, shipped_layouts()).search(SearchRequest("marl 99"))
        assert [row.id.split(":")[0] for row in answer.rows] == ["d"]
        assert answer.unmatched == ("99",)


BEGUN = {"unfinished": True}


@pytest.mark.parametrize(
    ("tokens", "surely", "perhaps"),
    [
        ([Token("2"), Token("a")], None, ["2a"]),
        ([Token("mill"), Token("2"), Token("a")], None, ["mill 2a"]),
        ([Token("2"), Token("a"), Token("mill")], None, ["2a mill"]),
        ([Token("14"), Token("a")], None, []),
        ([Token("2"), Token("bis")], None, []),
        ([Token("qv1"), Token("4ab")], "qv14ab", []),
        ([Token("2"), Token("qv1"), Token("4ab")], "2 qv14ab", []),
        ([Token("qv1"), Token("4", **BEGUN)], None, ["qv14"]),
        ([Token("qv1"), Token("4")], None, []),
        ([Token("qv1"), Token("9", **BEGUN)], None, []),
        ([Token("1"), Token("4", **BEGUN)], None, []),
        ([Token("qv14ab")], None, []),
        ([Token("0"), Token("2", **BEGUN)], None, []),
        ([Token("02"), Token("0", **BEGUN)], None, ["020"]),
        ([Token("0201"), Token("d", **BEGUN)], None, ["0201d"]),
        ([Token("mill"), Token("street")], None, []),
    ],
)
def test_neighbours_that_are_one_or_may_be(edition, tokens, surely, perhaps):
    one, several = put_together(edition, tokens)
    written = [" ".join(t.text for t in tokens) for tokens in [*([one] if one else []), *several]]
    assert written == [*([surely] if surely else []), *perhaps]
    for token in one or []:
        assert token.width == (1 + (token.text == "qv14ab"))


def test_a_word_typed_whole_is_worth_more_than_one_begun(edition):
    finder = Gazetteer([edition], shipped_layouts())
    whole, begun = (
        finder.search(SearchRequest(typed, trace=True)).rows[0] for typed in ("long", "lon")
    )
    assert whole.why["whole words"] > 0
    assert begun.why.get("whole words", 0) == 0
    assert whole.score > begun.score


@pytest.mark.parametrize(
    ("typed", "count"),
    [
        ("mill street 14", 2), ("mill street 14 qv1 4ac", 1), ("mill street 14 qv1 4a", 2),
        ("mill street 14 qv1", 2), ("14 qv1 4ab", 1),
    ],
)  # fmt: skip
def test_a_postcode_narrows_a_number(edition, typed, count):
    found = Gazetteer([edition], shipped_layouts()).search(SearchRequest(typed))
    exact = [row for row in found.rows if row.label.startswith("14 Mill") and not found.unmatched]
    assert sum(row.count for row in exact) == count


@pytest.mark.parametrize("typed", ["mill street", "14 mill", "long", "qv1", "marl", "l"])
def test_pages_are_slices_of_all_rows(edition, typed):
    finder = Gazetteer([edition], shipped_layouts())
    every = [row.id for row in finder.suggest(SearchRequest(typed, limit=40))]
    for skip in range(len(every) + 1):
        for limit in (1, 2, 3):
            page = finder.suggest(SearchRequest(typed, skip=skip, limit=limit))
            assert [row.id for row in page] == every[skip : skip + limit]


@pytest.mark.parametrize("kind", ["street", "address", "postcode", "town"])
def test_rows_are_of_the_kinds_that_are_asked_for(edition, kind):
    finder = Gazetteer([edition], shipped_layouts())
    for typed in ("long lane 3", "mill street 14", "long lane", "qv1 4ab", "marl"):
        rows = finder.suggest(SearchRequest(typed, kinds=(kind,), limit=20))
        assert {row.kind for row in rows} <= {kind}, typed


def test_samples_are_of_their_country(edition):
    finder = Gazetteer([edition], shipped_layouts())
    for code, count in (("GB", 4), ("NL", 1), ("FR", 0)):
        samples = finder.samples(code, 8)
        assert len(samples) == count
        assert {address.country_code for _label, address in samples} <= {code}
