"""A text that nobody sees."""

from .registry import TEXT, FieldType, read_text, register

register(
    FieldType(
        "hidden",
        "Hidden",
        "Not shown: filled by a mapping or a page.",
        read_text,
        TEXT,
        200,
        needs_label=False,
    )
)
