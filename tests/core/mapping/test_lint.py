import pytest

from anchorline.core.faults import Faults
from anchorline.core.mapping import Receiver, fill, read_rules
from anchorline.core.mapping.lint import CHECKS, Case, Run, lint

from .filling import LAYOUTS, address

MILL = {"number": "12a", "street": "Mill Lane", "town": "Marl", "postcode": "QV1 4AB"}
PARTS = ["number", "street", "town", "postcode"]
EACH = [{"components": [name], "into": f"s_{name}"} for name in PARTS]
RECEIVERS = {
    **{f"s_{n}": Receiver(f"s_{n}", n.capitalize(), 60, component=n, slot="s") for n in PARTS},
    "other": Receiver("other", "Other town", component="town", slot="billing"),
    "code": Receiver("code", "State", 2),
    "line": Receiver("line", "Line", 9, refuses=lambda text: "Too long." if len(text) > 9 else ""),
    "count": Receiver("count", "Count", type="number", refuses=lambda text: "No number."),
    "note": Receiver("note", "Note", type="note", is_filled=False),
    "place": Receiver("place", "Place", type="link", form="town"),
    "free": Receiver("free", "Free"),
}  # fmt: skip


def findings(mapping, *, parts=PARTS, countries=("GB",), addresses=(MILL,), **slot):
    """What is found: check, pointer and severity."""
    return [
        (f.check, f.pointer, f.severity) for f in found(mapping, parts, countries, addresses, slot)
    ]


def found(mapping, parts=PARTS, countries=("GB",), addresses=(MILL,), slot=None):
    faults = Faults()
    rules = read_rules(mapping, "/slots/0/mapping", faults)
    assert not faults.problems, faults.problems
    known = [address(one, countries[0]) for one in addresses]
    document = {"parts": [{"key": f"s_{name}"} for name in parts], **(slot or {})}
    case = Case(
        "/slots/0", "s", document, rules, RECEIVERS, [LAYOUTS.require(c) for c in countries],
        [Run(one, fill(rules, RECEIVERS, one)) for one in known], forms={"town": ["name", "county"]},
    )  # fmt: skip
    return lint(case)


def rule(*components, into="free", **more):
    return {"components": list(components), "into": into, **more}


def test_a_mapping_of_all_parts_has_nothing_wrong_with_it():
    assert findings(EACH) == []


FIND = [rule("town", into="name")]
CASES = [
    # written_twice
    ([*EACH, rule("po_box", into="s_street")],
     ("written_twice", "/slots/0/mapping/4/if_written", "problem")),
    # unfilled_parts
    ([], ("unfilled_parts", "/slots/0/mapping", "problem")),
    (EACH[:1] + EACH[2:], ("unfilled_parts", "/slots/0/parts/1", "problem")),
    (EACH[1:], ("unfilled_parts", "/slots/0/parts/0", "warning")),
    # refused_texts
    ([*EACH, rule("street", into="count")], ("refused_texts", "/slots/0/mapping/4", "problem")),
    ([*EACH, rule("street", into="note")], ("refused_texts", "/slots/0/mapping/4/into", "problem")),
    # losses
    ([*EACH, rule("street", into="line", changes=[{"shorten": 4}])],
     ("losses", "/slots/0/mapping/4", "warning")),
    # other_slots
    ([*EACH, rule("town", into="other")], ("other_slots", "/slots/0/mapping/4/into", "problem")),
    # short_regions
    ([*EACH, rule("town", "region", into="code", changes=["shorten"])],
     ("short_regions", "/slots/0/mapping/4/components/1", "problem")),
    # never_applies
    ([*EACH, rule("town", when='country_code = "FR"')],
     ("never_applies", "/slots/0/mapping/4/when", "problem")),
    ([*EACH, rule("town", when='AND(use = "bussiness"; latitude > 1)')],
     ("never_applies", "/slots/0/mapping/4/when", "problem")),
    ([*EACH, rule("town", when="1 = 2")], ("never_applies", "/slots/0/mapping/4/when", "problem")),
    ([*EACH, rule("town", when='town = "Bell"')],
     ("never_applies", "/slots/0/mapping/4/when", "warning")),
    ([rule("town", otherwise=True), *EACH],
     ("never_applies", "/slots/0/mapping/0/otherwise", "warning")),
    ([*EACH, rule("town", otherwise=True)],
     ("never_applies", "/slots/0/mapping/4/otherwise", "problem")),
    # links
    ([*EACH, {"link": {"form": "town", "find": FIND}, "into": "free"}],
     ("links", "/slots/0/mapping/4/into", "problem")),
    ([*EACH, {"link": {"form": "twon", "find": FIND}, "into": "place"}],
     ("links", "/slots/0/mapping/4/link/form", "problem")),
    ([*EACH, {"link": {"form": "town", "find": [rule("town", into="nmae")]}, "into": "place"}],
     ("links", "/slots/0/mapping/4/link/find/0/into", "problem")),
]  # fmt: skip


