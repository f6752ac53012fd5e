"""What becomes of rows: normalized, left out with a reason, or kept with a finding."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.gazetteer import Row
from anchorline.core.gazetteer.rows import RowBlock
from anchorline.core.reference import FINDINGS, Findings
from anchorline.core.reference.columns import looks_doubly_encoded
from anchorline.core.reference.findings import SAMPLES_KEPT, Sample
from anchorline.core.reference.report import report_lines

from .conftest import bad, counts, rows

HEADER = "id,country_code,street,town,region,region_code,postcode,latitude,longitude,use\r\n"


def test_a_good_row_is_read_with_blanks_folded_and_its_postcode_spelt_as_the_country_does(read):
    _, checked = read(HEADER + "a1,gb, Abbey  Lane ,Brackwater,,,qv14ab,52.5,-1.5,public\r\n")
    assert rows(checked) == [
        Row("a1", "GB", {"street": "Abbey Lane", "town": "Brackwater", "postcode": "QV1 4AB"},
            "", 52.5, -1.5, "public"),
    ]  # fmt: skip
    assert counts(checked) == {}


@pytest.mark.parametrize(
    ("line", "finding", "column", "reason"),
    [
        (",GB,S,T,,,,,,", "bad-id", "id", "1 to 64 characters"),
        ("~x,GB,S,T,,,,,,", "bad-id", "id", "not begin with ~"),
        ("a\x07,GB,S,T,,,,,,", "control-characters", "id", "control characters"),
        ("a,XX,S,T,,,,,,", "bad-country", "country_code", "no layout for country 'XX'"),
        ("a,,S,T,,,,,,", "bad-country", "country_code", "no layout for country ''"),
        ("a,GB,S,T,,,,91,0,", "bad-position", "latitude", "not between -90 and 90"),
        ("a,GB,S,T,,,,1,nan,", "bad-position", "longitude", "not between"),
        ("a,GB,S,T,,,,north,1,", "bad-position", "latitude", "not a number"),
        ("a,GB,S,T,,,,1,,", "bad-position", "longitude", "not a number"),
        ("a,GB,S,T,,,,,,castle", "bad-use", "use", "is not one of"),
        ("a,GB,,,,,,,,", "no-component", "street", "no component"),
        ("a,GB,S\x07,T,,,,,,", "control-characters", "street", "control characters"),
        (f"a,GB,{'x' * 201},T,,,,,,", "too-long", "street", "longer than 200"),
    ],
)
def test_a_row_that_cannot_be_used_is_left_out_with_line_column_and_reason(
    read, line, finding, column, reason
):
    _, checked = read(f"{HEADER}{line}\r\nb,GB,S,T,,,,,,\r\n")
    (left_out,) = bad(checked)
    assert (left_out.line, left_out.finding, left_out.column) == (2, finding, column)
    assert reason in left_out.reason
    assert left_out.row.startswith(line.split(",")[0])
    assert [row.id for row in rows(checked)] == ["b"]
    assert counts(checked) == {finding: 1}


@pytest.mark.parametrize("byte", [0x80, 0xE9, 0xFF])
def test_bytes_that_are_not_utf8_make_their_row_bad_and_no_other(read, byte):
    line = b"a,GB,Caf" + bytes([byte]) + b",T,,,,,,\r\nb,GB,S,T,,,,,,\r\n"
    _, checked = read(HEADER.encode() + line)
    (left_out,) = bad(checked)
    assert left_out.reason == f"is not UTF-8: it holds the byte 0x{byte:02x}"
    assert [row.id for row in rows(checked)] == ["b"]


@pytest.mark.parametrize(
    ("line", "finding"),
    [
        ("a,GB,,T,,,,,,", "no-street"),
        ("a,GB,S,T,,,99,,,", "postcode-form"),
        ("a,US,S,T,Brackshire,,12345,,,", "unknown-region"),
        ("a,US,S,Texas,Brackwater,,12345,,,", "swapped-town"),
        ("a,GB,S,T,,,,10,100,", "outside-country"),
        ("a,GB,S,T,,,,-1.5,52.5,", "swapped-position"),
        ("a,GB,CafÃ©,T,,,,,,", "double-encoding"),
    ],
)
def test_an_odd_row_is_kept_and_noted_with_a_sample(read, line, finding):
    _, checked = read(f"{HEADER}{line}\r\n")
    assert len(rows(checked)) == 1
    assert counts(checked) == {finding: 1}
    assert not FINDINGS[finding].left_out
    (sample,) = checked[0].findings.tallies[finding].samples
    assert (sample.line, sample.id) == (2, "a")


@pytest.mark.parametrize(
    "line",
    [
        "a,US,S,T,Texas,,12345,30,-97,",
        "a,US,S,T,,,12345,30,-97,",
        "a,GB,S,T,Brackshire,,,,,",
        "a,US,S,T,,tx,12345-6789,51.9,179.5,",  # across the 180th meridian
        "a,IE,,T,Offaly,,,,,",
        "a,FR,rue é,Œuf,,,96011,48,2,",
    ],
)
def test_what_is_in_order_is_not_noted(read, line):
    _, checked = read(f"{HEADER}{line}\r\n")
    assert set(counts(checked)) <= {"no-street"}


@pytest.mark.parametrize("text", ["Ã©", "Kö\ufffdln", "Ã¼ber", "â€™s", "SÃ£o"])
def test_wrongly_decoded_texts_are_suspected(text):
    assert looks_doubly_encoded(text)


@pytest.mark.parametrize("text", ["é", "über", "São Paulo", "東京", "Àé", "plain", "Œuf", "ÃO"])
def test_texts_with_diacritics_are_not(text):
    assert not looks_doubly_encoded(text)


def test_changes_name_what_is_put_in_and_what_is_taken_out(read):
    text = "id,country_code,action,street\r\na,GB,put,S\r\nb,GB,drop,\r\nc,GB,keep,S\r\n"
    _, checked = read(text, changes=True)
    assert [row.id for row in rows(checked)] == ["a"]
    assert [(d, n) for b in checked for d, n in zip(b.drops, b.drop_lines, strict=True)] == [
        ("b", 3)
    ]
    assert [b.finding for b in bad(checked)] == ["bad-action"]


@given(st.lists(st.integers(1, 40), max_size=6))
def test_findings_of_parts_add_up_and_samples_are_few(sizes):
    whole = Findings()
    for part, size in enumerate(sizes):
        findings = Findings()
        samples = [Sample(part * 100 + i, "a", "", "") for i in range(size)]
        findings.add_many("no-street", size, samples)
        whole.merge(Findings.from_document(findings.to_document()))
    tally = whole.tallies.get("no-street")
    assert (tally.count if tally else 0) == sum(sizes)
    if tally:
        assert len(tally.samples) == min(SAMPLES_KEPT, sum(sizes))
        assert [s.line for s in tally.samples] == sorted(s.line for s in tally.samples)


def test_the_report_cannot_start_a_formula_in_a_spreadsheet(read):
    _, checked = read(HEADER + '=1+1,XX,"=cmd(""x"")",T,,,,,,\r\n')
    header, line = report_lines(bad(checked))
    assert header == "line,id,finding,column,reason,row\r\n"
    assert line.startswith("2,'=1+1,bad-country,country_code,")
    assert ",\"'=1+1,XX," in line


@given(
    st.lists(
        st.builds(
            Row,
            id=st.text(min_size=1, max_size=4),
            country_code=st.sampled_from(["GB", "FR"]),
            components=st.dictionaries(
                st.sampled_from(["street", "town", "unit"]), st.text(min_size=1, max_size=4)
            ),
            latitude=st.none() | st.floats(-90, 90),
            use=st.sampled_from([None, "public"]),
        ),
        max_size=5,
    )
)
def test_a_block_holds_just_the_rows_it_was_made_of(made):
    block = RowBlock.of(made)
    assert list(block.rows()) == made
    assert list(block.take(range(len(made))[::-1]).rows()) == made[::-1]
