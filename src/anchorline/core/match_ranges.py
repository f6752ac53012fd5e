"""Which characters of a label a query matched, for highlighting."""

from __future__ import annotations

from collections.abc import Collection, Sequence

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
    folded = aligned_fold(label)
    if folded is not None and not has_spaceless_script(folded):
        return _aligned_ranges(folded, query_tokens, prefixes)
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
    folded: str, whole: Collection[str], prefixes: tuple[str, ...]
) -> list[tuple[int, int]]:
    ranges: list[tuple[int, int]] = []
    for run in token_runs(folded):
        text = run[0]
        if text in whole:
            end = run.end()
        elif text.startswith(prefixes):
            longest = max((p for p in prefixes if text.startswith(p)), key=len)
            end = run.start() + len(longest)
        else:
            continue
        if ranges and ranges[-1][1] >= run.start():
            ranges[-1] = (ranges[-1][0], end)
        else:
            ranges.append((run.start(), end))
    return ranges


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
