"""The layouts of all countries: their files, and what they write."""

import json
import re
from importlib import resources
from itertools import pairwise

import pytest
from babel import Locale
from hypothesis import given
from hypothesis import strategies as st
from jsonschema_rs import Draft202012Validator

from anchorline.core.address import COMPONENTS
from anchorline.core.layouts import check_components, shipped_layouts, spelt_postcode, write_lines
from anchorline.core.layouts.postcodes import regions_of_postcode, well_formed_spans
from anchorline.yaml_documents import read_yaml

PACKAGE = resources.files("anchorline.core.layouts")
FILES = sorted(f for f in (PACKAGE / "data").iterdir() if re.fullmatch("[A-Z]{2}.yaml", f.name))
LAYOUTS = {layout.country_code: layout for layout in shipped_layouts()}
# Codes that CLDR names beside those of ISO 3166-1: reserved ones, and groups of countries.
NOT_ISO = {"AC", "CP", "CQ", "DG", "EA", "EU", "EZ", "IC", "QO", "TA", "UN", "XA", "XB", "XK", "ZZ"}
NATIVE = {
    "": {"town": "Brackwater", "street": "Abbey Lane", "number": "12", "unit": "3",
         "building": "Fern Court", "district": "Northside", "recipient": "Ana Vale",
         "organisation": "Vale Pianos", "place": "Kiln Hall", "po_box": "77"},
    "Jpan": {"town": "橋水市", "district": "北町", "number": "1-2-3", "building": "羊歯ビル",
             "unit": "304", "recipient": "谷あな", "organisation": "谷楽器", "po_box": "77"},
    "Hans": {"town": "桥水市", "street": "修院路", "number": "12号", "unit": "3室",
             "recipient": "谷安娜", "organisation": "谷琴行", "po_box": "77"},
    "Hant": {"town": "橋水區", "street": "修院路", "number": "12號", "unit": "3樓",
             "recipient": "谷安娜", "organisation": "谷琴行", "po_box": "77"},
    "Hebr": {"town": "ברק", "street": "המנזר", "number": "12", "building": "בית השרך",
             "unit": "3", "recipient": "ענת ואל", "organisation": "פסנתרי ואל", "po_box": "77"},
    "Kore": {"town": "교수구", "street": "수도원로", "number": "12", "building": "고사리빌딩",
             "unit": "304호", "recipient": "곡아나", "organisation": "곡피아노", "po_box": "77"},
}  # fmt: skip
# What no line may hold, whatever is missing: a sign at an end, two in a row, blanks before one.
STRAY = re.compile(r"^[\s,;:/.#-]|[\s,;:/#-]$|\s\s|\s,|,[,;/-]|\(\)|\n")


def document(file):
    return read_yaml(file.read_bytes())


def postcode_of(layout):
    """A postcode that fits the first mask and begins as it must."""
    mask = layout.masks[0]
    digits = "".join({"9": "1", "A": "K", "*": "2"}.get(sign, sign) for sign in mask)
    start = layout.postcode_starts[0] if layout.postcode_starts else ""
    rest = iter(start)
    return "".join(next(rest, sign) if sign.isalnum() else sign for sign in digits)


def test_every_country_of_iso_3166_has_a_file():
    known = {code for code in Locale("en").territories if re.fullmatch("[A-Z]{2}", code)}
    assert {file.name[:2] for file in FILES} == known - NOT_ISO
    assert len(FILES) == 249


@pytest.mark.parametrize("file", FILES, ids=lambda file: file.name)
def test_a_file_fits_the_schema_and_is_named_after_its_country(file):
    schema = json.loads((PACKAGE / "layout.schema.json").read_text("utf-8"))
    problems = Draft202012Validator(schema).iter_errors(document(file))
    assert [f"{'/'.join(map(str, p.instance_path))}: {p.message}" for p in problems] == []
    assert document(file)["country_code"] == file.name[:2]


@pytest.mark.parametrize("layout", LAYOUTS.values(), ids=lambda layout: layout.country_code)
def test_a_layout_is_whole_in_itself(layout):
    asked = [entry.component for entry in layout.components]
    assert len(asked) == len(set(asked))
    assert layout.component("town").required
    written = {name for name in COMPONENTS if layout_writes(layout, name)}
    assert set(asked) <= written | {"region", "region_code"}, "asked for and never written"
    assert ("postcode" in asked) == bool(layout.masks), "a postcode has masks"
    for entry in layout.components:
        assert all(label.strip() for label in entry.labels.values())
    assert len({region.code for region in layout.regions}) == len(layout.regions)
    assert len({region.name for region in layout.regions}) == len(layout.regions)
    assert all(well_formed_spans(region.postcodes) for region in layout.regions)
    if layout.post_of:
        assert not LAYOUTS[layout.post_of].post_of


def layout_writes(layout, component):
    return any(
        f"<{component}>" in line.casefold()
        for script in layout.lines
        for line in write_lines(
            layout, {component: f"<{component}>", **({"street": "商"} if script else {})}
        )
    )


def given_components(layout, script):
    components = dict(NATIVE[script])
    if layout.regions:
        region = layout.regions[-1]
        components["region"] = region.name if script else region.latin
    elif layout.component("region"):
        components["region"] = "Brackshire"
    if layout.masks:
        components["postcode"] = postcode_of(layout)
    return components


