"""Gathering what is wrong with a document, each at its place."""

from __future__ import annotations

import re
from collections.abc import Iterable

from .errors import Problem, nearest_names, unknown_name_detail

_KEY = re.compile(r"[a-z][a-z0-9_-]{0,63}")


class Faults:
    """The problems of one document so far."""

    def __init__(self) -> None:
        self.problems: list[Problem] = []

    def say(
        self, pointer: str, detail: str, at: int | None = None, length: int | None = None
    ) -> None:
        """Adds a problem; `at` and `length` say where in the text of its place."""
        self.problems.append(Problem(pointer, detail, at, length))

    def unknown(self, what: str, name: str, known: Iterable[str], pointer: str) -> None:
        """Adds that there is no such name, with the nearest ones."""
        nearest = nearest_names(name, known)
        detail = unknown_name_detail(what, name, nearest)
        self.problems.append(Problem(pointer, detail, offers=tuple(nearest)))

    def one_of(self, what: str, name: str, known: Iterable[str], pointer: str) -> None:
        """Adds a problem where a name is not among those that are known."""
        choices = list(known)
        if name not in choices:
            self.unknown(what, name, choices, pointer)

    def key(self, key: str, pointer: str) -> None:
        """Adds a problem where a text cannot be a key."""
        if not _KEY.fullmatch(key):
            self.say(
                pointer,
                f"{key!r} cannot be a key: use small letters, digits, _ and -, "
                "beginning with a letter, at most 64.",
            )
