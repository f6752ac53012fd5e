"""Administrators' own layouts: differences that are laid over the shipped ones.

`document` reads one, `derive` lays it over a layout, `precedence` says which hold where,
`differences` says in sentences what they change, `conflicts` what a newer release says about the
same things, `review` what stands against publishing one.
"""

from .conflicts import Conflict, Ground, conflicts, ground_of
from .derive import TracedLine, derive, traced_lines
from .differences import Difference, differences
from .document import AskedChange, LineChange, OwnLayout, read_own_layout
from .precedence import LayoutsInForce, Published
from .review import below, effective, review

__all__ = [
    "AskedChange",
    "Conflict",
    "Difference",
    "Ground",
    "LayoutsInForce",
    "LineChange",
    "OwnLayout",
    "Published",
    "TracedLine",
    "below",
    "conflicts",
    "derive",
    "differences",
    "effective",
    "ground_of",
    "read_own_layout",
    "review",
    "traced_lines",
]
