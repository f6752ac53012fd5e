import re

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anchorline.core.address import COMPONENTS
from anchorline.core.errors import NotationError, UnknownNameError
from anchorline.core.layouts import (
    check_components,
    language_of,
    one_line,
    shipped_layouts,
    spelt_postcode,
    unused_components,
    usual_label,
    write_lines,
    write_out,
    written_line,
)
from anchorline.core.layouts.lines import designated_components
from anchorline.core.layouts.masks import canonical_postcode, may_become
from anchorline.core.layouts.notation import read_line

CODES = [layout.country_code for layout in shipped_layouts()]
GB_MASKS = shipped_layouts().require("GB").masks
WORD = st.text(alphabet="abcdefghijk éß", min_size=0, max_size=12)


@pytest.mark.parametrize(
    ("typed", "masks", "canonical"),
    [
        ("qv14ab", GB_MASKS, "QV1 4AB"),
        ("QV1-4AB", GB_MASKS, "QV1 4AB"),
        ("ＱＶ１　４ＡＢ", GB_MASKS, "QV1 4AB"),
        ("QV1 4A", GB_MASKS, None),
        ("000011234", ["99999", "99999-9999"], "00001-1234"),
        ("0001234", ["999-9999"], "000-1234"),
        ("w1a1b1", ["A9A 9A9"], "W1A 1B1"),
        ("٣٣٣٣٣", ["99999"], "33333"),
        ("१२३ ४५६", ["999999"], "123456"),
        ("①②③④⑤", ["99999"], "12345"),
        ("", ["99999"], None),
    ],
)
def test_sloppy_postcodes_become_canonical_or_nothing(typed, masks, canonical):
    assert canonical_postcode(typed, masks) == canonical


@given(st.from_regex(r"\A[A-Z]{1,2}[0-9]{1,2} ?[0-9][A-Z]{2}\Z"))
def test_a_canonical_postcode_stays_as_it_is_and_each_beginning_may_become_it(postcode):
    canonical = canonical_postcode(postcode, GB_MASKS)
    assert canonical is not None
    assert canonical_postcode(canonical, GB_MASKS) == canonical
    for end in range(1, len(canonical)):
        if canonical[:end].strip():
            assert may_become(canonical[:end], GB_MASKS)


@pytest.mark.parametrize(
    ("country", "components", "lines"),
    [
        (
            "GB",
            {"unit": "Flat 3", "building": "Fern Court", "number": "12", "street": "Abbey Lane",
             "town": "Brackwater", "postcode": "QV1 4AB"},
            ["Flat 3, Fern Court", "12 Abbey Lane", "BRACKWATER", "QV1 4AB"],
        ),
        ("GB", {"po_box": "12", "town": "Brackwater"}, ["PO Box 12", "BRACKWATER"]),
        ("IE", {"town": "Kilcorran", "region": "Kerry"}, ["KILCORRAN", "Co. Kerry"]),
        (
            "DE",
            {"street": "Lindenstraße", "number": "12a", "unit": "2. OG", "postcode": "00011",
             "town": "Lerchenbruch"},
            ["Lindenstraße 12a // 2. OG", "00011 Lerchenbruch"],
        ),
        ("FR", {"number": "12 bis", "street": "rue des Lilas", "postcode": "96011",
                "town": "Épinoy"}, ["12 bis rue des Lilas", "96011 ÉPINOY"]),
        ("NL", {"street": "Molenweg", "number": "12", "unit": "3", "postcode": "0123 AB",
                "town": "Eikdam"}, ["Molenweg 12-3", "0123 AB EIKDAM"]),
        ("US", {"number": "12", "street": "Oak St", "unit": "Apt 4B", "town": "Cedarton",
                "region": "Vermont", "postcode": "00011"},
         ["12 Oak St, Apt 4B", "Cedarton, VT 00011"]),
        ("US", {"town": "Cedarton", "postcode": "00011"}, ["Cedarton, 00011"]),
        ("CA", {"unit": "4", "number": "210", "street": "Maple Street", "town": "Loon Lake",
                "region_code": "ON", "postcode": "W1A 1A1"},
         ["4-210 Maple Street", "LOON LAKE ON W1A 1A1"]),
        ("BR", {"street": "Rua das Acácias", "number": "120", "unit": "Apto 42",
                "district": "Centro", "town": "Rio Manso", "region_code": "MG",
                "postcode": "00123-010"},
         ["Rua das Acácias, 120 - Apto 42", "Centro", "Rio Manso - MG", "00123-010"]),
        ("JP", {"region": "東京都", "town": "霧谷市", "district": "桜台三丁目", "number": "5-12",
                "postcode": "000-1234", "building": "緑ハイツ", "unit": "203号室"},
         ["〒000-1234", "東京都霧谷市桜台三丁目5-12", "緑ハイツ 203号室"]),
        ("AU", {"unit": "3", "number": "12", "street": "Wattle St", "town": "Iron Flat",
                "region_code": "NSW", "postcode": "0111"},
         ["3/12 Wattle St", "IRON FLAT NSW 0111"]),
        ("GB", {}, []),
    ],
)  # fmt: skip
def test_lines_are_those_of_the_country(layouts, country, components, lines):
    assert write_lines(layouts.require(country), components) == lines


