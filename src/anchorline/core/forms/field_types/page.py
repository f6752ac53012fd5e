"""A page begins: what follows stands on it, up to the next page."""

from .registry import NO_VALUE, FieldType, column_faults, read_nothing, register

register(
    FieldType(
        "page",
        "Page",
        "A new page begins: for forms that are filled page by page.",
        read_nothing,
        NO_VALUE,
        faults=column_faults,
        settings=("columns",),
        needs_label=False,
    )
)