@pytest.mark.parametrize("international", [False, True])
@pytest.mark.parametrize("layout", LAYOUTS.values(), ids=lambda layout: layout.country_code)
def test_full_minimal_and_partial_addresses_have_no_stray_punctuation(layout, international):
    for script in layout.lines:
        full = given_components(layout, script)
        minimal = {name: full[name] for name in full if name in ("town", "street")}
        lacking = [{k: v for k, v in full.items() if k != name} for name in full]
        for components in (full, minimal, *lacking, *({name: full[name]} for name in full)):
            lines = write_lines(layout, components, international=international)
            assert all(line == line.strip() and line for line in lines)
            for line in lines:
                # A mark of numbers, and Germany's slashes before a unit, belong to their values.
                plain = line.replace(" // ", " ").removeprefix("#").removeprefix("〒")
                assert not STRAY.search(plain), (components, line)
        whole = " ".join(write_lines(layout, full)).casefold()
        for asked in layout.components:
            value = full.get(asked.component, "")
            assert value.casefold() in whole, (asked.component, whole)


@given(st.data())
def test_whatever_is_given_no_line_is_empty_or_has_stray_signs(data):
    layout = data.draw(st.sampled_from(sorted(LAYOUTS.values(), key=lambda x: x.country_code)))
    script = data.draw(st.sampled_from(list(layout.lines)))
    full = given_components(layout, script)
    names = data.draw(st.sets(st.sampled_from(sorted(full))))
    lines = write_lines(layout, {name: full[name] for name in names})
    for line in lines:
        plain = line.replace(" // ", " ").removeprefix("#").removeprefix("〒")
        assert not STRAY.search(plain), (names, line)


@pytest.mark.parametrize(
    "layout", [x for x in LAYOUTS.values() if x.masks], ids=lambda layout: layout.country_code
)
def test_a_postcode_is_spelt_one_way_and_stays_so(layout):
    postcode = postcode_of(layout)
    assert spelt_postcode(layout, postcode) == postcode
    sloppy = " " + postcode.replace(" ", "").replace("-", " ").lower()
    assert spelt_postcode(layout, sloppy) == postcode
    wide = "".join(chr(ord(c) + 0xFEE0) if c.isalnum() else c for c in postcode)
    assert spelt_postcode(layout, wide) == postcode
    if postcode[0].isdigit():
        assert spelt_postcode(layout, f"{layout.country_code}-{postcode}") == postcode
    assert spelt_postcode(layout, postcode + "0000000") is None


@pytest.mark.parametrize(
    ("country", "typed", "spelt"),
    [
        ("DE", "D-10115", "10115"),
        ("SE", "S-11122", "111 22"),
        ("MD", "2012", "MD-2012"),
        ("LU", "1648", "L-1648"),
        ("LV", "LV1011", "LV-1011"),
        ("RE", "97400", "97400"),
        ("RE", "75001", None),
        ("GG", "gy11aa", "GY1 1AA"),
        ("GG", "sw1a1aa", None),
        ("PR", "00901-1234", "00901-1234"),
        ("PR", "90210", None),
        ("NL", "1234ab", "1234 AB"),
        ("PT", "1000001", "1000-001"),
        ("JP", "〒１００−０００１", "100-0001"),
    ],
)
def test_prefixes_and_beginnings(country, typed, spelt):
    assert spelt_postcode(LAYOUTS[country], typed) == spelt


@pytest.mark.parametrize(
    ("country", "region", "right", "wrong"),
    [
        ("US", "California", "94016", "10001"),
        ("CA", "ON", "K1A 0B1", "V5K 0A1"),
        ("AU", "VIC", "3000", "4000"),
        ("ES", "Málaga", "29001", "08001"),
        ("TR", "İzmir", "35220", "34430"),
        ("MX", "Jalisco", "44100", "97000"),
        ("BR", "São Paulo", "01310-100", "20040-002"),
        ("CN", "广东省", "510000", "100000"),
    ],
)
def test_a_postcode_of_another_region_is_a_problem_that_says_which(country, region, right, wrong):
    layout = LAYOUTS[country]
    named = layout.region_by_name(region) or layout.region_by_code(region)
    components = {"street": "Oak Street", "town": "Cedarton", "region_code": named.code}
    _, problems = check_components(layout, components | {"postcode": right})
    assert [p.pointer for p in problems if p.pointer == "postcode"] == []
    _, problems = check_components(layout, components | {"postcode": wrong})
    (problem,) = [p for p in problems if p.pointer == "postcode"]
    assert named.latin in problem.detail
    assert regions_of_postcode(layout, wrong)[0].latin in problem.detail


@pytest.mark.parametrize("layout", LAYOUTS.values(), ids=lambda layout: layout.country_code)
def test_spans_of_regions_do_not_overlap_where_each_postcode_has_one_region(layout):
    spans = sorted(
        (span.partition("-")[0], span.partition("-")[2] or span.partition("-")[0], region.code)
        for region in layout.regions
        for span in region.postcodes
    )
    for (_, last, one), (first, _, other) in pairwise(spans):
        if len(last) == len(first) and one != other:
            # Canada's northern territories share a letter, two states of Australia some towns.
            assert last < first or layout.country_code in ("AU", "CA"), (one, other)
