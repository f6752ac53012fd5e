"""From an address's components into a form's fields."""

from .changes import CHANGES
from .fill import Fill, TraceStep, fill_slot, owned_fields
from .rules import Rule

__all__ = ["CHANGES", "Fill", "Rule", "TraceStep", "fill_slot", "owned_fields"]
