"""Components that addresses have and no rule takes."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from .kind import Case, Finding, check, told


@check("untaken_components")
def untaken_components(case: Case) -> Iterator[Finding]:
    """What a pick does not bring onto the form, with how many addresses have it."""
    if not case.rules:
        return
    counts = Counter(
        name
        for run in case.runs
        for step in run.made.trace
        if step.kind == "not_taken"
        for name in step.sources
    )
    halves = {"region", "region_code"}
    taken = {name for rule in case.rules for name in rule.source.takes}
    for name, count in counts.most_common():
        if name in halves and taken & halves:
            continue
        needed = [
            layout.name
            for layout in case.layouts
            if (entry := layout.component(name)) is not None and entry.required
        ]
        need = f" It is needed in {', '.join(needed[:4])}." if needed else ""
        detail = (
            f"No rule takes {name.replace('_', ' ')}, which {told(count, case)} have.{need} "
            "Add a rule, or leave it if the form does without."
        )
        place = f"{case.pointer}/mapping"
        yield Finding("untaken_components", place, "warning", detail, case.count(count))
