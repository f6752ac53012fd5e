"""How a country's address is asked for and written out.

`model` holds the layout, `masks` the postcode patterns, `notation` reads the lines of a
layout, `lines` writes an address out with them, `check` holds an address against a layout,
`library` reads the shipped files in `data/`, one a country. `names` has what countries are called,
`designators` what people put before a component, `scripts` in what they are written, `postcodes`
what a country's scheme tells of a postcode.
"""

from .check import STANDS_FOR_STREET, Unused, check_components, masks_hint, unused_components
from .codes import alpha_3_code, numeric_code
from .library import LayoutLibrary, component_label, component_terms, shipped_layouts, usual_label
from .lines import (
    LeftOut,
    Piece,
    Written,
    complete_region,
    language_of,
    line_pieces,
    one_line,
    says_what_it_is,
    write_html,
    write_lines,
    write_out,
)
from .model import Layout, LayoutComponent, Region
from .names import is_language, likely_countries, load_names, unknown_country_detail
from .notation import written_line
from .postcodes import postcode_beginnings, spelt_postcode
from .scripts import in_capitals

__all__ = [
    "STANDS_FOR_STREET",
    "Layout",
    "LayoutComponent",
    "LayoutLibrary",
    "LeftOut",
    "Piece",
    "Region",
    "Unused",
    "Written",
    "alpha_3_code",
    "check_components",
    "complete_region",
    "component_label",
    "component_terms",
    "in_capitals",
    "is_language",
    "language_of",
    "likely_countries",
    "line_pieces",
    "load_names",
    "masks_hint",
    "numeric_code",
    "one_line",
    "postcode_beginnings",
    "says_what_it_is",
    "shipped_layouts",
    "spelt_postcode",
    "unknown_country_detail",
    "unused_components",
    "usual_label",
    "write_html",
    "write_lines",
    "write_out",
    "written_line",
]
