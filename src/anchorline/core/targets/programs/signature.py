"""How a program's screen is recognised: conditions on what is seen of it.

Texts are compared without case and with single blanks; `Web order ` with a blank at its end begins
`Web order 7` and not `Web orders`. Of a kind that can be seen several times,
one fact that passes is enough; `lacks` asks that none contains the text.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ...faults import Faults
from .facts import FACT_KINDS, Look, folded


@dataclass(frozen=True, slots=True)
class ConditionTest:
    """How a fact's text is compared with a condition's.

    Attributes:
        says: the comparison as a verb.
        passes: takes the fact's text and the condition's, both folded.
        exactness: 3 for the whole text, 2 for one end of it, 1 for some of it, 0 for its absence.
    """

    says: str
    passes: Callable[[str, str], bool]
    exactness: int


TESTS: dict[str, ConditionTest] = {
    "is": ConditionTest("is", lambda seen, text: seen == text, 3),
    "begins": ConditionTest("begins with", str.startswith, 2),
    "ends": ConditionTest("ends with", str.endswith, 2),
    "contains": ConditionTest("contains", lambda seen, text: text in seen, 1),
    "lacks": ConditionTest("lacks", lambda seen, text: text not in seen, 0),
}
NEEDS: dict[str, str] = {"all": "all of these hold", "any": "any of these holds"}


@dataclass(frozen=True, slots=True)
class Condition:
    """A key of FACT_KINDS, a key of TESTS, and a text."""

    kind: str
    test: str
    text: str

    def holds(self, look: Look) -> bool:
        """Whether a look passes."""
        wanted = self._wanted()
        results = [TESTS[self.test].passes(folded(seen), wanted) for seen in look.texts(self.kind)]
        return all(results) if self.test == "lacks" else any(results)

    def _wanted(self) -> str:
        """The text to compare with; a blank at its open end says that a word ends there."""
        text = folded(self.text)
        if self.test == "begins" and self.text[-1:].isspace():
            return f"{text} "
        if self.test == "ends" and self.text[:1].isspace():
            return f" {text}"
        return text

    def says(self) -> str:
        """The condition in words."""
        return f"{FACT_KINDS[self.kind].says} {TESTS[self.test].says} “{self.text}”"


@dataclass(frozen=True, slots=True)
class Signature:
    """One screen of a program.

    Attributes:
        key: names the screen within its target.
        needs: a key of NEEDS.
    """

    key: str
    label: str
    needs: str
    conditions: tuple[Condition, ...]

    def matches(self, look: Look) -> bool:
        """Whether this is the screen; one without conditions is never recognised."""
        results = [condition.holds(look) for condition in self.conditions]
        return bool(results) and (all(results) if self.needs == "all" else any(results))

    def exactness(self, look: Look) -> tuple[int, int, int, int]:
        """How exactly it tells a screen that it matches; the greater, the more exactly.

        Conditions that hold, then how exact their comparisons are together, then the characters
        compared, then those that ask for an absence. Of a screen that needs any of its conditions,
        the best one counts alone.
        """
        held = [condition for condition in self.conditions if condition.holds(look)]
        weighed = [
            (1, TESTS[one.test].exactness, len(folded(one.text)), 0)
            if one.test != "lacks"
            else (0, 0, 0, 1)
            for one in held
        ]
        if self.needs == "any":
            return max(weighed, default=(0, 0, 0, 0))
        return (
            sum(one[0] for one in weighed),
            sum(one[1] for one in weighed),
            sum(one[2] for one in weighed),
            sum(one[3] for one in weighed),
        )


def read_signature(entry: Mapping[str, Any], pointer: str, faults: Faults) -> Signature:
    """A screen of a document, and what is wrong with it."""
    needs = entry.get("needs") or "all"
    faults.one_of("way to need conditions", needs, NEEDS, f"{pointer}/needs")
    conditions: list[Condition] = []
    given: Sequence[Mapping[str, Any]] = entry.get("conditions") or ()
    for at, one in enumerate(given):
        place = f"{pointer}/conditions/{at}"
        kind, test, text = one["kind"], one.get("test") or "is", one.get("text") or ""
        known = kind in FACT_KINDS and test in TESTS
        faults.one_of("kind of fact", kind, FACT_KINDS, f"{place}/kind")
        faults.one_of("comparison", test, TESTS, f"{place}/test")
        if not text.strip():
            faults.say(f"{place}/text", "Give the text to compare with, or take the condition out.")
        elif known:
            conditions.append(Condition(kind, test, text))
    if not given:
        faults.say(f"{pointer}/conditions", "Say what it is recognised by: a condition or more.")
    elif conditions and all(one.test == "lacks" for one in conditions):
        detail = "These only say what the screen lacks: add what it has, such as its program."
        faults.say(f"{pointer}/conditions", detail)
    label = entry.get("label") or entry["key"]
    return Signature(entry["key"], label, needs, tuple(conditions))
