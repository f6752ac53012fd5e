"""Administrators' own layouts: differences that are laid over the shipped ones.

`document` reads one, `derive` lays it over a layout, `precedence` says which hold where,
`differences` says in sentences what they change, `conflicts` what a newer release says about the
same things, `review` what stands against publishing one.
"""

from .conflicts import BaseFacts, Conflict, base_of, conflicts
from .derive import TracedLine, derive, traced_lines
from .differences import Difference, differences
from .document import ComponentChange, LineChange, OwnLayout, read_own_layout
from .precedence import LayoutsInForce, Published
from .review import base_layout_of, effective, review

__all__ = [
    "BaseFacts",
    "ComponentChange",
    "Conflict",
    "Difference",
    "LayoutsInForce",
    "LineChange",
    "OwnLayout",
    "Published",
    "TracedLine",
    "base_layout_of",
    "base_of",
    "conflicts",
    "derive",
    "differences",
    "effective",
    "read_own_layout",
    "review",
    "traced_lines",
]
