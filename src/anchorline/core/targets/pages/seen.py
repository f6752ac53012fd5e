"""An input as it is seen on a page, with all that tells what it is."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class SeenInput:
    """An input as a page has it; a text is empty where the page says nothing.

    Attributes:
        element: `input`, `textarea` or `select`.
        autocomplete: the attribute: an autofill token, perhaps with words before it.
        label: the text of its label, or what ARIA says.
        options: of a list: values and texts.
        max_length: characters that it takes; None where the page does not say.
    """

    element: str = "input"
    name: str = ""
    id: str = ""
    autocomplete: str = ""
    class_name: str = ""
    label: str = ""
    placeholder: str = ""
    options: tuple[tuple[str, str], ...] = ()
    max_length: int | None = None
