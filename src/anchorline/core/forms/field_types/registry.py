"""What a type of field is, and all of them by name."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ...said import said
from ...text import has_control_characters
from ..model import Field

# What is kept, and what is wrong with the value or nothing.
Read = tuple[object, str]
Fault = tuple[str, str]
TEXT, NUMBER, YES_NO, DATE = (
    frozenset({kind, "empty"}) for kind in ("text", "number", "yes_no", "date")
)
NO_VALUE: frozenset[str] = frozenset()


def _nothing_wrong(_field: Field) -> list[Fault]:
    return []


def _as_text(field: Field, value: object) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value} {field.unit}".strip()


@dataclass(frozen=True)
class FieldType:
    """A type of field.

    Attributes:
        name: in documents.
        title: what people read.
        says: a sentence for whoever chooses one.
        read: from a field and what was typed, never nothing, to what is kept or a fault.
        kinds: the kinds of value that formulas meet in it; none: it holds no value.
        longest: characters that it takes where its field does not say.
        faults: from a field to what its settings have wrong: the setting, and a sentence.
        always_needed: whether it must be filled wherever it is shown.
        settings: those of SOME_HAVE that have a meaning for it.
        needs_label: whether people have to be told what it is.
        keeps_typed: whether what was typed is kept beside the value, where they differ.
        text: from a field and a kept value to what people read.
    """

    name: str
    title: str
    says: str
    read: Callable[[Field, object], Read]
    kinds: frozenset[str]
    longest: int | None = None
    faults: Callable[[Field], list[Fault]] = _nothing_wrong
    always_needed: bool = False
    settings: tuple[str, ...] = ()
    needs_label: bool = True
    keeps_typed: bool = False
    text: Callable[[Field, object], str] = _as_text

    @property
    def holds_value(self) -> bool:
        """Whether anything is kept of it."""
        return bool(self.kinds)

    @property
    def is_filled(self) -> bool:
        """Whether people give its value."""
        return self.holds_value and "formula" not in self.settings


# Settings that mean something for some types alone; on others they are refused.
SOME_HAVE = (
    "options", "least", "most", "decimals", "unit", "formula", "hidden", "columns", "foldable",
    "folded", "form", "shows", "searches", "open_to_all", "makes_new", "phone",
)  # fmt: skip
MOST_COLUMNS = 2
FIELD_TYPES: dict[str, FieldType] = {}


def register(field_type: FieldType) -> None:
    """Adds a type; each name once."""
    assert field_type.name not in FIELD_TYPES, field_type.name
    FIELD_TYPES[field_type.name] = field_type


def text_of(field: Field, value: object) -> str:
    """A kept value as people read it."""
    return FIELD_TYPES[field.type].text(field, value)


def read_text(field: Field, value: object, *, lines: bool = False) -> Read:
    """A text as it was typed, but for blanks around it."""
    if not isinstance(value, str):
        return None, "Give text here."
    text = value.strip()
    if has_control_characters(text):
        return None, said(
            "unprintable", "This holds characters that cannot be shown; type it again."
        )
    if not lines and ("\n" in text or "\r" in text):
        return None, said("one_line", "This is one line only; take the line breaks out.")
    if field.max_length is not None and len(text) > field.max_length:
        sentence = "This is {length} characters long; at most {most} fit."
        return None, said("too_long", sentence, length=len(text), most=field.max_length)
    return text, ""


def column_faults(field: Field) -> list[Fault]:
    """What is wrong with the columns of a page or section."""
    if field.columns is not None and not 1 <= field.columns <= MOST_COLUMNS:
        return [("columns", "There are one or two columns; on a phone always one.")]
    return []


def read_nothing(_field: Field, _value: object) -> Read:
    """Of what holds no value: whatever was sent is not kept."""
    return None, ""
