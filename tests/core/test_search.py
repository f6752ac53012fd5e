import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anchorline.core.errors import EditionError
from anchorline.core.gazetteer import Edition, Gazetteer, Row, SearchRequest, build_edition
from anchorline.core.gazetteer.labels import LabelWriter
from anchorline.core.layouts import shipped_layouts
from anchorline.demo.world import make_rows


def labels(gazetteer, text, **options):
    return [row.label for row in gazetteer.suggest(SearchRequest(text, **options))]


@pytest.mark.parametrize(
    ("text", "first"),
    [
        ("brack", "Brackwater"),
        ("kiln cres", "Kiln Crescent, Brackwater"),
        ("brackwater kiln crescent", "Kiln Crescent, Brackwater"),
        ("kiln cres brack", "Kiln Crescent, Brackwater"),
        ("KILN CRESCENT,BRACKWATER", "Kiln Crescent, Brackwater"),
        ("霧谷", "東京都霧谷市"),
    ],
)
def test_words_are_found_in_any_order_and_begun(gazetteer, text, first):
    assert labels(gazetteer, text)[0].startswith(first)


def test_a_number_is_resolved_inside_its_street(gazetteer, world):
    row = next(r for r in world if r.components.get("street") == "Kiln Crescent"
               and "number" in r.components and "unit" not in r.components)  # fmt: skip
    text = f"{row.components['number']} kiln crescent brackwater"
    (first, *_rest) = gazetteer.suggest(SearchRequest(text))
    assert first.kind == "address"
    assert first.label.split(" Kiln")[0].split(", ")[-1] == row.components["number"]


def test_a_number_that_the_street_lacks_does_not_hide_the_street(gazetteer):
    (first, *_rest) = gazetteer.suggest(SearchRequest("9999 kiln crescent"))
    assert (first.kind, first.label) == ("street", "Kiln Crescent, Brackwater")


@given(st.data())
@settings(max_examples=60, deadline=None)
def test_every_address_is_found_by_its_own_label(gazetteer, edition, data):
    index = data.draw(st.integers(0, edition.address_count - 1))
    found, _edition = gazetteer.address(edition.address_id(index))
    label = labels_of(gazetteer, edition, index)
    rows = gazetteer.suggest(SearchRequest(label, limit=50))
    reached = {row.id for row in rows} | {
        inner.id for row in rows if row.count > 1 for inner in open_all(gazetteer, row.id)
    }
    assert found.id in reached, label


def labels_of(gazetteer, edition, index):
    return LabelWriter(shipped_layouts()).address(edition, index)


def open_all(gazetteer, group):
    """All addresses inside a group, groups inside it opened as well."""
    rows, skip = [], 0
    while page := gazetteer.suggest(SearchRequest("", within=group, limit=100, skip=skip)):
        rows += page
        skip += 100
    return [a for row in rows for a in (open_all(gazetteer, row.id) if row.count > 1 else [row])]


@pytest.mark.parametrize("text", ["brackwater", "kiln crescent", "QV1 1QF", "fern court", "本町"])
def test_a_group_counts_exactly_the_addresses_that_opening_reaches(gazetteer, text):
    groups = [row for row in gazetteer.suggest(SearchRequest(text)) if row.count > 1]
    assert groups
    for group in groups:
        reached = open_all(gazetteer, group.id)
        assert len({row.id for row in reached}) == group.count == len(reached), group.label


def test_an_opened_street_is_in_natural_order(gazetteer):
    street = gazetteer.suggest(SearchRequest("kiln crescent"))[0]
    numbers = [
        row.label.split(" Kiln")[0].split(", ")[-1]
        for row in gazetteer.suggest(SearchRequest("", within=street.id, limit=100))
        if row.label[0].isdigit()
    ]
    values = [int("".join(filter(str.isdigit, n))) for n in numbers]
    assert values == sorted(values)


def test_typing_inside_a_group_stays_inside(gazetteer):
    town = gazetteer.suggest(SearchRequest("brackwater", kinds=("town",)))[0]
    rows = gazetteer.suggest(SearchRequest("lane", within=town.id))
    assert rows
    assert all("Brackwater" in row.label for row in rows)


@given(st.permutations(["kiln", "crescent", "brackwater", "qv1"]))
@settings(deadline=None)
def test_the_order_of_whole_words_does_not_matter(gazetteer, words):
    assert (
        labels(gazetteer, " ".join(words) + " ")[:1]
        == labels(gazetteer, "kiln crescent brackwater qv1 ")[:1]
    )


def test_countries_and_kinds_restrict(gazetteer):
    rows = gazetteer.suggest(SearchRequest("li", countries=("DE",), kinds=("street",), limit=30))
    assert rows
    assert {(row.country_code, row.kind) for row in rows} == {("DE", "street")}
    rows = gazetteer.suggest(SearchRequest("kiln", kinds=("address",)))
    assert rows
    assert {row.kind for row in rows} == {"address"}


def test_near_brings_the_nearer_street_first(gazetteer, edition):
    rows = gazetteer.suggest(SearchRequest("abbey", kinds=("street",), limit=5))
    last = rows[-1]
    inner = open_all(gazetteer, last.id)[0]
    facts = gazetteer.address(inner.id)[0].facts
    near = (facts.latitude, facts.longitude)
    nearer = gazetteer.suggest(SearchRequest("abbey", kinds=("street",), limit=5, near=near))
    assert [r.id for r in nearer].index(last.id) < [r.id for r in rows].index(last.id) or (
        nearer[0].id == last.id
    )


