"""Filling receivers from an address by a mapping.

Filling clears every receiver that the mapping owns before it writes any, so nothing of an earlier
address can stay behind; and no component that a rule takes is lost without a warning.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from ..address import COMPONENTS
from ..formula import PROBLEMS, Budget, Formula, evaluate
from ..formula.values import to_yes_no
from .known import KnownAddress
from .rules import FindRecord, Put, Receivers, Rule, Surroundings

# Kinds of steps, each with what it says of the receiver.
TRACE_KINDS: dict[str, str] = {
    "cleared": "what stood there was taken away",
    "skipped": "the rule does not apply to this address",
    "nothing": "the address has nothing for it",
    "changed": "the text was changed on its way",
    "shortened": "the text was made shorter",
    "noted": "something is to be known of the text",
    "wrote": "the text was written",
    "appended": "the text was put behind what was there",
    "replaced": "the text took the place of what was there",
    "left": "what was there stayed, and this was not written",
    "too_long": "the text is longer than the field takes",
    "lost": "a part found no room",
    "linked": "a record of another form was found",
    "made": "a record of another form is made when this is sent",
    "looked_up_later": "a record of another form is looked up when this is sent",
    "not_linked": "there is no record of the other form",
    "not_taken": "no rule takes this part of the address",
}
# What everybody knows of an address without a rule for it.
_KNOWN_ANYWAY = frozenset({"country", "country_code", "nation"})
_HALVES = {"region": "region_code", "region_code": "region"}


@dataclass(frozen=True, slots=True)
class TraceStep:
    """One thing that filling did.

    Attributes:
        kind: a key of TRACE_KINDS.
        field: the receiver's key; empty for what concerns none.
        sources: names of the components and facts that it is about.
        detail: a sentence.
        rule: the place of the rule in the mapping; None for what no rule did.
        text: what was written.
    """

    kind: str
    field: str
    sources: tuple[str, ...]
    detail: str
    rule: int | None = None
    text: str = ""


@dataclass(frozen=True, slots=True)
class Warned:
    """What a person should know.

    Attributes:
        kind: a key of TRACE_KINDS.
        field: the receiver's key; empty for what concerns several.
        detail: a sentence with the receiver's name.
        fields: the keys of the receivers that it concerns, where it is several.
    """

    kind: str
    field: str
    detail: str
    fields: tuple[str, ...] = ()


@dataclass(slots=True)
class Fill:
    """What filling did.

    Attributes:
        values: the new text of every receiver that the mapping owns; empty where nothing goes in.
        cleared: the owned receivers that are empty now.
        labels: of links: what people know the record by.
        warnings: what a person should know.
        trace: every step, in order.
        carried: components and facts whose values are written somewhere.
    """

    values: dict[str, str] = field(default_factory=dict)
    cleared: list[str] = field(default_factory=list)
    labels: dict[str, str] = field(default_factory=dict)
    warnings: list[Warned] = field(default_factory=list)
    trace: list[TraceStep] = field(default_factory=list)
    carried: set[str] = field(default_factory=set)


def owned(mapping: Sequence[Rule]) -> list[str]:
    """Keys of the receivers that a mapping owns, each once, in the rules' order."""
    return list(dict.fromkeys(key for rule in mapping for key in rule.into))


def applying(
    mapping: Sequence[Rule], known: KnownAddress, budget: Budget | None = None
) -> list[bool]:
    """Which rules apply to an address.

    Args:
        budget: that of the whole fill; None: one for these conditions alone.
    """
    budget = budget or Budget()
    found: list[bool] = []
    is_done = False
    for rule in mapping:
        applies = rule.when is None or _is_true(rule.when, known, budget)
        applies = applies and not (rule.otherwise and is_done)
        is_done = applies or (rule.otherwise and is_done)
        found.append(applies)
    return found


def _is_true(condition: Formula, known: KnownAddress, budget: Budget) -> bool:
    return to_yes_no(evaluate(condition.tree, known.given, budget)) is True


def fill(
    mapping: Sequence[Rule],
    receivers: Receivers,
    known: KnownAddress,
    before: Mapping[str, object] | None = None,
    find: FindRecord | None = None,
    budget: Budget | None = None,
) -> Fill:
    """Fills receivers.

    Args:
        mapping: every receiver that it writes is among `receivers`.
        known: the address.
        before: what stands in the receivers; only the trace looks at it.
        find: how records of other forms are found.
        budget: steps that all its formulas may take together; None: those of a whole form.
    """
    filling = _Filling(mapping, receivers, known, budget or Budget())
    for key, value in (before or {}).items():
        if key in filling.made.values and value not in (None, "", []):
            filling.step(TraceStep("cleared", key, (), f"cleared what stood there: {value!s}"))
    filling.apply(find)
    return filling.made


def takes_everything_left(rule: Rule) -> bool:
    """Whether a rule takes all that no other one does, whatever an address has."""
    return rule.source.takes_rest and not rule.source.takes


