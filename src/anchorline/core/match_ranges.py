"""Which characters of a label a query matched, for highlighting."""

from __future__ import annotations

from collections.abc import Collection, Sequence

from .text import TokenSpan, token_spans


def match_ranges(
    label: str, query_tokens: Sequence[str], begun: Collection[str] | None = None
) -> list[tuple[int, int]]:
    """Ranges [start, end) of `label`, in Unicode characters, that the query's tokens match.

    A query token must equal a token of the label, or be its prefix if it is one of `begun`: by
    default the last, which is still being typed. Ranges are in order and do not overlap.
    """
    if not query_tokens:
        return []
    whole = set(query_tokens)
    prefixes = query_tokens[-1:] if begun is None else begun
    ranges: list[tuple[int, int]] = []
    for span in token_spans(label):
        end = _matched_end(label, span, whole, prefixes)
        if end:
            if ranges and ranges[-1][1] >= span.start:
                ranges[-1] = (ranges[-1][0], max(end, ranges[-1][1]))
            else:
                ranges.append((span.start, end))
    return ranges


def _matched_end(label: str, span: TokenSpan, whole: set[str], prefixes: Collection[str]) -> int:
    """Where the match inside a token ends, or 0 where the token is not matched."""
    if span.text in whole:
        return span.end
    prefix = max((p for p in prefixes if span.text.startswith(p)), key=len, default="")
    if not prefix:
        return 0
    # A prefix can be shorter in the label than in its folded form (ß is two letters).
    for end in range(span.start + 1, span.end + 1):
        covered = "".join(s.text for s in token_spans(label[span.start : end]))
        if len(covered) >= len(prefix):
            return end
    return span.end
