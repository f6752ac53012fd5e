"""Which characters of a label a query matched, for highlighting."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from functools import lru_cache

from .text import TokenSpan, token_spans
from .tokenizer import match_spans


def match_ranges(
    label: str, query_tokens: Collection[str], begun: Sequence[str] | None = None
) -> list[tuple[int, int]]:
    """Ranges [start, end) of `label`, in Unicode characters, that the query's tokens match.

    A query token must equal a token of the label, or be its prefix if it is one of `begun`: by
    default the last, which is still being typed. Ranges are in order and do not overlap.
    """
    if not query_tokens:
        return []
    prefixes = tuple(list(query_tokens)[-1:] if begun is None else begun)
    return match_spans(label, _spans(label), query_tokens, prefixes, _end_of_prefix)


@lru_cache(maxsize=4096)  # key by key the same labels come again and again
def _spans(label: str) -> tuple[TokenSpan, ...]:
    return tuple(token_spans(label))


def _end_of_prefix(label: str, span: TokenSpan, letters: int) -> int:
    """Where the first letters of a token end in the label.

    A prefix can be shorter in the label than in its folded form: ß is two letters.
    """
    for end in range(span.start + 1, span.end + 1):
        covered = "".join(s.text for s in token_spans(label[span.start : end]))
        if len(covered) >= letters:
            return end
    return span.end
