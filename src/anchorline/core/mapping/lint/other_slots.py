"""A rule into a part of another address."""

from collections.abc import Iterator

from .kind import Case, Finding, check


@check("other_slots")
def other_slots(case: Case) -> Iterator[Finding]:
    """Filling this address would clear fields of the other one."""
    for rule in case.rules:
        for key in rule.into:
            receiver = case.receivers[key]
            if receiver.slot not in (None, case.slot):
                detail = (
                    f"{case.named(key)} is a part of the address {receiver.slot!r}: filling this "
                    "one would overwrite it. Write into a field of this address, or of the form."
                )
                yield Finding("other_slots", f"{case.place(rule)}/into", "problem", detail)
