"""Why a use case is refused, in words for whoever asked.

RefusedError
├── ForbiddenError    whoever asks may not do it
├── InvalidError      something in what was given is wrong (carries problems with places)
├── ConflictError     it does not go with what there is
└── TooManyError      there were as many as there may be; later it may do

What is not there is the store's `NotThereError`, what was changed meanwhile its `StaleError`.
"""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.core.errors import Problem


class RefusedError(Exception):
    """Root of the refusals; the message says what was wrong and what to do."""


class ForbiddenError(RefusedError):
    """Whoever asks may not do it."""


class InvalidError(RefusedError):
    """Something in what was given is wrong."""

    def __init__(self, problems: Sequence[Problem]) -> None:
        self.problems = list(problems)
        super().__init__("; ".join(f"{one.pointer or '/'}: {one.detail}" for one in problems))


class ConflictError(RefusedError):
    """It does not go with what there is."""


class TooManyError(RefusedError):
    """There were as many as there may be."""