class _Filling:
    def __init__(
        self, mapping: Sequence[Rule], receivers: Receivers, known: KnownAddress, budget: Budget
    ) -> None:
        self._budget = budget
        self.made = Fill(values=dict.fromkeys(owned(mapping), ""))
        self._mapping, self._receivers, self._known = mapping, receivers, known
        # Whose values stand in each receiver now.
        self._held: dict[str, set[str]] = {}
        self._warned: dict[str, list[Warned]] = {}
        # Receivers in which something stands, or an empty text that keeps its place.
        self._begun: set[str] = set()
        # In which receivers something was left out, by component.
        self._left_out: dict[str, set[str]] = {}

    def step(self, step: TraceStep) -> None:
        """Adds a step to the trace."""
        self.made.trace.append(step)

    def apply(self, find: FindRecord | None) -> None:
        """Applies the rules in order."""
        applies = applying(self._mapping, self._known, self._budget)
        takes: dict[int, tuple[str, ...]] = {
            at: rule.source.takes for at, rule in enumerate(self._mapping) if applies[at]
        }
        alone = Surroundings(self._receivers, frozenset(), find, self._budget)
        # What the sources that take the rest have written so far: the next one leaves it.
        had: set[str] = set()
        for at, rule in enumerate(self._mapping):
            if at not in takes:
                detail = "left out: the rule does not apply to this address"
                step = TraceStep("skipped", rule.into[0], rule.source.takes, detail, rule.at)
                self.step(step)
                continue
            around = alone
            if rule.source.takes_rest:
                others = (name for n, names in takes.items() if n != at for name in names)
                around = replace(alone, taken=frozenset(others) | had)
            for put in rule.source.put(rule, self._known, around):
                if self._write(rule, put) and rule.source.takes_rest:
                    had |= set(put.sources)
        taken = {name for names in takes.values() for name in names}
        rest = any(takes_everything_left(self._mapping[at]) for at in takes)
        self._end(set(COMPONENTS) if rest else taken)

    def _write(self, rule: Rule, put: Put) -> bool:
        """Puts a text into its receiver; whether it stands there now."""
        key = put.field
        label = self._receivers[key].label or key
        warned = [Warned(n.kind, key, f"{label}: {n.detail}") for n in put.notes if n.is_warning]
        for note in put.notes:
            sources = note.sources or put.sources or rule.source.takes
            self.step(TraceStep(note.kind, key, sources, note.detail, rule.at))
        if put.label:
            self.made.labels[key] = put.label
        there = self.made.values[key]
        if not put.text:
            self._warned.setdefault(key, []).extend(warned)
            if any(note.kind in ("made", "looked_up_later") for note in put.notes):
                self._held.setdefault(key, set()).update(put.sources)
            if rule.keeps_place:
                self.made.values[key] += rule.between if key in self._begun else ""
                self._begun.add(key)
            return False
        kind, text = "wrote", put.text
        if there and rule.if_written in ("", "leave"):
            self.step(
                TraceStep(
                    "left",
                    key,
                    put.sources,
                    "left alone: an earlier rule has written this field",
                    rule.at,
                )
            )
            self._leave_out(put.sources, key)
            return False
        if rule.if_written == "append" and (there or key in self._begun):
            kind, text = "appended", f"{there}{rule.between}{put.text}"
        elif there:
            kind = "replaced"
            self._leave_out(self._held.pop(key, set()), key)
            self._warned.pop(key, None)
        self._warned.setdefault(key, []).extend(warned)
        self._held.setdefault(key, set()).update(put.sources)
        self.made.values[key] = text
        self._check_length(rule, key, label, text)
        self.step(TraceStep(kind, key, put.sources, f"{kind} {put.text}", rule.at, text))
        self._begun.add(key)
        return True

    def _leave_out(self, sources: Iterable[str], key: str) -> None:
        for name in sources:
            self._left_out.setdefault(name, set()).add(key)

    def _check_length(self, rule: Rule, key: str, label: str, text: str) -> None:
        length = self._receivers[key].length
        if length is not None and len(text) > length:
            detail = f"{len(text)} characters, the field takes {length}"
            self._warned[key] = [w for w in self._warned.get(key, ()) if w.kind != "too_long"]
            self._warned[key].append(Warned("too_long", key, f"{label}: {detail}"))
            self.step(TraceStep("too_long", key, (), detail, rule.at))

    def _end(self, taken: set[str]) -> None:
        """Says what was lost on the way, and what no rule takes."""
        made = self.made
        made.carried = set().union(*self._held.values())
        made.cleared = [key for key, value in made.values.items() if not value]
        made.warnings = [one for listed in self._warned.values() for one in listed]
        if self._budget.is_used_up:  # conditions that were not worked out leave their rules out
            detail = PROBLEMS["too-many-steps"]
            made.warnings.append(Warned("noted", "", detail))
            self.step(TraceStep("noted", "", (), detail))
        carried = made.carried | {_HALVES[n] for n in made.carried & _HALVES.keys()}
        given = self._known.given.values
        for name in sorted(self._left_out.keys() - carried):
            text = self._known.components.get(name)
            if text:
                keys = sorted(self._left_out[name])
                labels = ", ".join(sorted(self._receivers[key].label or key for key in keys))
                detail = f"{labels}: {text!r} ({name.replace('_', ' ')}) was left out"
                made.warnings.append(Warned("lost", "", detail, tuple(keys)))
                self.step(TraceStep("lost", "", (name,), detail))
        told = {name for step in made.trace if step.kind == "lost" for name in step.sources}
        for name, text in self._known.components.items():
            if name not in taken | carried | told | _KNOWN_ANYWAY and given.get(name):
                detail = f"no rule takes {name.replace('_', ' ')}: {text}"
                self.step(TraceStep("not_taken", "", (name,), detail))
