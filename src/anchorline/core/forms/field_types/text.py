"""One line of text."""

from .registry import TEXT, FieldType, read_text, register

register(FieldType("text", "Text", "One line: a name, a reference.", read_text, TEXT, 200))
