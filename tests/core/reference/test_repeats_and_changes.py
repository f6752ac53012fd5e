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
    ),
    max_size=14,
)


@given(ROWS, st.integers(1, 5))
def test_repeated_rows_are_those_that_a_row_before_them_equals(made, size):
    hashes = RowHashes()
    for start in range(0, len(made), size):
        hashes.add(RowBlock.of(made[start : start + size]))
    ids = [row.id for row in made]
    contents = [(row.country_code, row.components) for row in made]
    assert hashes.repeated_ids().tolist() == [i for i, v in enumerate(ids) if v in ids[:i]]
    assert hashes.repeated_addresses().tolist() == [
        i for i, v in enumerate(contents) if v in contents[:i]
    ]


@given(
    base=st.sets(st.sampled_from("abcdefgh")),
    puts=st.sets(st.sampled_from("abcdefgh")),
    drops=st.sets(st.sampled_from("abcdefghxy")),
)
def test_changes_leave_the_rows_that_they_do_not_touch(base, puts, drops):
    drops -= puts
    changes = ChangeSet()
    changes.add(puts, [(row_id, 7) for row_id in sorted(drops)])
    block = RowBlock.of(Row(row_id, "GB", {"town": "T"}) for row_id in sorted(base))
    left = changes.remaining(block)
    assert [row.id for row in left.rows()] == sorted(base - puts - drops)
    assert (left is block) == (not base & (puts | drops))
    assert changes.not_found() == [(row_id, 7) for row_id in sorted(drops - base)]
