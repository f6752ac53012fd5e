"""What people type, and how it is read."""

import pytest

from anchorline.core.gazetteer import Edition, Gazetteer, Row, SearchRequest, build_edition
from anchorline.core.gazetteer.searching.interpretations import (
    MOST_SPLITS,
    joined,
    split,
    without_numbers,
)
from anchorline.core.gazetteer.searching.terms import Token
from anchorline.core.layouts import shipped_layouts


def row(identifier, country, **components):
    return Row(str(identifier), country, components)


ROWS = [
    row(1, "GB", number="12", street="Oak Field", town="Marlow Green", postcode="QV1 4AB"),
    row(2, "GB", number="14", street="Oak Field", town="Marlow Green", postcode="QV1 4AB"),
    row(3, "GB", number="3", street="St Bride's Road", town="Marlow Green", postcode="QV1 4AC"),
    row(4, "GB", number="12", unit="Flat 3", building="Fern Court", street="Mill Street",
        town="Marlow Green", postcode="QV1 4AD"),
    row(5, "GB", number="12", unit="Flat 4", building="Fern Court", street="Mill Street",
        town="Marlow Green", postcode="QV1 4AD"),
    row(6, "GB", number="20", organisation="Tansley Tuners Ltd", street="Mill Street",
        town="Marlow Green", postcode="QV1 4AD"),
    row(7, "DE", number="5", street="Müllerstraße", town="Großlinden", postcode="00123"),
    row(8, "DE", number="7a", street="Lindenplatz", town="Großlinden", postcode="00123"),
    row(9, "FR", number="12 bis", street="rue de l’Étang", town="Saint-Orvain", postcode="96011"),
    row(10, "FR", number="4", street="Bd Victor", town="Saint-Orvain", postcode="96011"),
    row(11, "US", number="210", unit="Apt 4B", street="N Main St", town="Cedar Hollow",
        region_code="VT", postcode="00011"),
    row(14, "NL", number="23", street="Kade", town="Eikdam", postcode="0201 NR"),
    row(12, "NL", number="9", street="Søndervej", town="Eikdam", postcode="0201 DG"),
]  # fmt: skip


@pytest.fixture(scope="module")
def small():
    built = build_edition(ROWS, shipped_layouts())
    return Gazetteer([Edition("d", 1, built.manifest, built.arrays)], shipped_layouts())


@pytest.mark.parametrize(
    ("typed", "first"),
    [
        ("oakfield 12", "1"),
        ("12 oak field", "1"),
        ("marlow green oak field 14", "2"),
        ("qv14ab 12", "1"),
        ("12 QV1 4AB", "1"),
        ("QV1 4AB 14", "2"),
        ("saint brides rd", "3"),
        ("st bride's road marlow", "3"),
        ("flat 3 fern court", "4"),
        ("fern court 4", "5"),
        ("3/12 mill st", "4"),
        ("12-4 mill street", "5"),
        ("tansley tuners", "6"),
        ("tuners limited mill street", "6"),
        ("muellerstr 5", "7"),
        ("mullerstrasse", "7"),
        ("Müllerstr. 5, Großlinden", "7"),
        ("grosslinden müller strasse", "7"),
        ("linden platz", "8"),
        ("lindenpl 7a", "8"),
        ("12bis rue de l'etang", "9"),
        ("12 bis r de l etang", "9"),
        ("boulevard victor", "10"),
        ("4 bld victor", "10"),
        ("Apt 4B, 210 north main street", "11"),
        ("210 n main st cedar hollow", "11"),
        ("0201 NR 23", "14"),
        ("kade nr 23", "14"),
        ("soendervej 9", "12"),
        ("sondervej", "12"),
        ("Søndervej 9", "12"),
        ("12 Oak Field,\nMarlow Green / QV1 4AB\nUnited Kingdom", "1"),
        ("Mrs Jane Porter\n12 Oak Field\nMarlow Green\nQV1 4AB\nUnited Kingdom", "1"),
    ],
)
def test_what_people_type_finds_the_address_first(small, typed, first):
    found = small.suggest(SearchRequest(typed))
    assert found, typed
    assert found[0].id == f"d:{first}" or (found[0].count > 1 and first in inside(small, found[0]))


