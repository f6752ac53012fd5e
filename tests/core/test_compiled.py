"""The compiled inner loops, held against plain statements of what they do."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from rapidfuzz.distance import OSA

from anchorline.core.gazetteer.arrays import pool_arrays, sorted_pool_arrays
from anchorline.core.gazetteer.compiled.edits import distance
from anchorline.core.gazetteer.compiled.pools import TextPool, WordPool
from anchorline.core.gazetteer.searching.candidates import scan_for
from anchorline.core.gazetteer.searching.in_part import nodes_in_part
from anchorline.core.gazetteer.searching.terms import Token, look_up

from .plain_ranking import look_at_few

WORDS = st.text(st.sampled_from("abcé-"), max_size=9)


@given(WORDS, WORDS, st.integers(0, 3))
def test_edits_are_those_of_optimal_string_alignment(typed, word, most):
    assert distance(typed, word, most, False) == OSA.distance(typed, word, score_cutoff=most)


@given(WORDS, WORDS, st.integers(0, 3))
def test_an_unfinished_word_is_as_far_as_the_nearest_beginning(typed, word, most):
    nearest = min(OSA.distance(typed, word[:end]) for end in range(len(word) + 1))
    expected = min(nearest, most + 1) if word else min(len(typed), most + 1)
    # Nothing begins a word, so a beginning has a letter at least.
    if len(typed) > most:
        assert distance(typed, word, most, True) == expected


def test_words_that_are_too_long_are_far():
    assert distance("a" * 200, "a" * 200, 2, False) == 3
    assert distance("a" * 127, "a" * 127, 2, False) == 0


TEXTS = st.lists(st.text(st.sampled_from("ab0é桜\U0001f600"), max_size=12), max_size=30)


@given(TEXTS)
def test_a_pool_gives_back_its_texts(texts):
    arrays = pool_arrays("p", texts)
    pool = TextPool(arrays["p_bytes"], arrays["p_ends"])
    assert len(pool) == len(texts)
    assert [pool[i] for i in range(len(pool))] == texts
    assert [pool.raw(i) for i in range(len(pool))] == [text.encode() for text in texts]
    for beyond in (-1, len(texts)):
        with pytest.raises(IndexError):
            pool[beyond]
        with pytest.raises(IndexError):
            pool.raw(beyond)


@given(TEXTS, st.text(st.sampled_from("ab0é桜"), max_size=11))
def test_a_pool_of_words_finds_beginnings_and_whole_words(texts, typed):
    ordered = sorted(set(texts), key=str.encode)
    arrays = sorted_pool_arrays("p", ordered)
    pool = WordPool(arrays["p_bytes"], arrays["p_ends"], arrays["p_keys"])
    first, end = pool.prefix_range(typed)
    assert ordered[first:end] == [text for text in ordered if text.startswith(typed)]
    assert pool.find(typed) == (ordered.index(typed) if typed in ordered else None)


def words_of(edition):
    return [edition.words[i] for i in range(len(edition.words))]


def terms_of(edition, data, most):
    words = st.sampled_from([*words_of(edition), "12", "3", "1a"])
    typed = data.draw(st.lists(words, min_size=1, max_size=most))
    typed[-1] = typed[-1][: data.draw(st.integers(1, len(typed[-1])))]
    reading = [Token(text, place == len(typed) - 1) for place, text in enumerate(typed)]
    return [term for term in (look_up(edition, token) for token in reading) if term.found]


@given(st.data())
@settings(deadline=None, max_examples=60)
def test_all_nodes_of_terms_are_their_postings(edition, data):
    terms = terms_of(edition, data, 4)
    scan = scan_for(edition, terms)
    places = data.draw(st.lists(st.sampled_from(range(len(terms))), unique=True)) if terms else []
    expected = set()
    for term in (terms[place] for place in places):
        for span in term.spans:
            expected |= set(edition.postings(*span).tolist())
        for number in term.inside:
            expected |= set(edition.numbered(number).tolist())
    assert scan.all_of(*places).tolist() == sorted(expected)


@given(st.data())
@settings(deadline=None, max_examples=60)
def test_however_nodes_are_looked_through_the_same_are_kept(edition, data):
    terms = terms_of(edition, data, 3)
    if not terms:
        return
    driver = data.draw(st.sampled_from(range(len(terms))))
    whole = scan_for(edition, terms)
    nodes = whole.all_of(driver)
    whole.through(nodes, driver)
    in_pieces = scan_for(edition, terms)
    size = data.draw(st.integers(1, 70))
    for start in range(0, len(nodes), size):
        in_pieces.through(nodes[start : start + size])
    plain = [ranked.node for ranked in look_at_few(edition, nodes, terms)]
    assert sorted(whole.kept().tolist()) == sorted(plain)
    assert sorted(in_pieces.kept().tolist()) == sorted(plain)
    assert whole.best(8) == in_pieces.best(8)
    enough = scan_for(edition, terms)
    assert enough.through(nodes, driver, 3) == min(3, len(plain))


def test_more_nodes_than_are_thinned_out_at_a_time_are_all_looked_through(edition):
    terms = [look_up(edition, Token("br", unfinished=True)), look_up(edition, Token("brackwater"))]
    every = np.arange(edition.node_count_total, dtype=np.uint32)
    plain = [ranked.node for ranked in look_at_few(edition, every, terms)]
    assert plain
    scan = scan_for(edition, terms)
    assert scan.through(np.repeat(every, 7)) == 7 * len(plain)
    assert scan.kept().tolist() == np.repeat(sorted(plain), 7).tolist()


@given(st.data())
@settings(deadline=None, max_examples=40)
def test_a_node_is_never_listed_twice(edition, data):
    terms = terms_of(edition, data, 3)
    if not terms:
        return
    scan = scan_for(edition, terms)
    nodes = scan.all_of(0)[:50]
    once = scan_for(edition, terms)
    once.through(nodes)
    scan.through(nodes)
    scan.through(nodes)
    assert scan.best(20) == once.best(20)


@given(st.data())
@settings(deadline=None, max_examples=40)
def test_numbers_inside_a_street_are_found_as_they_are_written(edition, data):
    street = int(data.draw(st.sampled_from(edition.street_nodes.tolist())))
    among = edition.address_range(street)
    number = edition.numbers.find(data.draw(st.sampled_from(["1", "2", "12", "7", "12a"])))
    unit = edition.numbers.find("#" + data.draw(st.sampled_from(["1", "2", "flat"])))
    terms = [-1 if term is None else term for term in (number, unit)]
    arrays = edition.arrays
    ends = [0, *arrays["number_inner_ends"].tolist()]
    wanted = {
        int(inner)
        for term in terms
        if term >= 0
        for inner in arrays["number_inners"][ends[term] : ends[term + 1]]
    }
    expected = [index for index in among if int(edition.address_inner[index]) in wanted]
    assert edition.inside.having(among, *terms) == expected
    assert edition.inside.having(list(among), *terms) == expected


@given(st.data())
@settings(deadline=None, max_examples=40)
def test_nodes_in_part_have_at_least_half_of_what_was_typed(edition, data):
    street = int(data.draw(st.sampled_from(edition.street_nodes.tolist())))
    cells = [cell for cell in edition.node_words[street].tolist() if cell & 7]
    words = sorted({edition.words[cell >> 3] for cell in cells})
    typed = [Token(word) for word in [*words, *data.draw(st.lists(st.just("zzzz"), max_size=2))]]
    known = [term for term in (look_up(edition, token) for token in typed) if term.found]
    found = nodes_in_part(edition, known, len(typed), None)
    least = max(2, len(typed) / 2)
    kept = found.kept().tolist()
    for node in kept:
        assert sum(found.held(node)) >= least
    if len(words) >= least and sum(term.count for term in known) < 1000:
        assert street in kept
    assert np.all(np.diff([score for _, score, _, _ in found.best(64)]) <= 0)
