"""A section begins: what follows stands in it, up to the next section or page."""

from .registry import NO_VALUE, FieldType, column_faults, read_nothing, register

register(
    FieldType(
        "section",
        "Section",
        "A group of fields with a heading; it can be folded, and have two columns.",
        read_nothing,
        NO_VALUE,
        faults=column_faults,
        settings=("columns", "foldable", "folded"),
        needs_label=False,
    )
)
