"""Several of several options."""

from ...errors import nearest_names, unknown_name_detail
from ..model import Field
from .choice import label_of, option_faults
from .registry import TEXT, Fault, FieldType, Read, register

# What stands between chosen options where they are one text, in formulas and lists.
BETWEEN = ", "


def _read(field: Field, value: object) -> Read:
    chosen = [value] if isinstance(value, str) else value
    if not isinstance(chosen, list) or not all(isinstance(one, str) for one in chosen):
        return None, "Give a list of the options that are chosen."
    options = [option.value for option in field.options]
    unknown = next((one for one in chosen if one not in options), None)
    if unknown is not None:
        return None, unknown_name_detail("choice", unknown, nearest_names(unknown, options))
    # As the form offers them, each once: two people who chose the same gave the same value.
    return [one for one in options if one in chosen] or None, ""


def _text(field: Field, value: object) -> str:
    chosen = value if isinstance(value, list) else [value]
    return BETWEEN.join(label_of(field, one) for one in chosen)


def _faults(field: Field) -> list[Fault]:
    found = option_faults(field)
    if any("," in option.value for option in field.options):
        detail = "Values of a choice of several stand with commas between them: take the comma out."
        found.append(("options", detail))
    return found


register(
    FieldType(
        "choices",
        "Choice of several",
        "Several options, each with a box to tick.",
        _read,
        TEXT,
        faults=_faults,
        settings=("options",),
        text=_text,
    )
)
