"""An e-mail address."""

import re

from ...said import said
from ..model import Field
from .registry import TEXT, FieldType, Read, read_text, register

_EMAIL = re.compile(r"[^@\s]+@[^@\s.]+(\.[^@\s.]+)+")


def _read(field: Field, value: object) -> Read:
    text, fault = read_text(field, value)
    if not fault and text and not _EMAIL.fullmatch(str(text)):
        return None, said(
            "not_an_email", "This is not an e-mail address; it looks like name@example.org."
        )
    return text, fault


register(FieldType("email", "E-mail", "An e-mail address.", _read, TEXT, 254))
