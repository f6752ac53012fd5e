"""Two rules into one field, and nothing said of what the second one does."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..rules import Rule
from .kind import Case, Finding, check


@check("written_twice")
def written_twice(case: Case) -> Iterator[Finding]:
    """A later rule into a field that an earlier one may have written says what happens then."""
    for at, rule in enumerate(case.rules):
        for key in rule.into:
            earlier = [
                other
                for n, other in enumerate(case.rules[:at])
                if key in other.into and not _never_both(case.rules, n, at)
            ]
            if earlier and not rule.if_written:
                number = f"Rule {earlier[0].at + 1}"
                detail = (
                    f"{number} writes {case.named(key)}, too. Say what this one does then: put "
                    "its text behind (append), write it instead (instead), or leave what is "
                    "there (leave)."
                )
                offers = ("append", "instead", "leave")
                pointer = f"{case.place(rule)}/if_written"
                yield Finding("written_twice", pointer, "problem", detail, offers=offers)


def _never_both(rules: Sequence[Rule], first: int, second: int) -> bool:
    """Whether the second rule only applies where the first one, above it, did not."""
    return all(rules[at].otherwise for at in range(first + 1, second + 1))
