"""A value that is worked out from others."""

from .registry import DATE, NUMBER, TEXT, YES_NO, FieldType, read_nothing, register

register(
    FieldType(
        "formula",
        "Formula",
        "Worked out from other fields and addresses.",
        read_nothing,
        TEXT | NUMBER | YES_NO | DATE,
        settings=("formula", "unit", "hidden"),
    )
)
