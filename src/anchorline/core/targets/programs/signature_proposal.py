"""A signature proposed from looks: at one screen, and at others that it must not match."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from .facts import FACT_KINDS, Fact, Look, folded
from .signature import Condition
from .steadiness import FEWEST_STEADY, steady_end, steady_start

# Where a title that is seen once goes over to what is of one record: a number, or a separator.
_OF_RECORD = re.compile(r"\s*[-–—:|#(\[]\s|\s*\d")
# Kinds that say little of a screen: they are proposed only to tell it from others.
_ALWAYS = ("program", "title")


@dataclass(frozen=True, slots=True)
class ConditionProposal:
    """A condition, and why it is proposed."""

    condition: Condition
    because: str


@dataclass(frozen=True, slots=True)
class SignatureProposal:
    """Conditions that may be meant.

    Attributes:
        also_matched: places, from 0, of the other looks that they match nevertheless.
    """

    conditions: tuple[ConditionProposal, ...]
    also_matched: tuple[int, ...]


def propose_signature(looks: Sequence[Look], others: Sequence[Look]) -> SignatureProposal:
    """Conditions that all of the looks meet, and as few of the others as can be.

    Args:
        looks: at the screen, the latest last; at least one.
        others: at screens that are not to match.
    """
    offered = [one for one in _offered(looks) if all(one.condition.holds(look) for look in looks)]
    chosen = [one for kind in _ALWAYS for one in offered if one.condition.kind == kind][:3]
    if not chosen:
        chosen = offered[:1]
    left = [at for at, look in enumerate(others) if _all_hold(chosen, look)]
    remaining = [one for one in [*offered, *_absences(looks, others)] if one not in chosen]
    while left and remaining:
        best = min(remaining, key=lambda one: sum(one.condition.holds(others[at]) for at in left))
        told = [at for at in left if not best.condition.holds(others[at])]
        if not told:
            break
        count = f"{len(told)} of the other looks" if len(told) > 1 else "another look"
        because = f"{best.because} It tells the screen from {count}."
        chosen.append(ConditionProposal(best.condition, because))
        remaining.remove(best)
        left = [at for at in left if at not in told]
    return SignatureProposal(tuple(chosen), tuple(left))


def _all_hold(chosen: Sequence[ConditionProposal], look: Look) -> bool:
    return all(one.condition.holds(look) for one in chosen)


def _offered(looks: Sequence[Look]) -> Iterator[ConditionProposal]:
    """Conditions that the looks could meet, the best first."""
    latest = looks[-1]
    for kind in sorted(FACT_KINDS, key=lambda name: FACT_KINDS[name].rank):
        for text in dict.fromkeys(latest.texts(kind)):
            yield from _of_text(Fact(kind, text), looks)


def _of_text(fact: Fact, looks: Sequence[Look]) -> Iterator[ConditionProposal]:
    seen = [look.texts(fact.kind) for look in looks]
    if all(folded(fact.text) in map(folded, texts) for texts in seen):
        if fact.kind == "title" and len(looks) == 1:
            yield from _of_one_title(fact.text)
            return
        often = f"in all {len(looks)} looks" if len(looks) > 1 else "in the look"
        yield ConditionProposal(Condition(fact.kind, "is", fact.text), f"It is so {often}.")
        return
    if FACT_KINDS[fact.kind].several or not all(seen):
        return
    texts = [one[0] for one in seen]
    start, end = steady_start(texts), steady_end(texts)
    because = f"This part is the same in all {len(looks)} looks; the rest of it varies."
    if start:
        yield ConditionProposal(Condition(fact.kind, "begins", start), because)
    if end:
        yield ConditionProposal(Condition(fact.kind, "ends", end), because)


def _of_one_title(title: str) -> Iterator[ConditionProposal]:
    """A title that was seen once: what stands before a number or a separator is likely to stay."""
    found = _OF_RECORD.search(title)
    start = title[: found.start()].rstrip() if found else ""
    if len(start) >= FEWEST_STEADY:
        because = (
            f"What comes after it, “{title[len(start) :].strip()}”, is likely to be of this record "
            "alone: look at another one to be sure."
        )
        blank = " " if title[len(start) :][:1].isspace() else ""
        yield ConditionProposal(Condition("title", "begins", start + blank), because)
    else:
        yield ConditionProposal(Condition("title", "is", title), "It is so in the look.")


def _absences(looks: Sequence[Look], others: Sequence[Look]) -> Iterator[ConditionProposal]:
    """What only the others have."""
    for fact in dict.fromkeys(fact for look in others for fact in look.facts):
        condition = Condition(fact.kind, "lacks", fact.text)
        if fact.kind in ("text", "terminal", "tab", "title", "running") and all(
            condition.holds(look) for look in looks
        ):
            yield ConditionProposal(condition, "No look at the screen has it.")