def test_mail_from_abroad_ends_with_the_country(layouts):
    lines = write_lines(layouts.require("FR"), {"town": "Épinoy"}, international=True)
    assert lines == ["ÉPINOY", "FRANCE"]


@given(st.sampled_from(CODES), st.dictionaries(st.sampled_from(COMPONENTS), WORD, max_size=16))
@settings(max_examples=600)
def test_no_set_of_components_leaves_stray_punctuation(code, components):
    layout = shipped_layouts().require(code)
    lines = write_lines(layout, components)
    for line in [*lines, *([one_line(layout, components)] if lines else [])]:
        assert line.strip() == line
        assert line
        assert not re.search(r"^[,;/-]|[,;/-]$|,\s*,|\s,", re.sub(r"  +", " ", line)), line


def test_every_line_is_written_in_the_notation_as_it_is_read(layouts):
    for layout in layouts:
        for line in (line for lines in layout.lines.values() for line in lines):
            assert read_line(written_line(line)) == line


@pytest.mark.parametrize(
    ("line", "reason"),
    [
        ("number stret", "no component 'stret'. Did you mean street"),
        ("[number", "never closed"),
        ("number]", "never opened"),
        ('"PO Box" po_box', "must stand in a bracket"),
        ('["PO Box"]', "at least one component"),
        ("[a [town]]", "no component 'a'"),
        ("[town [street]]", "cannot hold another bracket"),
        (", ", "at least one component"),
        ('["open]', "never closed"),
        ("Town", "Write town or TOWN"),
    ],
)
def test_a_line_that_cannot_be_read_says_why_and_where(line, reason):
    with pytest.raises(NotationError, match=re.escape(reason)) as caught:
        read_line(line)
    assert 0 <= caught.value.position <= len(line)


def test_checking_spells_the_postcode_and_names_what_is_missing(layouts):
    canonical, problems = check_components(
        layouts.require("GB"), {"street": "Abbey Lane", "postcode": "qv14ab"}
    )
    assert canonical["postcode"] == "QV1 4AB"
    assert [(p.pointer, p.detail) for p in problems] == [
        ("town", "United Kingdom needs a Post town here.")
    ]


def test_checking_turns_a_region_name_into_its_code_and_refuses_unknown_ones(layouts):
    us = layouts.require("US")
    base = {"street": "Oak St", "town": "Cedarton", "postcode": "00011"}
    canonical, problems = check_components(us, {**base, "region": "vermont"})
    assert canonical["region_code"] == "VT"
    assert problems == []
    _, problems = check_components(us, {**base, "region": "Vermund"})
    assert [p.pointer for p in problems] == ["region"]
    _, problems = check_components(us, {**base, "region_code": "XX"})
    assert problems[0].detail == "United States has no region with the code 'XX'."


def test_a_wrong_postcode_is_shown_the_masks(layouts):
    _, problems = check_components(
        layouts.require("DE"), {"street": "W", "town": "X", "postcode": "1234"}
    )
    assert "looks like 99999" in problems[0].detail


def test_labels_follow_the_language_and_fall_back_to_english(layouts):
    asked = layouts.require("DE").component("street")
    assert asked is not None
    assert (asked.label("de-AT"), asked.label("xx")) == ("Straße", "Street")


def test_an_unknown_country_is_answered_with_the_nearest(layouts):
    with pytest.raises(UnknownNameError, match="no layout for country 'XX'"):
        layouts.require("XX")


@pytest.mark.parametrize(
    ("country", "postcode", "detail"),
    [
        ("HK", "999077", "Hong Kong has no postcodes: leave it empty."),
        ("AE", "00000", "has no postcodes"),
        ("CA", "D1A 1B1", "never begins with D or F or I"),
        ("CA", "Z1A 1B1", "or Z"),
        ("IE", "B12 A3C4", "never begins with B or G"),
        ("GB", "X1 1AA", "never begins with V or X"),
    ],
)
def test_a_postcode_that_a_post_never_gives_out_is_a_problem(country, postcode, detail):
    layout = shipped_layouts().require(country)
    _, problems = check_components(layout, {"street": "x", "town": "y", "postcode": postcode})
    assert [p.pointer for p in problems if detail in p.detail] == ["postcode"]


