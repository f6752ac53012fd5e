import re
import unicodedata

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from anchorline.core.match_ranges import match_ranges
from anchorline.core.text import (
    compact,
    fold,
    fold_character,
    has_spaceless_script,
    natural_key,
    token_spans,
    tokens,
)  # fmt: skip


@pytest.mark.parametrize(
    ("text", "folded"),
    [
        ("Straße", "strasse"),
        ("ÉPINOY", "epinoy"),
        ("Ó Fearrán", "o fearran"),
        ("Łódź", "lodz"),
        ("O’Brien's", "obriens"),
        ("São João, 12-A", "sao joao 12 a"),
        ("QV1 4AB", "qv1 4ab"),
        ("apt4", "apt 4"),
        ("12bis", "12bis"),
        ("桜台三丁目", "桜 台 三 丁 目"),
        ("ガラス", "ガ ラ ス"),
        ("１２３", "123"),
        ("", ""),
        (" ,;/ ", ""),
    ],
)
def test_spellings_that_people_hold_for_the_same_fold_alike(text, folded):
    assert fold(text) == folded


@given(st.text(max_size=60))
def test_folding_is_idempotent(text):
    assert fold(fold(text)) == fold(text)


@given(st.text(max_size=60))
def test_every_token_stands_inside_the_original(text):
    for span in token_spans(text):
        assert 0 <= span.start < span.end <= len(text)
        assert span.text


LIKE_ADDRESSES = st.text(
    st.one_of(st.characters(), st.sampled_from("aB1 2-'’.,/ßøÅéカﾞ桜ﬁ½Ⅳ１٣\u0301\u200b_")),
    max_size=40,
)


def spans_by_the_rule(text):
    """Tokens by the rule as `text` states it, character by character; spaceless scripts aside."""
    composed = unicodedata.normalize("NFC", text)
    folded = [fold_character(c) for c in composed]
    origin = [place for place, plain in enumerate(folded) for _ in plain]
    runs = re.finditer(r"[^\W\d_]{3,}(?=\d)|[^\W_]+", "".join(folded))
    return [(m[0], origin[m.start()], origin[m.end() - 1] + 1) for m in runs]


@given(LIKE_ADDRESSES)
def test_tokens_are_those_of_the_rule(text):
    assume(not has_spaceless_script(unicodedata.normalize("NFKC", text)))
    expected = spans_by_the_rule(text)
    assert tokens(text) == [token for token, _, _ in expected]
    assert [(s.text, s.start, s.end) for s in token_spans(text)] == expected


@given(LIKE_ADDRESSES)
def test_tokens_have_the_places_that_are_told(text):
    assert tokens(text) == [span.text for span in token_spans(text)]


@given(st.lists(st.integers(0, 5000), min_size=2, max_size=20))
def test_numbers_are_ordered_as_numbers(numbers):
    assert sorted(map(str, numbers), key=natural_key) == [str(n) for n in sorted(numbers)]


def test_a_number_comes_before_its_suffixes_and_before_larger_ones():
    assert sorted(["10", "12a", "2", "12", "", "12 bis"], key=natural_key) == [
        "", "2", "10", "12", "12a", "12 bis",
    ]  # fmt: skip


def test_compact_text_has_no_blanks():
    assert compact(" qv1  4ab ") == "qv14ab"


@pytest.mark.parametrize(
    ("label", "query", "ranges"),
    [
        ("12 Abbey Lane, Brackwater", "abb", [(3, 6)]),
        ("12 Abbey Lane, Brackwater", "12 abbey la", [(0, 2), (3, 8), (9, 11)]),
        ("Lindenstraße 4", "lindenstras", [(0, 11)]),
        ("東京都霧谷市", "霧谷", [(3, 5)]),
        ("São Bento", "sao", [(0, 3)]),
        ("Abbey Lane", "zzz", []),
    ],
)
def test_the_ranges_of_a_label_are_those_that_were_typed(label, query, ranges):
    assert match_ranges(label, tokens(query)) == ranges


@given(st.text(max_size=40), st.text(max_size=10))
def test_ranges_are_ordered_and_do_not_overlap(label, query):
    ranges = match_ranges(label, tokens(query))
    edges = [edge for pair in ranges for edge in pair]
    assert edges == sorted(edges)
    assert all(0 <= start < end <= len(label) for start, end in ranges)
