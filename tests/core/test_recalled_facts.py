"""The 60 countries with the most mail, against facts written down without a look at their files."""

import pytest

from anchorline.core.layouts import shipped_layouts, written_line
from anchorline.core.layouts.model import component_names

LAYOUTS = shipped_layouts()
# Country; masks; the number (N) or the street (S) first; the postcode before (B) or after (A) the
# town on its line, on the last line (L) or nowhere (-); a region in the lines (R) or none (-);
# whether the town is in capitals. Empty where that was not recalled, or depends on the script.
RECALLED = [
    ("US", "99999, 99999-9999", "N", "A", "R", False),
    ("JP", "999-9999", "", "", "", False),
    ("DE", "99999", "S", "B", "-", False),
    ("GB", "", "N", "L", "-", True),
    ("FR", "99999", "N", "B", "-", True),
    ("IN", "999999", "N", "A", "R", False),
    ("CN", "999999", "", "", "", False),
    ("BR", "99999-999", "S", "L", "R", False),
    ("CA", "A9A 9A9", "N", "A", "R", True),
    ("IT", "99999", "S", "B", "R", True),
    ("ES", "99999", "S", "B", "", True),
    ("AU", "9999", "N", "A", "R", True),
    ("RU", "999999", "S", "L", "R", False),
    ("NL", "9999 AA", "S", "B", "-", True),
    ("CH", "9999", "S", "B", "-", False),
    ("KR", "99999", "", "", "", False),
    ("MX", "99999", "S", "B", "R", False),
    ("PL", "99-999", "S", "B", "-", False),
    ("SE", "999 99", "S", "B", "-", True),
    ("BE", "9999", "S", "B", "-", False),
    ("AT", "9999", "S", "B", "-", False),
    ("TR", "99999", "S", "B", "R", False),
    ("ID", "99999", "S", "A", "R", False),
    ("ZA", "9999", "N", "L", "-", False),
    ("TW", "", "", "", "", False),
    ("HK", "", "", "-", "", False),
    ("SG", "999999", "N", "A", "-", True),
    ("MY", "99999", "N", "B", "R", False),
    ("TH", "99999", "N", "L", "R", False),
    ("VN", "99999, 999999", "N", "A", "R", False),
    ("PH", "9999", "N", "B", "R", False),
    ("NO", "9999", "S", "B", "-", True),
    ("DK", "9999", "S", "B", "-", False),
    ("FI", "99999", "S", "B", "-", True),
    ("PT", "9999-999", "S", "B", "-", True),
    ("GR", "999 99", "S", "B", "-", True),
    ("CZ", "999 99", "S", "B", "-", False),
    ("HU", "9999", "S", "L", "-", False),
    ("RO", "999999", "S", "B", "R", False),
    ("IE", "", "N", "L", "R", False),
    ("IL", "", "", "", "-", False),
    ("AE", "", "", "-", "R", False),
    ("SA", "99999, 99999-9999", "N", "A", "-", False),
    ("EG", "99999", "N", "L", "R", False),
    ("NG", "999999", "N", "A", "R", False),
    ("KE", "99999", "N", "", "-", False),
    ("MA", "99999", "N", "B", "-", False),
    ("AR", "A9999AAA, 9999", "S", "B", "R", False),
    ("CL", "9999999", "S", "B", "R", False),
    ("CO", "999999", "S", "", "R", False),
    ("PE", "99999", "S", "", "R", False),
    ("NZ", "9999", "N", "A", "-", False),
    ("UA", "99999", "S", "L", "R", False),
    ("PK", "99999", "N", "A", "", False),
    ("BD", "9999", "N", "A", "-", False),
    ("LK", "99999", "N", "L", "-", False),
    ("SK", "999 99", "S", "B", "-", False),
    ("BG", "9999", "S", "B", "-", False),
    ("HR", "99999", "S", "B", "-", False),
    ("SI", "9999", "S", "B", "-", False),
]  # fmt: skip
REGIONS = {
    "AE": 7, "AR": 24, "AU": 8, "BR": 27, "CA": 13, "CL": 16, "CO": 33, "EG": 27, "ES": 52,
    "HK": 3, "ID": 38, "IE": 26, "IN": 36, "IT": 107, "JP": 47, "KR": 17, "MX": 32, "MY": 16,
    "NG": 37, "PH": 83, "PK": 7, "RO": 42, "TH": 77, "TR": 81, "TW": 22, "UA": 27, "US": 59,
}  # fmt: skip


def names_of_lines(country):
    return [component_names(line) for line in LAYOUTS.require(country).lines[""]]


def place_of_postcode(lines):
    for at, names in enumerate(lines):
        if "postcode" in names and "town" in names:
            return "B" if names.index("postcode") < names.index("town") else "A"
        if "postcode" in names:
            return "L" if at == len(lines) - 1 else "own line"
    return "-"


@pytest.mark.parametrize(
    ("country", "masks", "first", "postcode", "region", "capitals"), RECALLED, ids=lambda v: str(v)
)
def test_the_layout_is_as_recalled(country, masks, first, postcode, region, capitals):
    layout, lines = LAYOUTS.require(country), names_of_lines(country)
    if masks:
        assert set(masks.split(", ")) <= set(layout.masks)
    if first:
        assert layout.number_first == (first == "N")
    if postcode:
        assert place_of_postcode(lines) == postcode
    if region:
        named = any(name in ("region", "region_code") for names in lines for name in names)
        assert named == (region == "R")
    if capitals:
        assert any("TOWN" in written_line(line) for line in layout.lines[""])


@pytest.mark.parametrize(("country", "count"), REGIONS.items())
def test_there_are_as_many_regions_as_recalled(country, count):
    assert len(LAYOUTS.require(country).regions) == count
