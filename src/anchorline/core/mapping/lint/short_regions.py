"""A region's name into a field for its code."""

from collections.abc import Iterator

from ..sources import Components
from .kind import Case, Finding, check

LONGEST_CODE = 3


@check("short_regions")
def short_regions(case: Case) -> Iterator[Finding]:
    """A field of three characters or fewer wants the code of a region, not its name."""
    for rule in case.rules:
        if not isinstance(rule.source, Components) or "region" not in rule.source.takes:
            continue
        length = case.receivers[rule.into[0]].length
        changes = {change.kind.name for change in rule.changes}
        if length is None or length > LONGEST_CODE or changes & {"region", "first", "replace"}:
            continue
        detail = (
            f"{case.named(rule.into[0])} takes {length} characters: a region's name does not fit. "
            "Take region code, or add the change “region as code”."
        )
        offers = ("region_code",)
        pointer = f"{case.place(rule)}/components/{rule.source.takes.index('region')}"
        yield Finding("short_regions", pointer, "problem", detail, offers=offers)
