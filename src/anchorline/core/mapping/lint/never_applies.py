"""Conditions that can never be true, and rules that therefore do nothing."""

from __future__ import annotations

from collections.abc import Collection, Iterator

from ...address import USES
from ...errors import nearest_names
from ...formula import Given, Node, evaluate
from ...formula.tree import Call, Constant, FieldValue, fields_of
from ...formula.values import to_yes_no
from .kind import Case, Finding, check, told


@check("never_applies")
def never_applies(case: Case) -> Iterator[Finding]:
    """Rules whose condition is false for every address of the slot's countries."""
    for at, rule in enumerate(case.rules):
        if rule.otherwise and at == 0:
            detail = "There is no rule above this one: it always applies. Take “else” out."
            yield Finding("never_applies", f"{case.place(rule)}/otherwise", "warning", detail)
        if rule.when is None:
            above = case.rules[at - 1] if at else None
            if rule.otherwise and above is not None and above.when is None and not above.otherwise:
                detail = (
                    "The rule above always applies, so this one never does. "
                    "Give that one a condition."
                )
                yield Finding("never_applies", f"{case.place(rule)}/otherwise", "problem", detail)
            continue
        pointer = f"{case.place(rule)}/when"
        if not fields_of(rule.when.tree):
            if to_yes_no(evaluate(rule.when.tree, Given())) is not True:
                detail = (
                    "This is never true, so the rule never applies. Ask for a part of the address."
                )
                yield Finding("never_applies", pointer, "problem", detail)
            continue
        impossible = _impossible(rule.when.tree, case)
        if impossible is not None:
            yield Finding("never_applies", pointer, "problem", impossible[0], offers=impossible[1])
        elif _holds_for_none(rule.when.tree, case):
            detail = f"This is true for {told(0, case)}. Check how it is written."
            yield Finding("never_applies", pointer, "warning", detail, 0)


def _holds_for_none(tree: Node, case: Case) -> bool:
    """Whether there are addresses, and a condition is true for none of them."""
    is_known = bool(case.runs) and not case.made_up
    return is_known and not any(_holds(tree, run.known.given) for run in case.runs)


def _holds(tree: Node, given: Given) -> bool:
    return to_yes_no(evaluate(tree, given)) is True


def _impossible(tree: Node, case: Case) -> tuple[str, tuple[str, ...]] | None:
    """Why a comparison that has to hold never does: with a country or use that there is not."""
    for node in _needed(tree):
        if node.name != "=" or len(node.of) != 2:
            continue
        sides = [_bare(side) for side in node.of]
        name = next((side.key for side in sides if isinstance(side, FieldValue)), None)
        value = next((side.value for side in sides if isinstance(side, Constant)), None)
        if name is None or not isinstance(value, str):
            continue
        codes = [layout.country_code for layout in case.layouts]
        known: Collection[str] = {"country_code": codes, "use": USES}.get(name, ())
        if known and value.casefold() not in {one.casefold() for one in known}:
            offers = tuple(nearest_names(value, known))
            what = "a country of this address" if name == "country_code" else "a use"
            listed = ", ".join(list(known)[:12])
            return f"{value!r} is not {what}: this is never true. There are {listed}.", offers
    return None


def _bare(node: Node) -> Node:
    """What a conversion converts, else the node."""
    while isinstance(node, Call) and len(node.of) == 1 and node.name.startswith("AS_"):
        node = node.of[0]
    return node


def _needed(tree: Node) -> Iterator[Call]:
    """The parts of a condition that all have to be true."""
    tree = _bare(tree)
    if isinstance(tree, Call):
        if tree.name == "AND":
            for part in tree.of:
                yield from _needed(part)
        else:
            yield tree
