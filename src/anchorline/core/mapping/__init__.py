"""Mapping: an address's components into the fields of a form, or of what is not ours.

`rules` says what a rule is, `sources` what it can take and `changes` what it can do to it, one file
a kind; `reading` reads them from documents; `packing` lays parts into lines; `fill` follows them.
"""

from .changes import CHANGES
from .fill import TRACE_KINDS, Fill, TraceStep, Warned, fill, owned
from .known import FACTS, KnownAddress
from .reading import mapping_fills, read_rules, rule_fills
from .rules import IF_WRITTEN, FindRecord, FoundRecord, Receiver, Receivers, Rule
from .sources import SOURCES

__all__ = [
    "CHANGES",
    "FACTS",
    "IF_WRITTEN",
    "SOURCES",
    "TRACE_KINDS",
    "Fill",
    "FindRecord",
    "FoundRecord",
    "KnownAddress",
    "Receiver",
    "Receivers",
    "Rule",
    "TraceStep",
    "Warned",
    "fill",
    "mapping_fills",
    "owned",
    "read_rules",
    "rule_fills",
]
