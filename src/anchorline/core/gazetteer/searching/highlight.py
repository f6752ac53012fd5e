"""Which characters of a row's label match what was typed, alternate names included."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from functools import lru_cache

from ...abbreviations import same_words
from ...match_ranges import match_ranges
from .terms import Term, Token


class Highlighter:
    """Finds what some terms match in labels.

    Attributes:
        edited: whether letters of a term had to be corrected.
    """

    def __init__(self, terms: Sequence[Term]) -> None:
        self.edited = False
        self._whole: set[str] = set()
        begun: list[str] = []
        for term in terms:
            self.edited |= term.edits > 0
            self._whole.update(_written(term.token))
            if term.token.unfinished:
                begun += [term.token.text, *term.token.also, *term.token.parts[-1:]]
        self._begun = tuple(begun)

    def ranges(self, label: str, read: Iterable[str] = ()) -> tuple[tuple[int, int], ...]:
        """Ranges of a label that are matched; `read` are words that typed ones were read as."""
        whole = self._whole.union(read, *map(same_words, read)) if read else self._whole
        return tuple(match_ranges(label, whole, self._begun))


@lru_cache(maxsize=4096)
def _written(token: Token) -> tuple[str, ...]:
    """The words of a label that a token stands for."""
    return (token.text, *token.also, *token.parts, *same_words(token.text))
