"""Parts of an address that no rule fills."""

from __future__ import annotations

from collections.abc import Iterator

from ..rules import Receiver
from .kind import Case, Finding, check

# Where one of these is filled, an address has the other, too.
_SAME = {"region": "region_code", "region_code": "region"}


@check("unfilled_parts")
def unfilled_parts(case: Case) -> Iterator[Finding]:
    """Fields that stay empty after a pick: a problem where the address is not whole without."""
    if case.document.get("appearance") == "parts_only":
        return
    filled = {key for rule in case.rules for key in rule.into}
    if not filled and case.parts:
        detail = "No rule fills any field: whoever picks an address sees nothing of it. Add rules."
        yield Finding("unfilled_parts", f"{case.pointer}/mapping", "problem", detail)
        return
    for at, part in case.parts:
        if part.key in filled:
            continue
        pointer = f"{case.pointer}/parts/{at}"
        needing = _needing(case, part)
        if needing:
            detail = (
                f"{case.named(part.key)} is needed in {', '.join(needing[:4])}"
                f"{' and others' if len(needing) > 4 else ''}, and no rule fills it. "
                "Add a rule for it, or take the field out."
            )
            yield Finding("unfilled_parts", pointer, "problem", detail)
        else:
            detail = (
                f"Nothing goes into {case.named(part.key)}: it stays empty after a pick. Add a "
                "rule for it, or take the field out if nobody types it by hand."
            )
            yield Finding("unfilled_parts", pointer, "warning", detail)


def _needing(case: Case, part: Receiver) -> list[str]:
    """The countries of the slot whose addresses need a part."""
    name = part.component or ""
    names = {name, _SAME.get(name, name)}
    return [
        layout.name
        for layout in case.layouts
        if any(entry.required and entry.component in names for entry in layout.components)
    ]
