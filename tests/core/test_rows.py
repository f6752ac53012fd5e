import pytest

from anchorline.core.gazetteer import Row, RowFault, read_rows
from anchorline.core.gazetteer.rows import HeaderError, unknown_columns

HEADER = "id,country_code,street,town,postcode,latitude,longitude,use\r\n"


def read(text, layouts, **options):
    return list(read_rows(text.splitlines(keepends=True), layouts, **options))


def test_a_good_row_is_read_with_blanks_folded(layouts):
    (row,) = read(HEADER + "a1,gb, Abbey  Lane ,Brackwater,QV1 4AB,52.5,-1.5,public\r\n", layouts)
    assert row == Row(
        "a1", "GB", {"street": "Abbey Lane", "town": "Brackwater", "postcode": "QV1 4AB"},
        "", 52.5, -1.5, "public",
    )  # fmt: skip


@pytest.mark.parametrize(
    ("line", "column", "reason"),
    [
        (",GB,S,T,,,,", "id", "1 to 64 characters"),
        ("~x,GB,S,T,,,,", "id", "not begin with ~"),
        ("a,XX,S,T,,,,", "country_code", "no layout for country 'XX'"),
        ("a,GB,S,T,,91,0,", "latitude", "not between -90 and 90"),
        ("a,GB,S,T,,1,nan,", "longitude", "not between"),
        ("a,GB,S,T,,north,1,", "latitude", "not a number"),
        ("a,GB,S,T,,,,castle", "use", "is not one of"),
        ("a,GB,,,,,,", "street", "no component at all"),
        ("a,GB,S\x07,T,,,,", "street", "control characters"),
        (f"a,GB,{'x' * 201},T,,,,", "street", "longer than 200"),
        ("a,GB,S", "", "has 3 values"),
        ('a,GB,"S"x,T,,,,', "", "is not CSV"),
    ],
)
def test_a_bad_row_is_a_fault_with_line_column_and_reason_and_reading_goes_on(
    layouts, line, column, reason
):
    fault, row = read(f"{HEADER}{line}\r\nb,GB,S,T,,,,\r\n", layouts)
    assert isinstance(fault, RowFault)
    assert (fault.line, fault.column) == (2, column)
    assert reason in fault.reason
    assert isinstance(row, Row)


def test_an_id_that_comes_twice_is_a_fault(layouts):
    _, fault = read(HEADER + "a,GB,S,T,,,,\r\na,GB,S,T,,,,\r\n", layouts)
    assert fault.reason == "the id 'a' stands in the file twice"


def test_a_file_without_the_needed_columns_is_refused(layouts):
    with pytest.raises(HeaderError, match="lacks country_code"):
        read("id,street\r\n", layouts)


def test_columns_that_are_not_known_are_named():
    assert unknown_columns("\ufeffid,strret,town\r\n") == ["strret"]
    assert unknown_columns('{"id": "1", "floor": 2}', json_lines=True) == ["floor"]
    assert unknown_columns("nonsense", json_lines=True) == []
    assert unknown_columns("") == []


def test_json_lines_are_read_and_faulty_ones_named(layouts):
    text = '{"id": "a", "country_code": "GB", "town": "T"}\n\nnope\n[1]\n'
    row, broken, wrong = read(text, layouts, json_lines=True)
    assert (row.id, row.components) == ("a", {"town": "T"})
    assert broken.line == 3
    assert "not JSON" in broken.reason
    assert wrong.reason == "is not a JSON object"
