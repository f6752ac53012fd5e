import pytest

from anchorline.core.gazetteer.postcodes import PostcodeAddresses, PostcodesBegun
from anchorline.core.text import natural_key


@pytest.mark.parametrize("typed", ["QV1 1QF", "qv11qf", "QV1-1QF"])
def test_a_whole_postcode_holds_its_addresses_in_natural_order(gazetteer, layouts, world, typed):
    found = gazetteer.postcode(layouts.require("GB"), typed)
    assert isinstance(found, PostcodeAddresses)
    expected = {r.id for r in world if r.components.get("postcode") == "QV1 1QF"}
    assert {i.split(":")[1] for i, _ in found.addresses} == expected
    numbers = [gazetteer.address(i)[0].components.get("number", "") for i, _ in found.addresses]
    assert numbers == sorted(numbers, key=natural_key)


def test_a_partial_postcode_lists_postcodes_with_counts_and_towns(gazetteer, layouts, world):
    found = gazetteer.postcode(layouts.require("GB"), "qv1 1q")
    assert isinstance(found, PostcodesBegun)
    counts = {}
    for row in world:
        postcode = row.components.get("postcode", "")
        if row.country_code == "GB" and postcode.startswith("QV1 1Q"):
            counts[postcode] = counts.get(postcode, 0) + 1
    assert dict(found.postcodes) == counts
    assert found.total == len(counts)
    assert found.towns == ("Brackwater",)


def test_a_postcode_of_another_country_is_not_found(gazetteer, layouts):
    assert gazetteer.postcode(layouts.require("US"), "QV1 1QF") is None
    assert gazetteer.postcode(layouts.require("GB"), "QV99 9ZZ") is None
