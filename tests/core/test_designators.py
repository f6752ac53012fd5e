"""A part that says itself what it is gets no second word: designators × countries, and numbers."""

import pytest

from anchorline.core.layouts import shipped_layouts, write_lines
from anchorline.core.layouts.designators import begins_or_ends_with

LAYOUTS = {layout.country_code: layout for layout in shipped_layouts()}
BASE = {"street": "Abbey", "town": "Marl"}


def written(country, **components):
    return write_lines(LAYOUTS[country], components, capitals=False)


BARE_AND_CALLED = [
    # Country, component, bare value and its line, values that say what they are and their lines.
    ("IE", "region", "Kerry", "Co. Kerry",
     {"Co. Kerry": "Co. Kerry", "co Kerry": "co Kerry", "County Kerry": "County Kerry",
      "Contae Chiarraí": "Contae Chiarraí"}),
    ("SG", "unit", "05-17", "Abbey #05-17", {"#05-17": "Abbey #05-17"}),
    ("BE", "unit", "3", "Abbey bte 3",
     {"bte 3": "Abbey bte 3", "bus 3": "Abbey bus 3", "boîte 3": "Abbey boîte 3"}),
    ("TR", "number", "5", "Abbey No:5",
     {"No:5": "Abbey No:5", "No. 5": "Abbey No. 5", "Numara 5": "Abbey Numara 5"}),
    ("BH", "number", "12", "Building 12, Road Abbey",
     {"Building 12": "Building 12, Road Abbey", "Bldg 12": "Bldg 12, Road Abbey",
      "مبنى 12": "مبنى 12, Road Abbey"}),
    ("KW", "district", "4", "Block 4, Abbey",
     {"Block 4": "Block 4, Abbey", "قطعة 4": "قطعة 4, Abbey"}),
    ("QA", "district", "25", "Zone 25", {"Zone 25": "Zone 25", "منطقة 25": "منطقة 25"}),
    ("QA", "building", "9", "Building 9", {"Building 9": "Building 9", "Bldg 9": "Bldg 9"}),
    ("MX", "unit", "3", "Abbey Int. 3",
     {"Int. 3": "Abbey Int. 3", "Depto. 3": "Abbey Depto. 3", "interior 3": "Abbey interior 3"}),
    ("PR", "district", "Las Lomas", "URB Las Lomas",
     {"URB Las Lomas": "URB Las Lomas", "Urb. Las Lomas": "Urb. Las Lomas",
      "Urbanización Las Lomas": "Urbanización Las Lomas"}),
]  # fmt: skip
BOXES = {
    "GB": ("PO Box", ["P.O. Box 12", "po box 12", "Box 12"]),
    "ZA": ("PO Box", ["Private Bag X12"]),
    "DE": ("Postfach", ["postfach 12", "PO Box 12", "Postfach-Nr. 12"]),
    "CH": ("Postfach", ["Case postale 12", "Casella postale 12", "CP 12"]),
    "FR": ("BP", ["B.P. 12", "bp 12", "Boîte postale 12", "CS 12"]),
    "NL": ("Postbus", ["postbus 12"]),
    "IT": ("Casella postale", ["C.P. 12", "casella postale 12"]),
    "ES": ("Apartado", ["Apdo. 12", "Apartado de correos 12"]),
    "PT": ("Apartado", ["apartado 12"]),
    "BR": ("Caixa Postal", ["CAIXA POSTAL 12", "CP 12"]),
    "MX": ("Apartado postal", ["Apdo. Postal 12", "A.P. 12"]),
    "AR": ("Casilla de correo", ["Casilla 12"]),
    "CO": ("Apartado aéreo", ["Apartado Aéreo 12"]),
    "SE": ("Box", ["BOX 12"]),
    "NO": ("Postboks", ["Pb. 12", "postboks 12"]),
    "FI": ("PL", ["PL 12", "Postilokero 12"]),
    "PL": ("skr. poczt.", ["skrytka pocztowa 12", "skr. poczt. 12"]),
    "CZ": ("P. O. BOX", ["PO Box 12", "Pošt. přihrádka 12"]),
    "HU": ("Pf.", ["Pf. 12", "postafiók 12"]),
    "RU": ("а/я", ["а/я 12", "абонентский ящик 12"]),
    "UA": ("а/с", ["а/с 12"]),
    "BG": ("П.К.", ["п.к. 12", "Пощенска кутия 12"]),
    "GR": ("Τ.Θ.", ["ΤΘ 12", "τ.θ. 12"]),
    "TR": ("P.K.", ["PK 12", "Posta kutusu 12"]),
    "EG": ("P.O. Box", ["ص.ب 12", "صندوق البريد 12"]),
    "VN": ("Hộp thư", ["Hộp thư 12"]),
}


@pytest.mark.parametrize(
    ("country", "component", "value", "line"),
    [
        (country, component, value, line)
        for country, component, bare, bare_line, called in BARE_AND_CALLED
        for value, line in ({bare: bare_line} | called).items()
    ],
)
def test_a_designator_is_written_once(country, component, value, line):
    assert line in written(country, **{**BASE, component: value})


