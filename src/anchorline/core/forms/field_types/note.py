"""A paragraph between fields."""

from .registry import NO_VALUE, FieldType, read_nothing, register

register(FieldType("note", "Note", "A paragraph between fields.", read_nothing, NO_VALUE))
