"""What addresses lose on the way into the fields."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator

from .kind import Case, Finding, check, told

# Kinds of warnings, with what they mean for the address.
_LOSSES = {
    "shortened": "something is cut",
    "lost": "something is left out",
    "noted": "something cannot be written as it was meant",
}


@check("losses")
def losses(case: Case) -> Iterator[Finding]:
    """Warnings that real addresses would give, each once with its number and an example."""
    found: dict[tuple[str, str], list[str]] = defaultdict(list)
    for run in case.runs:
        for kind, key in {(one.kind, one.field) for one in run.made.warnings}:
            detail = next(w.detail for w in run.made.warnings if (w.kind, w.field) == (kind, key))
            if kind in _LOSSES:
                found[kind, key].append(detail)
    for (kind, key), details in found.items():
        place = next((rule for rule in case.rules if key in rule.into), None)
        pointer = case.place(place) if place is not None else f"{case.pointer}/mapping"
        where = told(len(details), case)
        detail = f"{where[0].upper()}{where[1:]}: {_LOSSES[kind]}. One says: {details[0]}."
        yield Finding("losses", pointer, "warning", detail, case.count(len(details)))
