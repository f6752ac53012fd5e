"""Targets: pages and programs that are not ours, in which an address must land.

`kinds` reads a target of either kind; `pages` and `programs` hold what is of one alone.
"""

from .kinds import TARGET_KINDS, Target, read_target

__all__ = ["TARGET_KINDS", "Target", "read_target"]