def inside(gazetteer, group):
    rows = gazetteer.suggest(SearchRequest("", within=group.id, limit=50))
    return {row.id.removeprefix("d:") for row in rows}


@pytest.mark.parametrize(
    ("typed", "corrected", "unmatched"),
    [
        ("oak feild", {"feild": "field"}, ()),
        ("boak field", {"boak": "oak"}, ()),
        ("lindenpaltz", {"lindenpaltz": "lindenplatz"}, ()),
        ("lindemplats", {"lindemplats": "lindenplatz"}, ()),
        ("marlwo gren oak field", {"marlwo": "marlow", "gren": "green"}, ()),
        ("12 oak field qv1 4ax marlow green", {"qv14ax": "qv14ab"}, ()),
        ("99 oak field", {}, ("99",)),
        ("99 oak feild", {"feild": "field"}, ("99",)),
        ("oak field", {}, ()),
    ],
)
def test_an_answer_says_what_was_read_and_what_there_is_not(small, typed, corrected, unmatched):
    answer = small.search(SearchRequest(typed))
    assert (answer.corrected, answer.unmatched) == (corrected, unmatched)
    assert answer.rows


def test_a_number_that_there_is_not_offers_the_street_and_its_nearest_numbers(small):
    rows = small.suggest(SearchRequest("13 oak field"))
    assert (rows[0].kind, rows[0].count) == ("street", 2)
    assert [r.id for r in rows[1:]] == ["d:1", "d:2"]


def test_a_group_of_a_kind_is_found_though_it_has_one_address(small):
    (only,) = small.suggest(SearchRequest("tansley", kinds=("organisation",)))
    assert only.id == "d:6"


def test_a_number_alone_is_the_streets_and_not_a_units(small):
    rows = small.suggest(SearchRequest("3 marlow green"))
    assert [row.id for row in rows] == ["d:3"]


def test_a_postcode_of_several_streets_names_them(small):
    rows = [
        *ROWS,
        row(13, "GB", number="1", street="Low Lane", town="Marlow Green", postcode="QV1 4AB"),
    ]
    built = build_edition(rows, shipped_layouts())
    gazetteer = Gazetteer([Edition("d", 1, built.manifest, built.arrays)], shipped_layouts())
    (group,) = gazetteer.suggest(SearchRequest("qv1 4ab", kinds=("postcode",)))
    assert group.label == "QV1 4AB, Low Lane · Oak Field, Marlow Green"
    assert group.count == 3


def test_a_region_that_lines_do_not_write_keeps_its_name(small):
    rows = [row(1, "NL", number="1", street="Kade", town="Eikdam", region="Waterland"),
            row(2, "NL", number="2", street="Kade", town="Hoogdam", region="Waterland")]  # fmt: skip
    built = build_edition(rows, shipped_layouts())
    gazetteer = Gazetteer([Edition("d", 1, built.manifest, built.arrays)], shipped_layouts())
    (region,) = gazetteer.suggest(SearchRequest("waterland", kinds=("region",)))
    assert region.label.startswith("Waterland")
    assert region.count == 2


def test_a_trace_says_how_it_was_read_and_what_rows_are_worth(small):
    answer = small.search(SearchRequest("oak feild", trace=True))
    assert answer.steps[0].interpretation == "as typed"
    assert answer.steps[-1].interpretation == "corrected"
    assert answer.steps[-1].nodes == 1
    assert sum(answer.rows[0].why.values()) == pytest.approx(answer.rows[0].score, abs=0.05)
    assert small.search(SearchRequest("oak feild")).steps == []


