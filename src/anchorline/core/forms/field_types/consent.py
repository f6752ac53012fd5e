"""A yes that has to be given; its text is kept with it."""

from ..model import Field
from .registry import YES_NO, FieldType, Read, register


def _read(_field: Field, value: object) -> Read:
    if not isinstance(value, bool):
        return None, "Say true or false here."
    return (True, "") if value else (None, "")


register(
    FieldType(
        "consent",
        "Consent",
        "A yes that must be given, kept with the text that was agreed to.",
        _read,
        YES_NO,
        always_needed=True,
    )
)
