"""Bytes to batches: CSV and JSON Lines, plain and gzipped, whole and damaged."""

import csv
import gzip
import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.reference import Source, SourceError
from anchorline.core.reference.source import LONGEST_LINE, _unzipped

from .conftest import bad, rows

HEADER = "id,country_code,street,town\r\n"


def batches(data, *, size=3, piece=5, after_line=0):
    source = Source(data[i : i + piece] for i in range(0, len(data), piece))
    return list(source.batches(size, after_line=after_line))


# Values as files have them: no bare carriage returns, nothing that is not UTF-8.
VALUE = st.text(st.characters(codec="utf-8", exclude_characters="\r\x00"), max_size=8)


@given(table=st.lists(st.tuples(VALUE, VALUE, VALUE), max_size=12), size=st.integers(1, 5))
def test_whatever_is_written_as_csv_is_read_back_line_by_line(table, size):
    buffer = io.StringIO()
    writer = csv.writer(buffer, lineterminator="\r\n")
    writer.writerow(["id", "country_code", "street"])
    lines = []
    for row in table:
        writer.writerow(row)
        lines.append(buffer.getvalue().count("\n"))
    found = batches(buffer.getvalue().encode(), size=size)
    assert [tuple(values) for batch in found for values in batch.values] == table
    assert [line for batch in found for line in batch.lines] == lines
    assert all(len(batch.values) <= size for batch in found)


@given(piece=st.integers(1, 40), members=st.integers(1, 3))
def test_gzip_in_any_pieces_and_of_several_members_reads_like_the_plain_file(piece, members):
    text = (HEADER + "".join(f"{i},GB,Gritstone Row,Marl\r\n" for i in range(9))).encode()
    cut = len(text) // members
    parts = [text[i * cut : (i + 1) * cut if i < members - 1 else None] for i in range(members)]
    zipped = b"".join(map(gzip.compress, parts))
    assert batches(zipped, piece=piece) == batches(text, piece=piece)


def test_reading_goes_on_behind_a_line():
    text = HEADER + "a,GB,S,T\r\n" + 'b,GB,"two\r\nlines",T\r\n' + "c,GB,S,T\r\nd,GB,S,T\r\n"
    whole = batches(text.encode(), size=10)
    assert whole[0].lines == [2, 4, 5, 6]
    (rest,) = batches(text.encode(), size=10, after_line=4)
    assert [values[0] for values in rest.values] == ["c", "d"]
    assert rest.lines == [5, 6]
    assert batches(text.encode(), after_line=6) == []


def test_json_lines_go_on_behind_a_line_too():
    text = "\n".join(f'{{"id": "{i}", "country_code": "GB"}}' for i in range(4))
    (rest,) = batches(text.encode(), size=10, after_line=2)
    assert [values[0] for values in rest.values] == ["2", "3"]
    assert rest.lines == [3, 4]


@pytest.mark.parametrize(
    ("content", "reason"),
    [
        (b"", "lacks id and country_code"),
        (b"id,town\r\n1,x\r\n", "it lacks country_code"),
        (b"id;country_code;town\r\n", "parted by semicolons; write commas"),
        (b"id\tcountry_code\ttown\r\n", "parted by tabs"),
        (b"id,country_code,town,town\r\n", "names town twice"),
        (b"{}", "first line's object lacks id and country_code"),
        (b'{"id": 1,', "begins like JSON and is not"),
        (b"PK\x03\x04 and so on", "a zip file or a spreadsheet"),
        ("id,country_code\r\n".encode("utf-16"), "is UTF-16; save it as UTF-8"),
        (b"%PDF-1.7", "is a PDF"),
        (b"\x1f\x8b not gzip at all", "gzip data is damaged"),
        (gzip.compress(HEADER.encode() * 50, mtime=0)[:-12], "gzip data ends in the middle"),
        (HEADER.encode() + b"x" * (1 << 20) + b"y", "A line after line 1 is longer than"),
    ],
)
def test_what_is_no_file_of_rows_is_refused_with_the_reason(content, reason):
    with pytest.raises(SourceError, match=reason):
        batches(content, piece=4096)


def test_columns_that_are_not_known_are_named_in_either_form(read):
    source, _ = read("\ufeffid,country_code,strret\r\n")
    assert source.unknown == ["strret"]
    source, _ = read('{"id": "1", "country_code": "GB", "floor": 2}\n{"id": 1, "lift": true}\n')
    assert source.unknown == ["floor", "lift"]


def test_rows_that_cannot_be_read_are_bad_and_reading_goes_on(read):
    _, checked = read(HEADER + 'a,GB,"S"x,T\r\nb,GB,S\r\n\r\nc,GB,S,T\r\n', size=10)
    assert [(b.line, b.finding, b.reason.split(":")[0]) for b in bad(checked)] == [
        (2, "unreadable", "is not CSV"),
        (3, "unreadable", "has 3 values where the first line names 4 columns"),
    ]
    assert bad(checked)[0].row == 'a,GB,"S"x,T'
    assert [row.id for row in rows(checked)] == ["c"]


def test_json_lines_are_read_and_faulty_ones_named(read):
    text = '{"id": "a", "country_code": "GB", "town": "T", "latitude": 52.5, "longitude": -1}\n'
    _, checked = read(text + "\nnope\n[1]\n", size=10, piece=1000)
    (row,) = rows(checked)
    assert (row.id, row.components, row.latitude) == ("a", {"town": "T"}, 52.5)
    assert [(b.line, b.reason.split(":")[0]) for b in bad(checked)] == [
        (3, "is not JSON"),
        (4, "is not a JSON object"),
    ]


@pytest.mark.parametrize("more", [-1, 0, 1, LONGEST_LINE - 1, LONGEST_LINE, LONGEST_LINE + 1])
def test_gzip_that_unpacks_to_just_a_piece_or_a_byte_beside_it_is_read_whole(more):
    line = b"x" * 999 + b"\n"
    text = (line * (LONGEST_LINE // 1000 + 1))[:LONGEST_LINE] + b"y" * max(0, more)
    text = text[: LONGEST_LINE + more]
    assert b"".join(_unzipped([gzip.compress(text)])) == text
    assert b"".join(_unzipped([gzip.compress(text), gzip.compress(b"tail")])) == text + b"tail"


def test_only_the_beginning_of_a_file_can_bear_a_byte_order_mark(read):
    lines = "\ufeffid,country_code,street\r\na,GB,S\r\n\ufeffb,GB,S\r\n"
    for piece in (3, 7, 1000):
        _, checked = read(lines, piece=piece)
        assert [row.id for row in rows(checked)] == ["a", "\ufeffb"]
