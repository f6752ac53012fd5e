"""Cutting texts into folded tokens: the inner loop of `text`, which says what folding is."""

from collections.abc import Callable, Collection

from .text import TokenSpan

def cut_tokens(text: str, folded: dict[int, str]) -> list[str] | None:
    """The folded tokens of a text in Unicode's composed form; None for spaceless scripts."""

def cut_spans(text: str, folded: dict[int, str]) -> list[tuple[str, int, int, bool]] | None:
    """The same as the fields of `text.TokenSpan`: with the places that they came from."""

def match_spans(
    label: str,
    spans: tuple[TokenSpan, ...],
    whole: Collection[str],
    prefixes: tuple[str, ...],
    end_of_prefix: Callable[[str, TokenSpan, int], int],
) -> list[tuple[int, int]]:
    """Ranges of the characters of a label's spans that match, in order and without overlaps."""
