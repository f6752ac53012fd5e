"""Documents: what a kind of them is (a file each), and the life that all of them lead (`life`)."""

from .kind import Checked, DocumentKind, Reference
from .kinds import FORMS, KINDS, OWN_LAYOUTS, TARGETS

__all__ = [
    "FORMS",
    "KINDS",
    "OWN_LAYOUTS",
    "TARGETS",
    "Checked",
    "DocumentKind",
    "Reference",
]
