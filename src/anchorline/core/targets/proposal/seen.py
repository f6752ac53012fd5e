"""A field as it is seen on a page or a screen, with all that tells what it is."""

from __future__ import annotations

from dataclasses import dataclass

from ..options import Option


@dataclass(frozen=True, slots=True)
class Place:
    """Where a field stands, in pixels or cells of its page or screen."""

    left: int
    top: int
    width: int
    height: int


@dataclass(frozen=True, slots=True)
class SeenPiece:
    """One input of a field that is split over several."""

    name: str = ""
    id: str = ""
    max_length: int | None = None
    position: int = 0


@dataclass(frozen=True, slots=True)
class SeenField:
    """A field; a text is empty where nothing is said, never what stands in it.

    Attributes:
        type: a key of FIELD_TYPES.
        autocomplete: HTML's attribute: an autofill token, perhaps with words before it.
        label: what people read beside it, or what accessibility says.
        is_named: the label is the screen's own, and not what somebody says of it.
        block: the heading of the part that it stands in.
        position: which of those with its name it is, counted from 1; 0 where it is the only one.
        max_length: characters that it takes; None where nothing says it.
        is_whole: somebody says that all of the address goes into it.
        is_read_only: nothing can be typed there.
    """

    type: str = "text"
    name: str = ""
    id: str = ""
    autocomplete: str = ""
    class_name: str = ""
    label: str = ""
    is_named: bool = True
    placeholder: str = ""
    block: str = ""
    position: int = 0
    several_lines: bool = False
    options: tuple[Option, ...] = ()
    max_length: int | None = None
    pieces: tuple[SeenPiece, ...] = ()
    place: Place | None = None
    is_whole: bool = False
    is_read_only: bool = False
