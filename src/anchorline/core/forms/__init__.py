"""Forms: their model, reading and checking a form document, values, visibility, capture.

`document` turns a form document into a `Form` or says what is wrong with it; `values` checks
what was typed into the fields; `capture` works out, for each slot of a submitted form, the
address that was captured and what was changed by hand; `layout_fit` holds administrators' own
layouts against forms, and gives a form the fields that they bring.
"""

from .capture import Captured, SlotInput, capture_slots
from .document import read_form
from .field_types import FIELD_TYPES, FieldType
from .layout_fit import fit_problems, with_brought_parts
from .model import FORM_KINDS, Condition, Field, Form, Option, Slot
from .values import check_values
from .visibility import is_shown

__all__ = [
    "FIELD_TYPES",
    "FORM_KINDS",
    "Captured",
    "Condition",
    "Field",
    "FieldType",
    "Form",
    "Option",
    "Slot",
    "SlotInput",
    "capture_slots",
    "check_values",
    "fit_problems",
    "is_shown",
    "read_form",
    "with_brought_parts",
]
