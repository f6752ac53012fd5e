"""Laws of search, whatever is typed: held against the small world by hypothesis."""

import re

import numpy as np
import pytest
from hypothesis import assume, example, given, settings
from hypothesis import strategies as st
from rapidfuzz.distance import OSA

from anchorline.core.gazetteer import Edition, Gazetteer, Row, SearchRequest, build_edition
from anchorline.core.gazetteer.compiled.edits import keys_one_edit_away
from anchorline.core.gazetteer.labels import LabelWriter
from anchorline.core.gazetteer.searching.candidates import scan_for
from anchorline.core.gazetteer.searching.terms import Token, look_up
from anchorline.core.gazetteer.searching.typos import corrections, edits_allowed
from anchorline.core.layouts import one_line, shipped_layouts
from anchorline.core.text import tokens

from .plain_ranking import look_at_few

LETTERS = "abcdefghijklmnopqrstuvwxyz"
POSTCODE_LETTERS = LETTERS + "0123456789"


def open_all(gazetteer, group):
    """The ids of all addresses inside a group."""
    rows, skip = [], 0
    while page := gazetteer.suggest(SearchRequest("", within=group, limit=100, skip=skip)):
        rows += page
        skip += 100
    return {a for row in rows for a in (open_all(gazetteer, row.id) if row.count > 1 else [row.id])}


def reaches(gazetteer, rows, address):
    return any(
        row.id == address or (row.count > 1 and address in open_all(gazetteer, row.id))
        for row in rows
    )


@pytest.fixture(scope="module")
def label_of(edition):
    return lambda index: LabelWriter(shipped_layouts()).address(edition, index)


@given(st.data())
@settings(deadline=None, max_examples=40)
def test_typing_on_never_loses_the_row_once_it_stands_alone(gazetteer, edition, label_of, data):
    index = data.draw(st.integers(0, edition.address_count - 1))
    label, address = label_of(index), edition.address_id(index)
    # 2-1 on the way to 2-12 may as well be 1-2 to a finder that lets words stand in any order.
    assume(not re.search(r"\d\w?\s*[-/]+\s*\w", label))
    alone = False
    for end in range(1, len(label) + 1):
        rows = gazetteer.suggest(SearchRequest(label[:end], limit=100))
        if alone:
            assert reaches(gazetteer, rows, address), label[:end]
        alone = alone or (len(rows) == 1 and reaches(gazetteer, rows, address))


@given(st.data())
@settings(deadline=None, max_examples=80)
def test_whole_words_find_the_same_rows_in_any_order(gazetteer, edition, data):
    street = int(data.draw(st.sampled_from(edition.street_nodes.tolist())))
    components = edition.node_components(street)
    words = [w for n in ("street", "town") for w in tokens(components.get(n, "")) if w.isalpha()]
    assume(words)
    orders = [data.draw(st.permutations(words)) for _ in range(2)]
    # A word behind them that every order ends with, so that none of them is unfinished.
    last = words[0]
    found = [
        {row.id for row in gazetteer.suggest(SearchRequest(" ".join([*order, last]), limit=100))}
        for order in orders
    ]
    assert found[0] == found[1], orders


@given(st.data())
@settings(deadline=None, max_examples=100)
def test_the_compiled_ranking_is_the_plain_one(edition, data):
    vocabulary = [edition.words[i] for i in range(len(edition.words))]
    typed = data.draw(st.lists(st.sampled_from([*vocabulary, "12", "3"]), min_size=1, max_size=4))
    cut = data.draw(st.integers(1, len(typed[-1])))
    typed[-1] = typed[-1][:cut]
    reading = [Token(text, place == len(typed) - 1) for place, text in enumerate(typed)]
    terms = [look_up(edition, token) for token in reading]
    assume(all(term.found for term in terms))
    nodes = np.unique(edition.postings(*terms[0].spans[0])) if terms[0].spans else None
    if nodes is None or data.draw(st.booleans()):
        nodes = np.arange(edition.node_count_total, dtype=np.uint32)
    plain = look_at_few(edition, nodes, terms)
    scan = scan_for(edition, terms)
    assert scan.through(nodes) == len(plain), typed
    wanted = data.draw(st.integers(1, 40))
    best = scan.best(wanted)
    assert [score for _, score, _, _ in best] == pytest.approx(
        [ranked.score for ranked in plain[:wanted]], abs=1e-4
    )
    by_node = {ranked.node: ranked for ranked in plain}
    for node, score, wordless, numbered in best:
        assert score == pytest.approx(by_node[node].score, abs=1e-4), (typed, node)
        assert numbered == by_node[node].numbered
        assert [terms[place] for place in wordless] == list(by_node[node].narrowing)


def misspell(data, word):
    """A word with one edit: a letter put in, left out or exchanged, or two neighbours swapped."""
    place = data.draw(st.integers(0, len(word) - 1))
    letter = data.draw(st.sampled_from(LETTERS))
    return data.draw(
        st.sampled_from(
            [
                word[:place] + letter + word[place:],
                word[:place] + word[place + 1 :],
                word[:place] + letter + word[place + 1 :],
                word[:place] + word[place : place + 2][::-1] + word[place + 2 :],
            ]
        )
    )