def test_pages_of_a_group_follow_one_another(gazetteer):
    street = gazetteer.suggest(SearchRequest("kiln crescent"))[0]
    whole = gazetteer.suggest(SearchRequest("", within=street.id, limit=20))
    halves = [
        row
        for skip in (0, 10)
        for row in gazetteer.suggest(SearchRequest("", within=street.id, limit=10, skip=skip))
    ]
    assert halves == whole


def test_groups_keep_their_ids_from_edition_to_edition(world, gazetteer, layouts):
    built = build_edition([row for row in world if row.country_code == "GB"], layouts)
    other = Gazetteer([Edition("test", 2, built.manifest, built.arrays)], layouts)
    first = gazetteer.suggest(SearchRequest("kiln crescent"))[0]
    assert other.suggest(SearchRequest("kiln crescent"))[0].id == first.id


@pytest.mark.parametrize("within", ["test:~zz", "test:~0000000000000000", "nope:~1", "", "test:a"])
def test_a_group_that_there_is_not_is_none(gazetteer, within):
    assert gazetteer.suggest(SearchRequest("", within=within)) is None


@given(st.text(max_size=30))
@settings(deadline=None, max_examples=200)
def test_no_text_breaks_the_search(gazetteer, text):
    for row in gazetteer.suggest(SearchRequest(text)):
        assert row.count >= 1
        assert all(0 <= start < end <= len(row.label) for start, end in row.matches)


def test_the_rows_come_back_out_as_they_went_in(world, edition):
    for row in world[:300]:
        address = edition.address(edition.find_address(row.id))
        components = {k: v for k, v in address.components.items() if k != "country_code"}
        assert components == row.components
        assert address.country_code == row.country_code
        assert address.facts.latitude == pytest.approx(row.latitude, abs=1e-7)
        assert address.facts.use == row.use


def test_two_datasets_answer_as_one(world, layouts):
    halves = [[r for r in world if (r.country_code < "GB") == first] for first in (True, False)]
    editions = []
    for name, rows in zip("ab", halves, strict=True):
        built = build_edition(rows, shipped_layouts())
        editions.append(Edition(name, 1, built.manifest, built.arrays))
    both = Gazetteer(editions, layouts)
    assert both.stamp == "a@1,b@1"
    rows = both.suggest(SearchRequest("ma", limit=60))
    assert {row.id[0] for row in rows} == {"a", "b"}
    assert [r.score for r in rows] == sorted((r.score for r in rows), reverse=True)


def test_an_edition_of_another_form_is_refused_with_the_remedy(edition):
    with pytest.raises(EditionError, match="Build it again"):
        Edition("x", 1, {"format": 99}, {})
    with pytest.raises(EditionError, match="at least one address"):
        build_edition([], shipped_layouts())


def test_making_the_world_is_repeatable_and_every_address_fits_its_layout(layouts):
    from anchorline.core.layouts import check_components

    rows = list(make_rows(1500, seed=5))
    assert rows == list(make_rows(1500, seed=5))
    assert rows != list(make_rows(1500, seed=6))
    for row in rows:
        canonical, problems = check_components(layouts.require(row.country_code), row.components)
        assert problems == [], row
        assert canonical["postcode"] == row.components["postcode"]


def test_addresses_without_street_are_found_through_their_district(layouts):
    rows = [
        Row("1", "GB", {"building": "Gorse Farm", "district": "Overby", "town": "Marl"}),
        Row("2", "GB", {"building": "Withy Cottage", "district": "Overby", "town": "Marl"}),
        Row("3", "GB", {"po_box": "12", "town": "Marl"}),
    ]
    built = build_edition(rows, shipped_layouts())
    gazetteer = Gazetteer([Edition("d", 1, built.manifest, built.arrays)], layouts)
    assert labels(gazetteer, "gorse") == ["Gorse Farm, Overby, Marl"]
    overby = gazetteer.suggest(SearchRequest("overby"))[0]
    assert (overby.kind, overby.count) == ("district", 2)
    marl = gazetteer.suggest(SearchRequest("marl"))[0]
    assert (marl.kind, marl.count) == ("town", 3)
    assert np.all(built.arrays["latitudes"] == np.iinfo(np.int32).max)


def test_a_typing_error_in_a_short_form_is_read_as_the_word_it_stands_for(gazetteer):
    answer = gazetteer.search(SearchRequest("Kiln Crees, Brackwater"))
    assert answer.rows[0].label == "Kiln Crescent, Brackwater"
    assert answer.corrected == {"crees": "crescent"}
    assert [answer.rows[0].label[a:b] for a, b in answer.rows[0].matches][1] == "Crescent"


@pytest.mark.parametrize(
    "text",
    ["kiln", "12 kil", "99 abbey mews", "klin cresent 99", "kiln crescent 1", "1 kiln cres", "qv1 1",
     "QV1 1AA 12", "flat 3 fern court", "kilncrescent", "a", "3", "本町", "qv1 1ab brackwater",
     "Mr Bean, 16 Abbey Mews, Brackwater", "16 abbey mews springfield"],
)  # fmt: skip
def test_a_trace_accounts_for_the_worth_of_every_row(gazetteer, text):
    answer = gazetteer.search(SearchRequest(text, trace=True))
    assert answer.rows
    for row in answer.rows:
        assert sum(row.why.values()) == pytest.approx(row.score, abs=0.06), row.label
    untold = gazetteer.search(SearchRequest(text))
    assert [(row.id, row.why) for row in untold.rows] == [(row.id, {}) for row in answer.rows]