def test_two_datasets_answer_as_one_and_a_literal_find_hides_corrected_ones(small):
    first = build_edition([ROWS[0]], shipped_layouts())
    other = build_edition([row(1, "GB", number="2", street="Oak Fields", town="Elsewhere")],
                          shipped_layouts())  # fmt: skip
    both = Gazetteer(
        [
            Edition("a", 1, first.manifest, first.arrays),
            Edition("b", 1, other.manifest, other.arrays),
        ],
        shipped_layouts(),
    )
    assert [row.id for row in both.suggest(SearchRequest("oak fields"))] == ["b:1"]
    assert {row.id for row in both.suggest(SearchRequest("oak fiel"))} == {"a:1", "b:1"}
    assert both.stamp == "a@1,b@1"


def test_a_number_that_the_street_lacks_brings_its_neighbours_in_their_order():
    rows = [
        row(n, "GB", number=str(n), street="Gritstone Row", town="Marl") for n in range(2, 40, 4)
    ]
    built = build_edition(rows, shipped_layouts())
    finder = Gazetteer([Edition("n", 1, built.manifest, built.arrays)], shipped_layouts())
    found = finder.search(SearchRequest("gritstone row 20", limit=9)).rows
    assert [r.kind for r in found][:2] == ["street", "address"]
    assert len({r.id for r in found}) == len(found)
    labels = [r.label.split(",")[0] for r in found[1:]]
    assert labels == [f"{n} Gritstone Row" for n in (6, 10, 14, 18, 22, 26, 30, 34)]
    scores = [r.score for r in found]
    assert scores == sorted(scores, reverse=True)
    assert scores[0] - scores[-1] < 0.1, "they are worth as much as their street"


class Knows:
    """Knows every word but some."""

    found = True
    spans = ((0, 1),)

    def __init__(self, *unknown):
        self.unknown = unknown

    def knows(self, text, *, unfinished=False):
        return text not in self.unknown

    def __call__(self, token, **_):
        return self


def test_a_word_is_split_in_so_many_ways_at_most():
    ways = list(split(Knows(), [Token("a"), Token("abcdefghijklmn", unfinished=True)], 1))
    assert len(ways) == MOST_SPLITS
    assert [t.text for t in ways[0]] == ["a", "ab", "cdefghijklmn"]
    assert [t.unfinished for t in ways[0]] == [False, False, True]
    assert [[t.text for t in way] for way in split(Knows("ab"), [Token("abcde")], 0)] == [
        ["abc", "de"]
    ]
    assert list(split(Knows(), [Token("abc")], 0)) == []


def test_two_words_are_joined_only_where_they_make_a_long_one():
    def joins(*texts, knows=Knows()):  # noqa: B008
        return [[t.text for t in way] for way in joined(knows, [Token(t) for t in texts])]

    assert joins("oak", "field") == [["oakfield"]]
    assert joins("oa", "kf") == []
    assert joins("oa", "kfi") == [["oakfi"]]
    assert joins("oak", "f1ld") == []
    assert joins("a", "bcde", "fghi") == [["abcde", "fghi"], ["a", "bcdefghi"]]
    assert joins("oak", "field", knows=Knows("oakfield")) == []


def test_numbers_are_left_out_one_by_one_and_then_all():
    def left(*texts):
        return [
            (" ".join(t.text for t in kept), out)
            for kept, out in without_numbers([Token(t) for t in texts])
        ]

    assert left("kiln", "12") == [("kiln", ("12",))]
    assert left("7", "kiln", "12") == [
        ("kiln 12", ("7",)),
        ("7 kiln", ("12",)),
        ("kiln", ("7", "12")),
    ]
    assert left("1", "2", "3", "kiln")[-1] == ("kiln", ("1", "2", "3"))
    assert len(left("1", "2", "3", "4", "kiln")) == 1
    assert left("12", "14") == [] or all(kept for kept, _ in left("12", "14"))
