"""Which characters of a label a query matched, for highlighting."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from functools import lru_cache

from .text import TokenSpan, aligned_fold, has_spaceless_script, token_runs, token_spans


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
    runs = _aligned_runs(label)
    if runs is not None:
        return _aligned_ranges(runs, query_tokens, prefixes)
    ranges: list[tuple[int, int]] = []
    for span in token_spans(label):
        end = _matched_end(label, span, query_tokens, prefixes)
        if end:
            if ranges and ranges[-1][1] >= span.start:
                ranges[-1] = (ranges[-1][0], max(end, ranges[-1][1]))
            else:
                ranges.append((span.start, end))
    return ranges


def _aligned_ranges(
    runs: Sequence[tuple[str, int, int]], whole: Collection[str], prefixes: tuple[str, ...]
) -> list[tuple[int, int]]:
    ranges: list[tuple[int, int]] = []
    for text, start, end in runs:
        if text not in whole:
            if not text.startswith(prefixes):
                continue
            end = start + max(len(p) for p in prefixes if text.startswith(p))
        if ranges and ranges[-1][1] >= start:
            ranges[-1] = (ranges[-1][0], end)
        else:
            ranges.append((start, end))
    return ranges


@lru_cache(maxsize=1024)  # key by key the same labels come again and again
def _aligned_runs(label: str) -> tuple[tuple[str, int, int], ...] | None:
    """A label's tokens where folding leaves every character in its place, else None."""
    folded = aligned_fold(label)
    if folded is None or has_spaceless_script(folded):
        return None
    return tuple((run[0], run.start(), run.end()) for run in token_runs(folded))


def _matched_end(
    label: str, span: TokenSpan, whole: Collection[str], prefixes: Sequence[str]
) -> int:
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
