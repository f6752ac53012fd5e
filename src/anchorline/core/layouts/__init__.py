"""How a country's address is asked for and written out.

`model` holds the layout, `masks` the postcode patterns, `notation` reads the lines of a
layout, `lines` writes an address out with them, `check` holds an address against a layout,
`library` reads the shipped files in `data/`, one a country. `names` has what countries are called,
`designators` what people put before a component, `scripts` in what they are written, `postcodes`
what a country's scheme tells of a postcode.
"""

from .check import STANDS_FOR_STREET, Unused, check_components, masks_hint, unused_components
from .library import LayoutLibrary, component_label, component_terms, shipped_layouts, usual_label
from .lines import (
    LeftOut,
    Written,
    complete_region,
    language_of,
    one_line,
    says_what_it_is,
    write_html,
    write_lines,
    write_out,
)
from .model import Layout, LayoutComponent, Region
from .names import likely_countries, load_names, unknown_country_detail
from .notation import written_line
from .postcodes import postcode_beginnings, spelt_postcode

__all__ = [
    "STANDS_FOR_STREET",
    "Layout",
    "LayoutComponent",
    "LayoutLibrary",
    "LeftOut",
    "Region",
    "Unused",
    "Written",
    "check_components",
    "complete_region",
    "component_label",
    "component_terms",
    "language_of",
    "likely_countries",
    "load_names",
    "masks_hint",
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
