"""Texts that a field cannot take: no number, no option of it, too long."""

from __future__ import annotations

from collections.abc import Iterator

from ..rules import Rule
from .kind import Case, Finding, Severity, check, told


@check("refused_texts")
def refused_texts(case: Case) -> Iterator[Finding]:
    """Rules whose texts their fields refuse; a problem where they refuse all of them."""
    for rule in case.rules:
        for key in dict.fromkeys(rule.into):
            yield from _refused(case, rule, key)


def _refused(case: Case, rule: Rule, key: str) -> Iterator[Finding]:
    receiver = case.receivers[key]
    if not receiver.is_filled:
        detail = (
            f"{case.named(key)} cannot be written into: it is a {receiver.type}. "
            "Choose another field."
        )
        yield Finding("refused_texts", f"{case.place(rule)}/into", "problem", detail)
        return
    written = [
        step.text
        for run in case.runs
        for step in run.made.trace
        if step.rule == rule.at and step.field == key and step.text
    ]
    refused = [(text, fault) for text in written if (fault := receiver.refuses(text))]
    if not refused:
        return
    example, fault = max(refused, key=lambda one: len(one[0]))
    is_all = len(refused) == len(written)
    detail = (
        f"{case.named(key)} does not take {'what this rule writes' if is_all else 'some texts'}, "
        f"such as {example!r}: {fault} That is so for {told(len(refused), case)}."
    )
    severity: Severity = "problem" if is_all else "warning"
    yield Finding("refused_texts", case.place(rule), severity, detail, case.count(len(refused)))
