"""Search against a slow, obvious reading of the rows themselves."""

from collections import defaultdict

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anchorline.core.abbreviations import typed_long_forms
from anchorline.core.gazetteer import SearchRequest
from anchorline.core.gazetteer.arrays import sorted_pool_arrays
from anchorline.core.gazetteer.compiled.pools import WordPool
from anchorline.core.text import compact, tokens

PATH = ("country_code", "region", "region_code", "town", "district", "street")
KEYS = {"GB", "FR", "DE", "US"}


@pytest.fixture(scope="module")
def streets(world):
    """Every street with its own words, the words around it, and how many addresses it has."""
    found = defaultdict(lambda: [set(), set(), 0])
    for row in world:
        if row.country_code not in KEYS or not row.components.get("street"):
            continue
        get = row.components.get
        key = (row.country_code, *(get(name, "") for name in PATH[1:]))
        own, around, _ = found[key]
        own.update(tokens(get("street")))
        for name in ("district", "town", "region", "region_code"):
            around.update(tokens(get(name, "")))
        around.update(tokens(get("postcode", "")), {compact(get("postcode", ""))})
        found[key][2] += 1
    return dict(found)


def obvious_answer(streets, typed):
    """Streets that have every word, the last one begun, and one of them in their own name."""
    *whole, last = typed

    def has(words, token, begun):
        long_forms = typed_long_forms(token, unfinished=begun)
        return any(w.startswith(token) if begun else w == token for w in words) or any(
            w in long_forms for w in words
        )

    return {
        key: count
        for key, (own, around, count) in streets.items()
        if all(has(own | around, t, False) for t in whole)
        and has(own | around, last, True)
        and (has(own, last, True) or any(has(own, t, False) for t in whole))
    }


def words_of(streets):
    return sorted({w for own, around, _ in streets.values() for w in own | around if w.isalpha()})


def test_a_word_typed_twice_is_finished_the_first_time(gazetteer, streets):
    """`e e`: the first means the whole word e, only the last one may go on."""
    held_to_the_rows(gazetteer, streets, ["e", "e"])


@given(data=st.data())
@settings(deadline=None, max_examples=150)
def test_search_finds_exactly_the_streets_that_hold_every_word(gazetteer, streets, data):
    words = words_of(streets)
    typed = data.draw(st.lists(st.sampled_from(words), min_size=1, max_size=3, unique=True))
    cut = data.draw(st.integers(1, len(typed[-1])))
    typed[-1] = typed[-1][:cut]
    held_to_the_rows(gazetteer, streets, typed)


def held_to_the_rows(gazetteer, streets, typed):
    expected = obvious_answer(streets, typed)
    if not expected:
        return  # then looser interpretations are tried, which have tests of their own
    rows = gazetteer.suggest(
        SearchRequest(
            " ".join(typed), countries=tuple(KEYS), kinds=("street", "address"), limit=2000
        )
    )
    groups = [row for row in rows if row.kind == "street"]
    assert sorted(r.count for r in groups) == sorted(c for c in expected.values() if c > 1), typed


@given(st.sets(st.text(max_size=6), min_size=1, max_size=40), st.text(max_size=4))
def test_a_sorted_pool_finds_texts_and_prefixes_as_a_list_would(texts, wanted):
    ordered = sorted(texts, key=str.encode)
    arrays = sorted_pool_arrays("p", ordered)
    pool = WordPool(arrays["p_bytes"], arrays["p_ends"], arrays["p_keys"])
    assert [pool[i] for i in range(len(pool))] == ordered
    found = pool.find(wanted)
    assert (None if found is None else ordered[found]) == (wanted if wanted in texts else None)
    first, end = pool.prefix_range(wanted)
    assert ordered[first:end] == [t for t in ordered if t.encode().startswith(wanted.encode())]
