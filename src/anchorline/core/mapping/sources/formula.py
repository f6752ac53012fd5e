"""What a formula over components and facts comes to."""

from __future__ import annotations

from dataclasses import dataclass

from ...address import COMPONENT_SET
from ...faults import Faults
from ...formula import PROBLEMS, Formula, FormulaError, Problem, check, evaluate
from ...formula.values import to_text
from ..known import FACTS, FORMULA_NAMES, KnownAddress
from ..rules import Note, Put, Rule, Surroundings
from .kind import SOURCES, Entry, ReadRules, SourceKind, named_into, nothing, put_text


@dataclass(frozen=True, slots=True)
class Worked:
    """A formula; None where the one that was written can never be worked out."""

    formula: Formula | None

    @property
    def takes(self) -> tuple[str, ...]:
        """The components and facts that it speaks of."""
        names = self.formula.fields if self.formula else set()
        return tuple(name for name in (*COMPONENT_SET, *FACTS) if name in names)

    def text(self, known: KnownAddress, around: Surroundings) -> Put:
        """What it comes to, as a text."""
        formula = self.formula
        value = evaluate(formula.tree, known.given, around.budget) if formula else None
        text = to_text(value)
        if isinstance(text, Problem):
            return Put("", "", (), (Note("noted", PROBLEMS[text.code], is_warning=True),))
        if not text:
            return nothing("nothing to write: the formula comes to nothing")
        return Put("", text, tuple(name for name in self.takes if known.given.values.get(name)))

    takes_rest = False

    def put(self, rule: Rule, known: KnownAddress, around: Surroundings) -> list[Put]:
        """See `rules.Source`."""
        return put_text(self.text(known, around), rule, known, around)


def read_formula(text: str, pointer: str, faults: Faults) -> Formula | None:
    """A formula over the components and facts of an address; None where it can never be."""
    try:
        return check(text, FORMULA_NAMES)
    except FormulaError as error:
        faults.say(pointer, error.detail, error.at, error.length)
        return None


def _read(entry: Entry, pointer: str, faults: Faults, _rules: ReadRules) -> Worked:
    return Worked(read_formula(entry["formula"], f"{pointer}/formula", faults))


SOURCES["formula"] = SourceKind("formula", _read, named_into)
