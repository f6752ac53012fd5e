"""What is typed in a hurry: a number and a name as one, a slip beside a short word, other digits."""

import pytest

from anchorline.core.gazetteer import Edition, Gazetteer, Row, SearchRequest, build_edition
from anchorline.core.layouts import shipped_layouts

TOWNS = ("Bad Filberg", "Bad Filden", "Bad Ostern", "Filberg", "Sankt Moorkirch", "Alt Zell")
STREETS = ("Griernstraße", "Lindenstraße", "Badstraße", "Moorweg", "Tannenbergallee", "Am Bad",
           "Kirchgrabenstraße", "Oberer Wiesenpfad", "3rd Kiln Lane")  # fmt: skip


@pytest.fixture(scope="module")
def found():
    rows = [
        Row(
            f"X{t:02}{s:02}{number:02}", "DE",
            {"street": street, "town": town, "number": str(number), "postcode": f"000{t + 10}"},
            "de", 50 + t / 10 + s / 1000, 8 + number / 10_000, "residential",
        )
        for t, town in enumerate(TOWNS)
        for s, street in enumerate(STREETS)
        for number in range(1, 5)
    ]  # fmt: skip
    built = build_edition(rows, shipped_layouts())
    gazetteer = Gazetteer([Edition("t", 1, built.manifest, built.arrays)], shipped_layouts())
    return lambda text: gazetteer.search(SearchRequest(text))


def slips(word):
    """A word with one letter replaced, left out, or swapped with its neighbour, in its middle."""
    middle = len(word) // 2
    yield f"{word[:middle]}x{word[middle + 1 :]}"
    yield word[:middle] + word[middle + 1 :]
    yield word[: middle - 1] + word[middle] + word[middle - 1] + word[middle + 1 :]


@pytest.mark.parametrize("street", ["Griernstraße", "Lindenstraße", "Tannenbergallee"])
@pytest.mark.parametrize("town", ["Bad Filberg", "Bad Ostern", "Sankt Moorkirch", "Alt Zell"])
@pytest.mark.parametrize("letters", [2, 3, 4])
def test_a_slip_beside_a_whole_short_word_and_a_word_that_is_begun(found, street, town, letters):
    first, second = town.split()
    for slip in slips(street):
        rows = found(f"{slip} {first} {second[:letters]}").rows
        assert rows, slip
        assert rows[0].label.startswith(street), slip
        assert town in rows[0].label, slip


@pytest.mark.parametrize(
    ("typed", "label"),
    [
        ("3griernstraße bad filberg", "Griernstraße 3, 00010 Bad Filberg"),
        ("3griern bad filberg", "Griernstraße 3, 00010 Bad Filberg"),
        ("griernstraße3 bad filberg", "Griernstraße 3, 00010 Bad Filberg"),
        ("2moorweg alt zell", "Moorweg 2, 00015 Alt Zell"),
        ("3griernctraße bad filberg", "Griernstraße 3, 00010 Bad Filberg"),
        ("٣ griernstraße bad filberg", "Griernstraße 3, 00010 Bad Filberg"),
        ("griernstraße ３ bad filberg", "Griernstraße 3, 00010 Bad Filberg"),
        ("moorweg 2 ०००१५", "Moorweg 2, 00015 Alt Zell"),
    ],
)
def test_a_number_typed_with_a_name_or_in_other_digits_is_that_number(found, typed, label):
    assert found(typed).rows[0].label == label


def test_a_word_that_begins_with_a_digit_is_not_taken_apart(found):
    assert "3rd Kiln Lane" in found("3rd kiln alt zell").rows[0].label
    assert "3rd Kiln Lane" in found("2 3rd kiln alt zell").rows[0].label


def test_a_number_that_the_street_lacks_is_said_to_be_missing(found):
    answer = found("99griernstraße bad filberg")
    assert answer.rows[0].label.startswith("Griernstraße")
    assert answer.unmatched == ("99",)
