"""Text of several lines."""

from ..model import Field
from .registry import TEXT, FieldType, Read, read_text, register


def _read(field: Field, value: object) -> Read:
    return read_text(field, value, lines=True)


register(FieldType("long_text", "Long text", "Several lines: a note.", _read, TEXT, 4000))
