"""Short forms, transliterations and what is highlighted for them."""

from importlib import resources

import pytest

from anchorline.core.abbreviations import (
    index_words,
    same_words,
    typed_long_forms,
    typed_transliterated,
)
from anchorline.core.match_ranges import match_ranges
from anchorline.core.text import fold
from anchorline.yaml_documents import read_yaml


@pytest.mark.parametrize(
    ("text", "language", "words"),
    [
        ("Mill St", "en", ["mill", "saint", "street"]),
        ("St Bride's Rd", "en", ["saint", "street", "brides", "road"]),
        ("Bd Victor", "fr", ["boulevard", "victor"]),
        ("Bd Victor", "de", ["bd", "victor"]),
        ("Müllerstr.", "de", ["mullerstrasse", "muellerstrasse"]),
        ("Kerkstr. 1", "nl", ["kerkstraat", "1"]),
        ("Søndervej", "da", ["sondervej", "soendervej"]),
        ("Główna", "pl", ["glowna"]),
        ("Straße", "de", ["strasse"]),
    ],
)
def test_words_are_indexed_in_their_long_forms_and_transliterated(text, language, words):
    found = index_words(text, [language])
    assert sorted(word for word, _ in found) == sorted(words)


def test_all_forms_of_a_token_have_its_place():
    found = index_words("St Anne's Rd", ["en"])
    assert found == [("saint", 0), ("street", 0), ("annes", 1), ("road", 2)]
    assert [place for _, place in index_words("Große Müllerstr.", ["de"])] == [0, 1, 1]


def test_a_typed_short_form_stands_for_its_long_ones_in_any_language():
    assert {"street", "saint", "sankt", "sint"} <= set(typed_long_forms("st"))
    assert "hauptstrasse" in typed_long_forms("hauptstr")
    assert typed_long_forms("street") == ()
    assert "boulevard" in typed_long_forms("bl", unfinished=True)
    assert "boulevard" not in typed_long_forms("bl")


def test_a_typed_umlaut_is_read_both_ways():
    assert typed_transliterated("Müller Øster") == ["mueller", "oester"]
    assert typed_transliterated("Muller") is None


@pytest.mark.parametrize(
    ("typed", "label", "marked"),
    [
        ("street", "Mill St", "St"),
        ("st", "Mill Street", "Street"),
        ("mueller", "Müller Weg", "Müller"),
    ],
)
def test_another_spelling_of_the_same_word_is_highlighted(typed, label, marked):
    (found,) = match_ranges(label, {typed, *same_words(typed)}, [])
    assert label[slice(*found)] == marked


def test_the_file_of_short_forms_is_folded_and_says_nothing_twice():
    path = resources.files("anchorline.core") / "data" / "abbreviations.yaml"
    for language, document in read_yaml(path.read_bytes()).items():
        for long, shorts in document["words"].items():
            assert [fold(word) for word in (long, *shorts)] == [long, *shorts], language
            assert len(set(shorts)) == len(shorts)
            assert long not in shorts
