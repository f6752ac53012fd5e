"""Rows that stand there twice, and changes applied to the rows of a base."""

from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.gazetteer import Row
from anchorline.core.gazetteer.rows import RowBlock
from anchorline.core.reference.changes import ChangeSet
from anchorline.core.reference.repeats import RowHashes

ROWS = st.lists(
    st.builds(
        Row,
        id=st.sampled_from("abcdef"),
        country_code=st.sampled_from(["GB", "FR"]),
        components=st.dictionaries(st.sampled_from(["street", "town"]), st.sampled_from("xy")),
        language=st.sampled_from(["", "en", "cy"]),
    ),
    max_size=14,
)


@given(ROWS, st.integers(1, 5))
def test_repeated_rows_are_those_that_a_row_before_them_equals(made, size):
    hashes = RowHashes()
    for start in range(0, len(made), size):
        hashes.add(RowBlock.of(made[start : start + size]))
    ids = [(row.id, row.language) for row in made]
    contents = [(row.country_code, row.language, row.components) for row in made]
    assert hashes.repeated_ids().tolist() == [i for i, v in enumerate(ids) if v in ids[:i]]
    assert hashes.repeated_addresses().tolist() == [
        i for i, v in enumerate(contents) if v in contents[:i]
    ]


LANGUAGES = st.sampled_from(["", "en", "cy"])


def block_of(names):
    return RowBlock.of(Row(i, "GB", {"town": "T"}, language) for i, language in sorted(names))


@given(
    base=st.sets(st.tuples(st.sampled_from("abcd"), LANGUAGES)),
    puts=st.sets(st.tuples(st.sampled_from("abcd"), LANGUAGES)),
    drops=st.sets(st.sampled_from("abcdxy")),
)
def test_changes_leave_the_rows_that_they_do_not_touch(base, puts, drops):
    drops -= {row_id for row_id, _ in puts}
    changes = ChangeSet()
    changes.add(block_of(puts), [(row_id, 7) for row_id in sorted(drops)])
    replaced = {
        (row_id, language)
        for row_id, language in base
        for put_id, put_language in puts
        if row_id == put_id and (not language or put_language in ("", language))
    }
    expected = {name for name in base if name[0] not in drops} - replaced
    block = block_of(base)
    left = changes.remaining(block)
    assert {(row.id, row.language) for row in left.rows()} == expected
    assert (left is block) == (base == expected)
    known = {row_id for row_id, _ in base}
    assert changes.not_found() == [(row_id, 7) for row_id in sorted(drops - known)]