@pytest.mark.parametrize(
    ("country", "postcode"),
    [("CA", "W1A 1B1"), ("CA", "A1Z 1Z1"), ("IE", "Q12 A3C4"), ("GB", "QV1 1AA"), ("GB", "M1 1AE")],
)
def test_a_postcode_that_a_post_may_give_out_is_none(country, postcode):
    assert spelt_postcode(shipped_layouts().require(country), postcode) == postcode


def test_every_component_has_a_label_in_every_layout_whether_it_is_asked_for_or_not():
    for layout in shipped_layouts():
        for language in ("en", *layout.languages, "xx"):
            for name in COMPONENTS:
                asked = layout.component(name)
                label = asked.label(language) if asked else usual_label(name, language)
                assert label.strip(), (layout.country_code, name, language)


@pytest.mark.parametrize(
    ("country", "wanted", "language"),
    [
        ("FR", ["fr-BE", "en"], "fr-BE"), ("FR", ["de", "en"], "en"), ("CH", ["it-CH"], "it-CH"),
        ("EG", ["ar-EG", "en"], "ar-EG"), ("GB", ["ar"], "en"), ("GB", [], "en"),
    ],
)  # fmt: skip
def test_labels_are_in_the_first_wanted_language_that_there_is(country, wanted, language):
    assert shipped_layouts().require(country).first_language(wanted) == language


@pytest.mark.parametrize(
    ("country", "components", "unused"),
    [
        ("DE", {"region": "Mechin"}, []),  # it has regions, though mail names none
        ("SG", {"region": "Mechin"}, ["region"]),
        ("SG", {"region_code": "01"}, ["region_code"]),
        ("US", {"region": "Mechin", "region_code": "VT"}, []),
        ("GB", {"country": "x", "country_code": "GB"}, []),
    ],
)
def test_what_a_layout_has_no_place_for_is_named(layouts, country, components, unused):
    layout = layouts.require(country)
    has_place = bool(layout.regions) or any(
        layout.component(name) for name in ("region", "region_code")
    )
    if country == "DE" and not has_place:
        unused = ["region"]
    assert [one.component for one in unused_components(layout, components)] == unused


def test_a_country_with_one_region_does_not_ask_for_it(layouts):
    counts = {0: 0, 1: 0, 2: 0}
    for layout in layouts:
        asks = any(layout.component(name) for name in ("region", "region_code"))
        counts[min(2, len(layout.regions))] += asks
        assert not (asks and len(layout.regions) == 1), layout.country_code
    assert counts[2] > 20


def test_components_whose_lines_hang_on_a_designator_are_named(layouts):
    assert designated_components(layouts.require("GB")) >= {"po_box"}
    plain = [x for x in layouts if x.called_unit]
    assert plain, "some write a unit with and without its word"
    assert all("unit" in designated_components(x) for x in plain)


@pytest.mark.parametrize(
    ("country", "left_out", "reason"),
    [
        ("HK", "postcode", "has no postcodes."),
        ("GB", "country", "Only mail from abroad names the country."),
    ],
)
def test_why_a_component_is_left_out_is_said(layouts, country, left_out, reason):
    (one,) = write_out(layouts.require(country), {"town": "Marl", left_out: "x"}).left_out
    assert (one.component, one.reason.endswith(reason)) == (left_out, True), one


def test_a_postcode_that_a_country_has_and_does_not_write_is_not_said_to_be_unknown(layouts):
    for layout in layouts:
        written = write_out(layout, {"town": "Marl", "postcode": "XX 99"})
        for one in written.left_out:
            if one.component == "postcode":
                has = bool(layout.masks) or layout.component("postcode") is not None
                assert one.reason.endswith("has no postcodes.") != has, layout.country_code


@pytest.mark.parametrize(
    ("country", "town", "language"),
    [
        ("JP", "Kiryu", "en"),
        ("JP", "桐生", "ja"),
        ("TW", "Taipei", "en"),
        ("GB", "Marl", "en"),
        ("DE", "Marl", "de"),
        ("BE", "Marl", ""),
        ("EG", "Marl", ""),
        ("EG", "القاهرة", "ar"),
        ("PK", "Marl", "en"),
        ("PK", "لاہور", "ur"),
        ("CA", "Marl", ""),
    ],
)
def test_lines_are_of_the_language_that_they_can_only_be_of(layouts, country, town, language):
    assert language_of(layouts.require(country), {"town": town}) == language


def test_a_country_is_named_in_the_nearest_of_its_languages(layouts):
    with_own = [(x, language) for x in layouts for language in x.names if "-" not in language]
    assert with_own
    for layout, language in with_own:
        assert layout.name_in(f"{language}-ZZ") == layout.names[language]
