"""Which characters of a label a query matched, for highlighting."""

from __future__ import annotations

from collections.abc import Sequence

from .text import TokenSpan, token_spans


def match_ranges(label: str, query_tokens: Sequence[str]) -> list[tuple[int, int]]:
    """Ranges [start, end) of `label`, in Unicode characters, that the query's tokens match.

    Every query token but the last must equal a token of the label; the last may be its
    prefix, since it is still being typed. Ranges are in order and do not overlap.
    """
    if not query_tokens:
        return []
    whole, unfinished = set(query_tokens), query_tokens[-1]
    ranges: list[tuple[int, int]] = []
    for span in token_spans(label):
        end = _matched_end(label, span, whole, unfinished)
        if end:
            if ranges and ranges[-1][1] == span.start:
                ranges[-1] = (ranges[-1][0], end)
            else:
                ranges.append((span.start, end))
    return ranges


def _matched_end(label: str, span: TokenSpan, whole: set[str], unfinished: str) -> int:
    """Where the match inside a token ends, or 0 where the token is not matched."""
    if span.text in whole:
        return span.end
    if not span.text.startswith(unfinished):
        return 0
    # A prefix can be shorter in the label than in its folded form (ß is two letters).
    for end in range(span.start + 1, span.end + 1):
        covered = "".join(s.text for s in token_spans(label[span.start : end]))
        if len(covered) >= len(unfinished):
            return end
    return span.end