@pytest.mark.parametrize("country", BOXES)
def test_a_po_box_is_called_so_once(country):
    words, called = BOXES[country]
    assert f"{words} 12" in written(country, town="Marl", po_box="12")
    for value in called:
        assert value in written(country, town="Marl", po_box=value)


@pytest.mark.parametrize(
    ("country", "unit", "line"),
    [
        ("PL", "3", "Abbey 12/3"), ("PL", "m. 3", "Abbey 12 m. 3"), ("PL", "lok. 3", "Abbey 12 lok. 3"),
        ("AU", "3", "3/12 Abbey"), ("AU", "Flat 3", "Flat 3 12 Abbey"), ("AU", "Unit 3", "Unit 3 12 Abbey"),
        ("NZ", "3", "3/12 Abbey"), ("NZ", "Flat 3", "Flat 3, 12 Abbey"),
        ("CA", "4", "4-12 Abbey"), ("CA", "Apt 4", "12 Abbey Apt 4"), ("CA", "app. 4", "12 Abbey app. 4"),
        ("CA", "# 4", "12 Abbey # 4"),
        ("NL", "B", "Abbey 12-B"), ("NL", "App. 3", "Abbey 12 App. 3"),
        ("EE", "3", "Abbey 12-3"), ("EE", "krt 3", "Abbey 12, krt 3"),
        ("LT", "3", "Abbey 12-3"), ("LT", "bt. 3", "Abbey 12, bt. 3"),
        ("LV", "3", "Abbey 12-3"), ("LV", "dz. 3", "Abbey 12, dz. 3"),
        ("DE", "3", "Abbey 12 // 3"), ("DE", "Whg. 3", "Abbey 12 // Whg. 3"),
        ("BR", "Apto 3", "Abbey, 12 - Apto 3"),
        ("AU", "Flat", "Flat/12 Abbey"),
    ],
)  # fmt: skip
def test_a_unit_that_says_what_it_is_stands_where_the_post_wants_it(country, unit, line):
    assert line in written(country, number="12", unit=unit, **BASE)


# Street and number as they are remembered of 60 countries, without a look at their files.
NUMBERS = (
    """
AD Abbey, 12|AE 12 Abbey|AR Abbey 12|AT Abbey 12|AU 12 Abbey|BD 12 Abbey|BE Abbey 12|BG Abbey 12
BR Abbey, 12|CA 12 Abbey|CH Abbey 12|CL Abbey 12|CO Abbey 12|CZ Abbey 12|DE Abbey 12|DK Abbey 12
EC Abbey 12|EE Abbey 12|EG 12 Abbey|ES Abbey, 12|FI Abbey 12|FR 12 Abbey|GB 12 Abbey|GR Abbey 12
HK 12 Abbey|HR Abbey 12|HU Abbey 12|ID Abbey 12|IE 12 Abbey|IL 12 Abbey|IN 12 Abbey|IS Abbey 12
IT Abbey 12|JM 12 Abbey|KE 12 Abbey|KR 12, Abbey|LI Abbey 12|LK 12 Abbey|LT Abbey 12|LU 12, Abbey
LV Abbey 12|MA 12 Abbey|MC 12 Abbey|MT 12, Abbey|MX Abbey 12|MY 12, Abbey|NG 12 Abbey|NL Abbey 12
NO Abbey 12|NZ 12 Abbey|PE Abbey 12|PL Abbey 12|PT Abbey 12|RO Abbey 12|RS Abbey 12|RU Abbey, 12
SE Abbey 12|SG 12 Abbey|SI Abbey 12|SK Abbey 12|TW 12, Abbey|UA Abbey, 12|US 12 Abbey|UY Abbey 12
VE Abbey 12|ZA 12 Abbey
""".replace("\n", "|")
    .strip("|")
    .split("|")
)


@pytest.mark.parametrize("fact", NUMBERS)
def test_street_and_number_stand_as_they_are_remembered(fact):
    country, line = fact.split(" ", 1)
    assert line in written(country, number="12", **BASE)


def test_hebrew_and_latin_lines_of_israel_put_the_number_on_their_own_side():
    assert "12 Herzl" in written("IL", number="12", street="Herzl", town="Haifa")
    assert "הרצל 12" in written("IL", number="12", street="הרצל", town="חיפה")


def test_latin_lines_of_taiwan():
    lines = written(
        "TW", unit="5F", number="No. 12", street="Xinyi Rd.", town="Da'an Dist.",
        region="Taipei City", postcode="106",
    )  # fmt: skip
    assert lines == ["5F, No. 12, Xinyi Rd.", "Da'an Dist., Taipei City 106"]


def test_honorifics_and_marks_are_written_once():
    lines = written("JP", recipient="谷 葵様", town="橋水市", postcode="〒100-0001")
    assert "谷 葵様" in lines
    assert not any("様様" in line or "〒〒" in line for line in lines)


@pytest.mark.parametrize(
    ("value", "words", "has"),
    [
        ("PO Box 12", "PO Box", True), ("12 PO Box", "PO Box", True), ("PO Box", "PO Box", False),
        ("Boxwood 12", "Box", False), ("#5", "#", True), ("#", "#", False), ("5", "", False),
    ],
)  # fmt: skip
def test_words_are_recognised_whole_at_either_end(value, words, has):
    assert begins_or_ends_with(value, words) is has
