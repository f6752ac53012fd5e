"""Mapping: an address's components into the fields of a form."""

from .changes import CHANGES
from .fill import Fill, TraceStep, fill_slot, owned_fields
from .rules import Rule

__all__ = ["CHANGES", "Fill", "Rule", "TraceStep", "fill_slot", "owned_fields"]
