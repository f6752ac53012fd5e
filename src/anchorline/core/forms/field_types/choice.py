"""One of several options."""

from ...errors import nearest_names, unknown_name_detail
from ..model import Field
from .registry import TEXT, Fault, FieldType, Read, read_text, register


def _read(field: Field, value: object) -> Read:
    text, fault = read_text(field, value)
    options = [option.value for option in field.options]
    if not fault and text and text not in options:
        return None, unknown_name_detail("choice", str(text), nearest_names(str(text), options))
    return text, fault


def label_of(field: Field, value: object) -> str:
    """What people read of an option; an option that is gone keeps its value."""
    return next((o.label for o in field.options if o.value == value), str(value))


def option_faults(field: Field) -> list[Fault]:
    """What is wrong with the options of a choice."""
    if not field.options:
        return [("options", "A choice needs at least one option.")]
    values = [option.value for option in field.options]
    double = next((value for value in values if values.count(value) > 1), None)
    if double is not None:
        return [("options", f"The option {double!r} stands there twice; values must differ.")]
    return []


register(
    FieldType(
        "choice",
        "Choice of one",
        "One of several options.",
        _read,
        TEXT,
        faults=option_faults,
        settings=("options",),
        text=label_of,
    )
)
