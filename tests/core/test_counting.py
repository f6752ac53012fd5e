from anchorline.core.counting import counted


def test_numbers_come_with_their_nouns():
    assert counted(1, "row") == "1 row"
    assert counted(0, "row") == "0 rows"
    assert counted(1234, "row") == "1,234 rows"
    assert counted(2, "address", "addresses") == "2 addresses"
    assert counted(1, "address", "addresses") == "1 address"
