"""Which target a screen is of: the most exact one that matches, with the reason.

Of several that match, the one wins whose screen has more conditions that hold; with as many, the
one with more exact comparisons (`is` before `begins` and `ends` before `contains`), then the one
that compares more characters, then the one with more `lacks`. What is still alike is a tie: it is
said, and a person chooses.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from .facts import Look
from .signature import Signature


@dataclass(frozen=True, slots=True)
class Candidate:
    """A target that may be meant."""

    target: str
    title: str
    screens: tuple[Signature, ...]


@dataclass(frozen=True, slots=True)
class ConditionTrace:
    """A condition in words, whether it held, and what was seen of its kind."""

    says: str
    held: bool
    seen: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class ScreenTrace:
    """What came of one screen of one target.

    Attributes:
        place: 1 for the most exact that matched; screens alike in that share it; 0 for none.
        because: why it was taken, or not.
    """

    target: str
    title: str
    screen: str
    label: str
    matched: bool
    place: int
    because: str
    conditions: tuple[ConditionTrace, ...]


@dataclass(frozen=True, slots=True)
class Recognition:
    """What a screen is.

    Attributes:
        chosen: the screens that match most exactly; several are a tie, none is nothing known.
        trace: every screen that was looked at, the best first.
    """

    chosen: tuple[ScreenTrace, ...]
    trace: tuple[ScreenTrace, ...]

    @property
    def is_tie(self) -> bool:
        """Whether several targets match as exactly as each other."""
        return len({one.target for one in self.chosen}) > 1


_MOST_SEEN = 5


def recognise(look: Look, candidates: Sequence[Candidate]) -> Recognition:
    """Which target a look is of, and why not the others."""
    matching = [
        (screen.exactness(look), candidate, screen)
        for candidate in candidates
        for screen in candidate.screens
        if screen.matches(look)
    ]
    ranks = sorted({exactness for exactness, _, _ in matching}, reverse=True)
    found = [
        _trace(look, candidate, screen, ranks.index(exactness) + 1)
        for exactness, candidate, screen in matching
    ]
    matched = {(one.target, one.screen) for one in found}
    missed = [
        _trace(look, candidate, screen, 0)
        for candidate in candidates
        for screen in candidate.screens
        if (candidate.target, screen.key) not in matched
    ]
    found.sort(key=lambda one: one.place)
    missed.sort(key=lambda one: -sum(condition.held for condition in one.conditions))
    return Recognition(tuple(one for one in found if one.place == 1), (*found, *missed))


def _trace(look: Look, candidate: Candidate, screen: Signature, place: int) -> ScreenTrace:
    conditions = tuple(
        ConditionTrace(one.says(), one.holds(look), tuple(look.texts(one.kind)[:_MOST_SEEN]))
        for one in screen.conditions
    )
    return ScreenTrace(
        candidate.target, candidate.title, screen.key, screen.label, place > 0, place,
        _because(screen, conditions, place), conditions,
    )  # fmt: skip


def _because(screen: Signature, conditions: Sequence[ConditionTrace], place: int) -> str:
    held = sum(condition.held for condition in conditions)
    if place == 1:
        return f"{held} of {len(conditions)} conditions hold, and none tells it more exactly."
    if place:
        return "It matches, but another one tells the screen more exactly."
    if not conditions:
        return "It has no conditions."
    if screen.needs == "any":
        return "None of its conditions holds."
    failed = [condition.says for condition in conditions if not condition.held]
    more = f", and {len(failed) - 1} more" if len(failed) > 1 else ""
    return f"It does not hold that {failed[0]}{more}."
