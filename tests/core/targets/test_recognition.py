"""Recognition: whose screen it is, why not the others, and conditions that are proposed."""

import random
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.faults import Faults
from anchorline.core.targets.programs import Fact, Look, recognise
from anchorline.core.targets.programs.facts import FACT_KINDS, look_of
from anchorline.core.targets.programs.recognition import Candidate
from anchorline.core.targets.programs.signature import TESTS, Condition, Signature, read_signature
from anchorline.core.targets.programs.signature_proposal import propose_signature
from anchorline.core.targets.programs.steadiness import compared
from anchorline.yaml_documents import read_yaml

RECORDED = read_yaml((Path(__file__).parents[2] / "vectors/looks.yaml").read_bytes())
OWN = [(name, look_of(facts)) for name, looks in RECORDED["stand_ins"].items() for facts in looks]
OTHERS = [look_of(facts) for facts in RECORDED["others"]]
FACTS = st.builds(
    Fact, st.sampled_from(list(FACT_KINDS)), st.sampled_from(["a", "ab", "Ab c", "c", "b c"])
)
LOOKS = st.builds(Look, st.lists(FACTS, max_size=6).map(tuple))
CONDITIONS = st.builds(
    Condition, st.sampled_from(list(FACT_KINDS)), st.sampled_from(list(TESTS)),
    st.sampled_from(["a", "ab", "c", " c"]),
)  # fmt: skip


def screen(*conditions, needs="all", key="s"):
    return Signature(key, key, needs, conditions)


def candidates():
    """A target for each stand-in, from its first two looks and one of each other stand-in."""
    found = []
    for name in RECORDED["stand_ins"]:
        looks = [look for of, look in OWN if of == name][:2]
        others = [look for of, look in OWN if of != name][::5]
        proposed = propose_signature(looks, others)
        assert proposed.also_matched == (), name
        found.append(Candidate(name, name, (screen(*(p.condition for p in proposed.conditions)),)))
    return found


def test_every_recorded_look_is_recognised_and_no_other_is():
    assert len(OWN) >= 40
    assert len(OTHERS) >= 40
    targets = candidates()
    for name, look in OWN:
        assert [one.target for one in recognise(look, targets).chosen] == [name], look
    for look in OTHERS:
        assert recognise(look, targets).chosen == (), look


@given(
    LOOKS,
    st.lists(CONDITIONS, min_size=1, max_size=5),
    st.sampled_from(["all", "any"]),
    st.randoms(),
)
def test_the_order_of_conditions_does_not_matter(look, conditions, needs, chance):
    shuffled = list(conditions)
    chance.shuffle(shuffled)
    one, other = screen(*conditions, needs=needs), screen(*shuffled, needs=needs)
    assert one.matches(look) == other.matches(look)
    assert one.exactness(look) == other.exactness(look)


@given(LOOKS, st.lists(CONDITIONS, min_size=1, max_size=4), CONDITIONS)
def test_a_further_condition_never_makes_more_screens_match(look, conditions, more):
    if screen(*conditions, more).matches(look):
        assert screen(*conditions).matches(look)
    if screen(*conditions, needs="any").matches(look):
        assert screen(*conditions, more, needs="any").matches(look)


def test_the_most_exact_wins_and_the_trace_says_why_not_the_others():
    look = Look((Fact("program", "ledger"), Fact("title", "Contact 7 - Ada")))
    wide = Candidate("wide", "All of it", (screen(Condition("program", "is", "Ledger")),))
    exact = Candidate(
        "exact", "A contact",
        (screen(Condition("program", "is", "ledger"), Condition("title", "begins", "contact")),),
    )  # fmt: skip
    other = Candidate("other", "Search", (screen(Condition("title", "begins", "Search")),))
    found = recognise(look, [other, wide, exact])
    assert [one.target for one in found.chosen] == ["exact"]
    assert not found.is_tie
    assert [(one.target, one.place) for one in found.trace] == [
        ("exact", 1),
        ("wide", 2),
        ("other", 0),
    ]
    assert found.trace[1].because == "It matches, but another one tells the screen more exactly."
    assert found.trace[2].because == (
        "It does not hold that the title of the window begins with “Search”."
    )


def test_alike_targets_are_a_tie():
    look = Look((Fact("title", "Contact"),))
    two = [Candidate(key, key, (screen(Condition("title", "is", "Contact")),)) for key in "ab"]
    found = recognise(look, two)
    assert found.is_tie
    assert {one.target for one in found.chosen} == {"a", "b"}


def test_a_varying_title_is_recognised_by_what_stays():
    looks = [
        Look((Fact("program", "x"), Fact("title", f"Contact {n} - {who} - Ledger")))
        for n, who in ((7, "Ada"), (12, "Bo Li"))
    ]
    proposed = [
        (p.condition.test, p.condition.text) for p in propose_signature(looks, []).conditions
    ]
    assert proposed == [("is", "x"), ("begins", "Contact "), ("ends", " - Ledger")]
    (_, title) = compared(looks)
    assert [(piece.text, piece.steady) for piece in title.pieces] == [
        ("Contact ", True), ("12 - Bo Li", False), (" - Ledger", True),
    ]  # fmt: skip


def test_other_screens_are_told_apart_also_by_what_they_have():
    here = Look((Fact("program", "x"), Fact("title", "Ledger"), Fact("text", "Street")))
    there = Look(
        (
            Fact("program", "x"),
            Fact("title", "Ledger"),
            Fact("text", "Street"),
            Fact("text", "Search"),
        )
    )
    proposed = propose_signature([here], [there])
    assert proposed.also_matched == ()
    assert proposed.conditions[-1].condition == Condition("text", "lacks", "Search")
    same = propose_signature([here], [here])
    assert same.also_matched == (0,)


@pytest.mark.parametrize(
    ("entry", "said"),
    [
        ({}, "Say what it is recognised by"),
        ({"conditions": [{"kind": "titel", "text": "x"}]}, "Did you mean title"),
        (
            {"conditions": [{"kind": "title", "test": "contain", "text": "x"}]},
            "Did you mean contains",
        ),
        ({"conditions": [{"kind": "title", "text": " "}]}, "Give the text to compare with"),
        ({"conditions": [{"kind": "title", "test": "lacks", "text": "x"}]}, "add what it has"),
        ({"needs": "some", "conditions": [{"kind": "title", "text": "x"}]}, "There is no way"),
    ],
)
def test_what_is_wrong_with_a_signature_is_said(entry, said):
    faults = Faults()
    read_signature({"key": "s", **entry}, "/screens/0", faults)
    assert any(said in one.detail for one in faults.problems), faults.problems
    assert all(one.pointer.startswith("/screens/0") for one in faults.problems)


def test_the_screens_of_a_target_are_each_enough():
    adding, editing = (screen(Condition("title", "is", text), key=text) for text in ("Add", "Edit"))
    target = Candidate("t", "T", (adding, editing))
    rng = random.Random(1)
    for text in rng.sample(["Add", "Edit"], 2):
        assert recognise(Look((Fact("title", text),)), [target]).chosen[0].screen == text
