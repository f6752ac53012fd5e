"""Types of fields: one a module."""

from . import (
    choice,
    consent,
    date,
    email,
    formula,
    heading,
    hidden,
    long_text,
    note,
    number,
    phone,
    text,
    yes_no,
)
from .registry import FIELD_TYPES, SOME_HAVE, FieldType

__all__ = [
    "FIELD_TYPES",
    "SOME_HAVE",
    "FieldType",
    "choice",
    "consent",
    "date",
    "email",
    "formula",
    "heading",
    "hidden",
    "long_text",
    "note",
    "number",
    "phone",
    "text",
    "yes_no",
]