@pytest.mark.parametrize(("mapping", "finding"), CASES)
def test_what_is_wrong_is_found_at_its_place(mapping, finding):
    assert finding in findings(mapping)


def test_every_check_has_a_case():
    assert {finding[0] for _, finding in CASES} | {"untaken_components"} == set(CHECKS)


@pytest.mark.parametrize(
    "mapping",
    [
        [*EACH, rule("po_box", into="s_street", if_written="leave")],
        [*EACH[:3], rule("po_box", into="free", when="NOT(ISBLANK(street))"),
         rule("street", into="free", otherwise=True), EACH[3]],
        [*EACH, rule("region", into="code", changes=[{"region": "code"}])],
        [*EACH, rule("street", into="line", changes=["shorten"])],
        [*EACH, rule("town", when='country_code = "gb"')],
        [*EACH, rule("town", when='OR(country_code = "FR"; NOT(ISBLANK(town)))')],
        [*EACH, rule("town", when='NOT(country_code = "FR")')],
        [*EACH, {"link": {"form": "town", "find": FIND}, "into": "place"}],
    ],
)  # fmt: skip
def test_what_is_right_is_left_alone(mapping):
    assert findings(mapping) == []


def test_a_slot_may_ask_for_little_and_one_without_a_box_needs_no_rules():
    assert findings(EACH[2:3], parts=["town"]) == [
        ("untaken_components", "/slots/0/mapping", "warning"),
        ("untaken_components", "/slots/0/mapping", "warning"),
        ("untaken_components", "/slots/0/mapping", "warning"),
    ]
    assert findings([], appearance="parts_only") == []


def test_a_half_of_a_region_stands_for_the_other_half():
    needed = {**MILL, "region_code": "CA"}
    assert findings([*EACH, rule("region_code")], countries=("US",), addresses=[needed]) == []


def test_findings_say_how_many_addresses_they_concern_and_offer_what_may_be_meant():
    addresses = [MILL, {**MILL, "building": "Rowan"}, {**MILL, "street": "Mill Meadow Lane"}]
    mapping = [*EACH, rule("street", into="line")]
    by_check = {one.check: one for one in found(mapping, addresses=addresses)}
    untaken, refused = by_check["untaken_components"], by_check["refused_texts"]
    assert (untaken.addresses, refused.addresses) == (1, 1)
    assert untaken.detail == (
        "No rule takes building, which 1 of 3 addresses that were looked at have. "
        "Add a rule, or leave it if the form does without."
    )
    assert "'Mill Meadow Lane': Too long. That is so for 1 of 3 addresses" in refused.detail
    typo = [*EACH, rule("town", when='use = "bussiness"')]
    assert found(typo)[0].offers == ("business",)
    twice = [*EACH, rule("po_box", into="s_street")]
    assert found(twice)[0].offers == ("append", "instead", "leave")


def test_problems_come_before_warnings():
    severities = [one.severity for one in found([rule("town", into="s_town")])]
    assert severities == sorted(severities)
    assert set(severities) == {"problem", "warning"}
