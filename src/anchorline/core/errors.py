"""The core's exceptions, and the value that says what is wrong with people's data.

    CoreError
    ├── UnknownNameError    a name outside a closed list (carries the nearest known ones)
    ├── NotationError       a layout's line that cannot be read (carries the position)
    ├── DocumentError       a form or layout document that breaks its rules (carries problems)
    └── EditionError        an edition that cannot be built or opened

Faults in what people type are not exceptions: they are `Problem` values with a place.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from rapidfuzz import fuzz, process


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing that is wrong with a document or with typed values.

    Attributes:
        pointer: JSON pointer (RFC 6901) to the place, relative to the document.
        detail: what is wrong there and what to do about it.
        at, length: where in the text of that place, in characters; None: all of it.
        offers: what could stand there instead, the likeliest first.
    """

    pointer: str
    detail: str
    at: int | None = None
    length: int | None = None
    offers: tuple[str, ...] = ()


# More than so many problems help nobody, and cost.
MOST_LISTED = 20
_LONGEST_SHOWN = 80


class CoreError(Exception):
    """Root of everything the core raises on purpose."""


class UnknownNameError(CoreError):
    """A name that is not in a closed list."""

    def __init__(self, what: str, name: str, known: Iterable[str]) -> None:
        self.name = name
        self.nearest = nearest_names(name, known)
        super().__init__(unknown_name_detail(what, name, self.nearest))


class NotationError(CoreError):
    """A line of a layout that cannot be read; `position` counts characters from 0."""

    def __init__(self, line: str, position: int, reason: str) -> None:
        self.line, self.position, self.reason = line, position, reason
        super().__init__(f"{reason} (character {position + 1} of {line!r})")


class DocumentError(CoreError):
    """A form or layout document that breaks its rules."""

    def __init__(self, what: str, problems: Sequence[Problem]) -> None:
        self.problems = list(problems)
        first = self.problems[:MOST_LISTED]
        listed = "; ".join(f"{p.pointer or '/'}: {p.detail}" for p in first)
        super().__init__(f"{what}: {listed}")


class EditionError(CoreError):
    """An edition that cannot be built, or files that are not an edition this release reads."""


def nearest_names(name: str, known: Iterable[str], *, limit: int = 3) -> list[str]:
    """The known names most like `name`, best first; empty when none is near."""
    found = process.extract(
        name[:_LONGEST_SHOWN].lower(), list(known), scorer=fuzz.WRatio, score_cutoff=60, limit=limit
    )
    return [choice for choice, _score, _index in found]


def unknown_name_detail(what: str, name: str, nearest: Sequence[str]) -> str:
    """The sentence for an unknown name, with the nearest known ones."""
    hint = f" Did you mean {' or '.join(nearest)}?" if nearest else ""
    return f"There is no {what} {shown(name)}.{hint}"


def shown(name: str) -> str:
    """A name in quotes as messages say it: one of a million letters is cut short."""
    return repr(name if len(name) <= _LONGEST_SHOWN else name[:_LONGEST_SHOWN] + "…")
