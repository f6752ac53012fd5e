"""A law for all countries: what is given is in the lines, or is named as left out, with a reason."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anchorline.core.address import COMPONENTS
from anchorline.core.layouts import shipped_layouts, write_lines, write_out
from anchorline.core.layouts.model import component_names
from anchorline.core.text import fold

LAYOUTS = {layout.country_code: layout for layout in shipped_layouts()}
CODES = sorted(LAYOUTS)
# No value is part of another, and none says what it is.
VALUES = {
    "recipient": "Ana Vale", "organisation": "Quill Pianos", "place": "Zinc Hall", "unit": "7k",
    "building": "Fern Court", "number": "4812", "street": "Abbey Lane", "po_box": "5539",
    "district": "Northside", "town": "Brackwater", "region": "Mechinshire", "region_code": "JXZ",
    "nation": "Westland", "postcode": "XX 99", "country": "Somewhere", "country_code": "QQ",
}  # fmt: skip


def are_accounted_for(layout, components, **how):
    written = write_out(layout, components, **how)
    assert written.lines == write_lines(layout, components, **how)
    text = "\n".join(written.lines).casefold()
    left_out = {one.component: one for one in written.left_out}
    for name, value in components.items():
        assert (value.casefold() in text) != (name in left_out), (name, written)
    for one in written.left_out:
        assert one.value == components[one.component]
        assert one.reason.endswith(".")
        assert layout.name in one.reason or "region" in one.reason or "countr" in one.reason


@pytest.mark.parametrize("code", CODES)
def test_every_component_alone_and_all_but_one_are_accounted_for(code):
    layout = LAYOUTS[code]
    assert set(VALUES) == set(COMPONENTS)
    are_accounted_for(layout, VALUES)
    are_accounted_for(layout, VALUES, international=True)
    for name in COMPONENTS:
        are_accounted_for(layout, {name: VALUES[name]})
        are_accounted_for(layout, {k: v for k, v in VALUES.items() if k != name})


@settings(max_examples=600)
@given(st.sampled_from(CODES), st.sets(st.sampled_from(COMPONENTS)), st.booleans())
def test_any_subset_is_accounted_for_in_any_country(code, names, international):
    are_accounted_for(
        LAYOUTS[code], {name: VALUES[name] for name in names}, international=international
    )


@settings(max_examples=300)
@given(st.sampled_from([c for c in CODES if len(LAYOUTS[c].regions) > 1]), st.data())
def test_a_region_is_accounted_for_by_its_name_and_its_code(code, data):
    layout = LAYOUTS[code]
    region = data.draw(st.sampled_from(layout.regions))
    for names in (("region",), ("region_code",), ("region", "region_code")):
        given = {"region": region.name, "region_code": region.code}
        components = {name: given[name] for name in names}
        written = write_out(layout, components)
        text = fold(" ".join(written.lines))
        for name in names:
            left_out = [one.component for one in written.left_out]
            assert fold(components[name]) in text or name in left_out


@pytest.mark.parametrize(
    ("country", "components", "line"),
    [
        ("HK", {"district": "Wan Chai", "region": "Hong Kong Island"}, "Wan Chai"),
        ("PT", {"district": "Vila Verde", "town": "Lisboa"}, "Vila Verde"),
        ("LV", {"town": "Sigulda", "region": "Siguldas novads", "postcode": "LV-2150"},
         "SIGULDA, Siguldas novads, LV-2150"),
        ("BB", {"town": "Oistins", "region": "Christ Church", "postcode": "BB17000"},
         "OISTINS, Christ Church, BB17000"),
        ("MX", {"town": "Oaxaca", "region": "Estado de México", "postcode": "68000"},
         "68000 OAXACA, Estado de México"),
        ("US", {"town": "Cedarton", "region": "Mechin", "postcode": "00011"},
         "Cedarton, Mechin 00011"),
        ("PR", {"district": "Las Gladiolas"}, "URB Las Gladiolas"),
        ("NL", {"district": "Centrum"}, None),
        ("DE", {"region": "Bayern"}, None),
    ],
)  # fmt: skip
def test_countries_write_a_district_and_a_region_where_their_post_does(country, components, line):
    lines = write_lines(LAYOUTS[country], {"street": "Abbey Lane", **components})
    if line is None:
        assert not any(value in written for value in components.values() for written in lines)
    else:
        assert line in lines


def test_reasons_say_how_a_thing_is_written_instead():
    written = write_out(LAYOUTS["US"], {"town": "X", "region": "Vermont", "country": "USA"})
    assert [(one.component, one.reason) for one in written.left_out] == [
        ("region", "The region is written as “VT”."),
        ("country", "Only mail from abroad names the country."),
    ]
    written = write_out(LAYOUTS["HK"], {"town": "X", "postcode": "999077"}, international=True)
    assert [one.reason for one in written.left_out] == ["Hong Kong has no postcodes."]
    written = write_out(LAYOUTS["DE"], {"town": "X", "country": "Allemagne"}, international=True)
    assert [one.reason for one in written.left_out] == ["The country is written as “GERMANY”."]


def test_every_component_that_is_asked_for_is_written_in_one_script_or_by_its_pair():
    for layout in LAYOUTS.values():
        named = {
            n for lines in layout.lines.values() for line in lines for n in component_names(line)
        }
        if named & {"region", "region_code"}:
            named |= {"region", "region_code"}
        assert {asked.component for asked in layout.components} <= named, layout.country_code


@pytest.mark.parametrize(
    ("country", "town", "written"),
    [
        ("TR", "Çeşmeli", "ÇEŞMELİ"), ("TR", "Iğdır", "IĞDIR"), ("TR", "Marl", "MARL"), ("GR", "Αθήνα", "ΑΘΗΝΑ"),
        ("DE", "Gießen", "Gießen"), ("FR", "Orléans", "ORLÉANS"),
    ],
)  # fmt: skip
def test_capitals_are_those_of_the_countrys_language(country, town, written):
    layout = LAYOUTS[country]
    if country == "TR":  # writes its provinces in capitals
        assert write_lines(layout, {"town": "X", "region": town}) == [f"X/{written}"]
    else:
        assert write_lines(layout, {"town": town}) == [written]
