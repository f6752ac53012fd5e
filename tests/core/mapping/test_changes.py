import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.faults import Faults
from anchorline.core.mapping.changes import CHANGES, Context, read_change

from .filling import LAYOUTS

TEXT = st.text(max_size=40)


def made(entry, text, country="GB", limit=None, **components):
    faults = Faults()
    change = read_change(entry, "/c", faults)
    assert change is not None, faults.problems
    layout = LAYOUTS.require(country)
    return change.apply(text, Context(layout, components, limit, LAYOUTS))


# change, country, text, what it becomes
CASES = [
    ("upper", "GB", "Mill Lane", "MILL LANE"),
    ("upper", "DE", "Straße", "STRASSE"),
    ("upper", "TR", "Şişli caddesi", "ŞİŞLİ CADDESİ"),
    ("lower", "GB", "MILL Lane", "mill lane"),
    ("title", "GB", "MCDOUGAL'S YARD", "McDougal's Yard"),
    ("title", "GB", "HOUSE OF THE ROSE", "House of the Rose"),
    ("title", "IE", "o'connell street", "O'Connell Street"),
    ("title", "FR", "RUE DE LA GARE", "Rue de la Gare"),
    ("title", "FR", "RUE DE L'ÉGLISE", "Rue de l'Église"),
    ("title", "FR", "DE GRAVE", "De Grave"),
    ("title", "NL", "JAN VAN DER BERG", "Jan van der Berg"),
    ("title", "DE", "am alten markt", "Am Alten Markt"),
    ("title", "BR", "RUA JOÃO DOS SANTOS", "Rua João dos Santos"),
    ("title", "GB", "HENRY VIII ROAD", "Henry VIII Road"),
    ("title", "GB", "12A 3RD AVENUE", "12A 3rd Avenue"),
    ("title", "GB", "", ""),
    ("ascii", "DE", "Größe ÅØÆ", "Grosse AOAe"),
    ("ascii", "IE", "O’Connell – Quay", "O'Connell - Quay"),
    ({"ascii": "two"}, "DE", "Übergröße", "Uebergroesse"),
    ("ascii", "JP", "東 é", "東 e"),
    ("strip", "GB", "St. Mary's - Lane", "St Marys Lane"),
    ({"strip": {"signs": "-"}}, "GB", "St. 1-2", "St. 12"),
    ({"first": 3}, "GB", "Brackwater", "Bra"),
    ({"first": 4}, "GB", "The Mill", "The"),
    ({"first": 99}, "GB", "Mill", "Mill"),
    ({"pad": 3}, "GB", "7", "007"),
    ({"pad": {"to": 3}}, "GB", "1234", "1234"),
    ({"pad": {"to": 4, "with": "*", "side": "behind"}}, "GB", "ab", "ab**"),
    ({"replace": {"United Kingdom": "UK"}}, "GB", "united kingdom", "UK"),
    ({"replace": {"United Kingdom": "UK"}}, "GB", "The United Kingdom", "The United Kingdom"),
    ({"replace_words": {"Saint": "St"}}, "GB", "saint Saintly Saint's", "St Saintly St's"),
    ({"replace_words": {"Mill": "M", "Mill Lane": "ML"}}, "GB", "12 Mill Lane", "12 ML"),
    ({"replace_words": {"a.b": ""}}, "GB", "x a.b axb", "x axb"),
    ({"country": "alpha_3"}, "GB", "United Kingdom", "GBR"),
    ({"country": "numeric"}, "GB", "GB", "826"),
    ({"country": "alpha_2"}, "DE", "Deutschland", "DE"),
    ({"country": "local"}, "DE", "Germany", "Deutschland"),
    ({"country": {"as": "name", "language": "fr"}}, "DE", "DE", "Allemagne"),
    ({"country": "alpha_2"}, "GB", "Allemagne", "DE"),
    ("country", "GB", "GBR", "United Kingdom"),
    ({"region": "code"}, "US", "California", "CA"),
    ({"region": "full_code"}, "US", "california", "US-CA"),
    ("region", "US", "CA", "California"),
    ("region", "GB", "Somerset", "Somerset"),
    ("postcode", "GB", "QV1 4AB", "QV14AB"),
    ({"postcode": "first_part"}, "GB", "QV1 4AB", "QV1"),
    ({"postcode": "first_part"}, "US", "90012-1234", "90012"),
    ({"postcode": "first_part"}, "DE", "10115", "10115"),
    ("number", "GB", "12a", "12"),
    ({"number": "suffix"}, "GB", "12a", "a"),
    ({"number": "suffix"}, "GB", "12", ""),
    ("number", "DE", "12-14 b", "12-14"),
    ({"number": "suffix"}, "DE", "12-14 b", "b"),
    ("number", "GB", "bis", "bis"),
    ("decimals", "GB", "51.505", "51.51"),
    ({"decimals": 0}, "GB", "-0.5", "-1"),
    ({"decimals": {"places": 1, "point": ","}}, "GB", "2.25", "2,3"),
    ("date", "GB", "2028-02-29", "29.02.2028"),
    ({"date": "d MMMM yyyy"}, "GB", "2027-03-01", "1 March 2027"),
    ({"date": {"form": "MMM yy", "language": "de"}}, "GB", "2027-03-01", "März 27"),
]  # fmt: skip


