"""A heading between fields."""

from .registry import NO_VALUE, FieldType, read_nothing, register

register(FieldType("heading", "Heading", "A heading between fields.", read_nothing, NO_VALUE))
