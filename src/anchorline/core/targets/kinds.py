"""The kinds of targets, and reading one of any kind."""

from __future__ import annotations

from collections.abc import Callable

from ..errors import Problem
from ..layouts import LayoutLibrary
from .pages.page import PageTarget, read_page_target
from .programs.program import ProgramTarget, read_program_target
from .receivers import Document

Target = PageTarget | ProgramTarget
_Read = Callable[[Document, LayoutLibrary], tuple[Target, list[Problem]]]
TARGET_KINDS: dict[str, _Read] = {"page": read_page_target, "program": read_program_target}


def read_target(document: Document, layouts: LayoutLibrary) -> tuple[Target, list[Problem]]:
    """A target as far as its document can be read, and what is wrong with it."""
    return TARGET_KINDS[document.get("kind") or "page"](document, layouts)
