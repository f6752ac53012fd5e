"""A telephone number."""

from ...said import said
from ..model import Field
from .registry import TEXT, FieldType, Read, read_text, register

_LEAST_DIGITS = 5


def _read(field: Field, value: object) -> Read:
    text, fault = read_text(field, value)
    if not fault and text and sum(c.isdigit() for c in str(text)) < _LEAST_DIGITS:
        return None, said("not_a_phone", "This is not a phone number; give all its digits.")
    return text, fault


register(FieldType("phone", "Phone", "A telephone number.", _read, TEXT, 40))
