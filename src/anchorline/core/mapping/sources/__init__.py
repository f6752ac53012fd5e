"""What a rule can take of an address, one file a kind."""

from .components import Components, Joined
from .country_lines import CountryLines
from .facts import AddressFacts
from .fit import Fit
from .formula import Worked
from .kind import SOURCES, SourceKind
from .link import Link

__all__ = [
    "SOURCES",
    "AddressFacts",
    "Components",
    "CountryLines",
    "Fit",
    "Joined",
    "Link",
    "SourceKind",
    "Worked",
]
