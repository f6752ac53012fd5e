"""Yes or no."""

from ..model import Field
from .registry import YES_NO, FieldType, Read, register


def _read(_field: Field, value: object) -> Read:
    return (value, "") if isinstance(value, bool) else (None, "Say true or false here.")


register(FieldType("yes_no", "Yes or no", "A box to tick.", _read, YES_NO))
