"""A link to a record of another form."""

import re

from ...said import said
from ..model import Field
from .registry import TEXT, Fault, FieldType, Read, register

_ID = re.compile(r"r[0-9a-f]{24}")


def _read(_field: Field, value: object) -> Read:
    if not isinstance(value, str) or not _ID.fullmatch(value):
        return None, said("not_offered", "Choose one of the records that are offered.")
    return value, ""


def _faults(field: Field) -> list[Fault]:
    if not field.form:
        return [("form", "Say of which form the records are: its key.")]
    return []


register(
    FieldType(
        "link",
        "Link",
        "A record of another form, found as people type.",
        _read,
        TEXT,
        faults=_faults,
        settings=("form", "shows", "searches", "open_to_all", "makes_new"),
    )
)
