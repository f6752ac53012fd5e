"""Types of fields: one a module."""

from . import (
    choice,
    choices,
    consent,
    date,
    email,
    formula,
    heading,
    hidden,
    long_text,
    note,
    number,
    page,
    phone,
    section,
    text,
    yes_no,
)
from .registry import FIELD_TYPES, SOME_HAVE, FieldType, text_of

__all__ = [
    "FIELD_TYPES",
    "SOME_HAVE",
    "FieldType",
    "choice",
    "choices",
    "consent",
    "date",
    "email",
    "formula",
    "heading",
    "hidden",
    "long_text",
    "note",
    "number",
    "page",
    "phone",
    "section",
    "text",
    "text_of",
    "yes_no",
]
