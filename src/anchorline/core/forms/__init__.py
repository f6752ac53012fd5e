"""Forms: their model, reading and checking a form document, logic, values, capture.

`document` turns a form document into a `Form` or says what is wrong with it; `logic` works out
what is shown and needed, and what formulas come to; `values` checks what was typed into the
fields; `capture` works out, for each slot of a submitted form, the address that was captured and
what was changed by hand; `layout_fit` holds administrators' own layouts against forms, and gives
a form the fields that they bring.
"""

from .captured import Captured, SlotInput
from .changes import changes_between
from .document import read_form, read_unfinished
from .editing import find_or_captured, kept_as_before
from .field_types import FIELD_TYPES, FieldType, text_of
from .in_force import guarded_by
from .layout_fit import fit_problems, with_brought_parts
from .logic import Worked, formulas_of, work_out
from .model import FORM_KINDS, FORM_STYLES, Field, Form, Option, Slot
from .position import Position
from .submission import Submission, check_submission
from .translations import languages_of
from .upgrade import FORMAT, upgraded

__all__ = [
    "FIELD_TYPES",
    "FORMAT",
    "FORM_KINDS",
    "FORM_STYLES",
    "Captured",
    "Field",
    "FieldType",
    "Form",
    "Option",
    "Position",
    "Slot",
    "SlotInput",
    "Submission",
    "Worked",
    "changes_between",
    "check_submission",
    "find_or_captured",
    "fit_problems",
    "formulas_of",
    "guarded_by",
    "kept_as_before",
    "languages_of",
    "read_form",
    "read_unfinished",
    "text_of",
    "upgraded",
    "with_brought_parts",
    "work_out",
]