@pytest.mark.parametrize(("entry", "country", "text", "result"), CASES)
def test_a_change_makes_of_a_text(entry, country, text, result):
    assert made(entry, text, country).text == result


def test_every_change_has_a_case_a_title_and_a_sentence():
    tried = {next(iter(entry)) if isinstance(entry, dict) else entry for entry, *_ in CASES}
    assert tried | {"shorten"} == set(CHANGES)
    assert all(kind.title and kind.help.endswith(".") for kind in CHANGES.values())


@pytest.mark.parametrize(
    ("text", "limit", "short", "lost"),
    [
        ("Abbey Lane", 10, "Abbey Lane", ""),
        ("Abbey Lane", 8, "Abbey Ln", ""),
        ("Abbey Lane", 7, "Abbey", "Ln"),
        ("Abbey Lane", 4, "Abbe", "y Ln"),
        ("Saint Street Road", 15, "Saint Street Rd", ""),
        ("Saint Street Road", 13, "Saint St Rd", ""),
        (" Abbey Bell", 3, " Ab", "bey Bell"),
        ("Abbey, Bell", 7, "Abbey", "Bell"),
        ("Abbeybell", 4, "Abbe", "ybell"),
        ("Abbey", None, "Abbey", ""),
    ],
)
def test_shortening_abbreviates_first_and_then_cuts_at_a_word(text, limit, short, lost):
    changed = made("shorten", text, limit=limit)
    assert (changed.text, changed.lost) == (short, lost)
    assert changed.shortened == (short != text)


def test_shortening_knows_the_language_of_the_country_and_its_joined_words():
    assert made("shorten", "Lange Hauptstraße", "DE", 16).text == "Lange Hauptstr"
    assert made("shorten", "LANGE HAUPTSTRASSE", "DE", 16).text == "LANGE HAUPTSTR"
    assert made("shorten", "Avenue Street", "FR", 12).text == "Av Street"
    assert made({"shorten": 5}, "Abbey Lane", limit=40).text == "Abbey"


@given(TEXT, st.integers(1, 20))
def test_shortened_text_fits_and_only_what_is_said_is_lost(text, limit):
    changed = made("shorten", text, limit=limit)
    assert len(changed.text) <= limit
    assert bool(changed.lost) <= changed.shortened


@given(TEXT)
def test_plain_letters_are_left_alone_and_marks_taken_off(text):
    once = made("ascii", text).text
    assert made("ascii", once).text == once


@given(st.sampled_from(sorted(CHANGES)), TEXT, st.sampled_from(["GB", "DE", "JP", "AE", "TR"]))
def test_no_change_fails_on_any_text(name, text, country):
    needed = {"first": 3, "pad": 4, "replace": {"a": "b"}, "replace_words": {"a": "b"}}
    entry = {name: needed[name]} if name in needed else name
    assert isinstance(made(entry, text, country, 10).text, str)


@pytest.mark.parametrize(
    ("entry", "text", "says"),
    [
        ("country", "Nowhere", "'Nowhere' is no country that is known; it stays as it is"),
        ("decimals", "x", "'x' is no number; it stays as it is"),
        ("date", "2027-02-29", "'2027-02-29' is no date; it stays as it is"),
        ("ascii", "東", "letters that are not Latin stay as they are"),
    ],
)
def test_what_a_change_cannot_do_is_said_and_the_text_stays(entry, text, says):
    changed = made(entry, text)
    assert (changed.text, changed.warning) == (text, says)


def test_a_region_that_its_country_does_not_have_is_said():
    assert made("region", "Bavaria", "US").warning == (
        "'Bavaria' is no region of United States; it stays as it is"
    )


def test_a_nation_stands_for_its_country_where_there_is_one():
    assert made({"country": "nation"}, "GB", nation="Wales").text == "Wales"
    assert made({"country": "nation"}, "GB").text == "United Kingdom"


@pytest.mark.parametrize(
    ("entry", "pointer", "says"),
    [
        ("uper", "/c", "upper"),
        ({"uper": {}}, "/c", "upper"),
        ({"first": {}}, "/c/first", "Give the change first its characters."),
        ("first", "/c", "Give the change first its characters."),
        ({"first": 0}, "/c/first/count", "a whole number from 1 to 1000, not 0."),
        ({"first": True}, "/c/first/count", "a whole number"),
        ({"first": {"cuont": 3}}, "/c/first/cuont", "count"),
        ({"pad": {"to": 3, "with": "ab"}}, "/c/pad/with", "one character"),
        ({"country": "alpha_4"}, "/c/country/as", "one of name, local"),
        ({"country": {"language": "x1"}}, "/c/country/language", "a language such as de"),
        ({"replace": {}}, "/c/replace", "a table of texts"),
        ({"replace": {"a": 1}}, "/c/replace", "a table of texts"),
        ({"upper": 3}, "/c/upper", "has no settings"),
        ({"upper": None, "lower": None}, "/c", "Write one change"),
        ({"date": {"form": "hh:mm"}}, "/c/date/form", "such as dd.MM.yyyy"),
        ({"strip": {"signs": 3}}, "/c/strip/signs", "a text, not 3."),
    ],
)
def test_a_change_that_cannot_be_is_refused_with_place_and_remedy(entry, pointer, says):
    faults = Faults()
    assert read_change(entry, "/c", faults) is None
    assert [pointer] == [problem.pointer for problem in faults.problems]
    assert says in faults.problems[0].detail