@given(st.data())
@settings(deadline=None, max_examples=100)
def test_corrections_are_the_words_at_that_distance_and_no_others(edition, data):
    vocabulary = [edition.words[i] for i in range(len(edition.words))]
    letters = [word for word in vocabulary if word.isalpha() and word.isascii()]
    word = data.draw(st.sampled_from([word for word in letters if len(word) > 4]))
    typed = misspell(data, word)
    edits = 1
    if len(word) > 8 and data.draw(st.booleans()):
        typed, edits = misspell(data, typed), 2
    found = {
        edition.words[first] for first, _ in corrections(edition, typed, edits, unfinished=False)
    }
    assert found == {w for w in letters if len(w) > 2 and OSA.distance(typed, w) == edits}, typed


@given(st.data())
@settings(deadline=None, max_examples=100)
def test_an_unfinished_word_is_corrected_by_its_beginning(edition, data):
    vocabulary = [edition.words[i] for i in range(len(edition.words))]
    word = data.draw(st.sampled_from([w for w in vocabulary if w.isalpha() and len(w) > 5]))
    assume(word.isascii())
    typed = misspell(data, word[: data.draw(st.integers(4, len(word)))])
    assume(len(typed) > 3 and not any(w.startswith(typed) for w in vocabulary))
    spans = corrections(edition, typed, 1, unfinished=True)
    assert any(first <= vocabulary.index(word) < end for first, end in spans), (typed, word)
    for first, end in spans:
        for number in range(first, end):
            cuts = [vocabulary[number][:n] for n in range(len(typed) - 1, len(typed) + 2)]
            assert min(OSA.distance(typed, cut) for cut in cuts) <= 1


@given(st.data())
@settings(deadline=None, max_examples=60)
def test_one_wrong_letter_in_a_whole_label_still_finds_its_address(
    gazetteer, edition, label_of, data
):
    index = data.draw(st.integers(0, edition.address_count - 1))
    words = label_of(index).split(" ")
    long = [
        i for i, word in enumerate(words) if word.isascii() and word.isalpha() and len(word) > 4
    ]
    assume(long)
    place = data.draw(st.sampled_from(long))
    words[place] = misspell(data, words[place].lower())
    rows = gazetteer.suggest(SearchRequest(" ".join(words), limit=20))
    assert reaches(gazetteer, rows, edition.address_id(index)), words


@given(st.data())
@settings(deadline=None, max_examples=60)
def test_nothing_is_corrected_where_what_was_typed_is_there(gazetteer, edition, label_of, data):
    index = data.draw(st.integers(0, edition.address_count - 1))
    label = label_of(index)
    answer = gazetteer.search(
        SearchRequest(label[: data.draw(st.integers(1, len(label)))], trace=True)
    )
    if answer.steps and answer.steps[-1].interpretation in ("as typed", "put together"):
        assert not answer.corrected
        assert not answer.unmatched


@given(st.data())
@settings(deadline=None, max_examples=100)
def test_labels_are_the_lines_of_the_layout_in_one(edition, data):
    layouts = shipped_layouts()
    address = edition.address(data.draw(st.integers(0, edition.address_count - 1)))
    index = edition.find_address(address.id.partition(":")[2])
    line = one_line(layouts.require(address.country_code), address.components)
    assert LabelWriter(layouts).address(edition, index) == line


@given(st.text(POSTCODE_LETTERS, min_size=1, max_size=8))
@example("aaaa")
@example("12345678")
def test_the_keys_one_edit_away_are_those_of_all_such_texts(token):
    cuts = [(token[:place], token[place:]) for place in range(len(token) + 1)]
    near = {head + tail[1:] for head, tail in cuts if tail}
    near |= {head + tail[1] + tail[0] + tail[2:] for head, tail in cuts if len(tail) > 1}
    for letter in POSTCODE_LETTERS:
        near |= {head + letter + tail[1:] for head, tail in cuts if tail}
        near |= {head + letter + tail for head, tail in cuts}
    near.discard(token)
    assert all(OSA.distance(token, text) == 1 for text in near)
    keys = [int.from_bytes(text.encode().ljust(8, b"\0")) for text in near if len(text) <= 8]
    assert keys_one_edit_away(token).tolist() == sorted(keys)


@pytest.mark.parametrize("token", ["", "123456789", "zürich"])
def test_other_tokens_have_no_keys_one_edit_away(token):
    with pytest.raises(ValueError, match="is not one to 8"):
        keys_one_edit_away(token)


@pytest.mark.parametrize(
    ("token", "edits"),
    [
        ("abc", 0), ("abcd", 1), ("abcdefg", 1), ("abcdefgh", 2), ("abcdefghi", 2),
        ("a12", 0), ("qv14", 1), ("qv141abc", 1), ("qv141abcd", 0), ("١٢٣٤", 0), ("", 0),
    ],
)  # fmt: skip
def test_how_far_off_a_word_may_be_depends_on_its_length(token, edits):
    assert edits_allowed(token) == edits


def test_pages_across_datasets_show_every_row_once_and_in_the_order_of_one_list():
    layouts = shipped_layouts()
    editions = []
    for name in ("a", "b", "c"):
        rows = [
            Row(
                f"{name}{n}",
                "GB",
                {"number": str(n), "street": f"Gritstone {name}{n} Row", "town": "Marl"},
            )
            for n in range(1, 12)
        ]
        built = build_edition(rows, layouts)
        editions.append(Edition(name, 1, built.manifest, built.arrays))
    finder = Gazetteer(editions, layouts)
    whole = [r.id for r in finder.suggest(SearchRequest("gritstone", limit=100))]
    assert len(whole) == len(set(whole)) == 33
    for size in (1, 4, 7, 33):
        paged = []
        for skip in range(0, 40, size):
            paged += [
                r.id for r in finder.suggest(SearchRequest("gritstone", limit=size, skip=skip))
            ]
        assert paged == whole, size
