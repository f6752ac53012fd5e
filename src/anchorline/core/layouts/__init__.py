"""How a country's address is asked for and written out.

`model` holds the layout, `masks` the postcode patterns, `notation` reads the lines of a
layout, `lines` writes an address out with them, `check` holds an address against a layout,
`library` reads the shipped files in `data/`, one a country.
"""

from .check import check_components
from .library import LayoutLibrary, shipped_layouts
from .lines import one_line, write_lines
from .masks import canonical_postcode, fits_masks, may_become
from .model import Asked, Layout, Region

__all__ = [
    "Asked",
    "Layout",
    "LayoutLibrary",
    "Region",
    "canonical_postcode",
    "check_components",
    "fits_masks",
    "may_become",
    "one_line",
    "shipped_layouts",
    "write_lines",
]
