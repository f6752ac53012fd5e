"""What working formulas out may cost: steps, counted in the same way here and in the browser.

Every value that is read or worked out on the way is a step, and one more for each ten characters
of it. One budget serves a whole form, or one fill by a mapping, so that many small formulas cost no
more than one large one. Steps are counted and not timed: whether a form can be worked out depends
on the form and on what was given, never on the machine.
"""

from __future__ import annotations

MOST_STEPS = 100_000
CHARACTERS_A_STEP = 10


class UsedUpError(Exception):
    """No steps are left."""


class Budget:
    """The steps that are left for one form.

    Attributes:
        left: steps; below zero where more were wanted than there are.
    """

    __slots__ = ("left",)

    def __init__(self, steps: int = MOST_STEPS) -> None:
        self.left = steps

    @property
    def is_used_up(self) -> bool:
        """Whether something was left unfinished: nothing can be worked out with it any more."""
        return self.left < 0

    def spend(self, value: object) -> None:
        """Counts a value that was read or worked out.

        Raises:
            UsedUpError: it is more than is left.
        """
        self.left -= 1 + (len(value) // CHARACTERS_A_STEP if isinstance(value, str) else 0)
        if self.left < 0:
            raise UsedUpError
