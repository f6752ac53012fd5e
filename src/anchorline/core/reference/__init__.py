"""Reference data on its way in: a file's bytes to checked blocks of rows, and what was found.

`source` reads CSV and JSON Lines into batches, `checks` turns a batch into a block of usable
rows, `findings` names and counts what was noticed, `repeats` finds rows that stand there twice,
`comparison` holds an edition against another, and `limits` says whether a new one may become
active by itself. Nothing here grows with the file but sixteen bytes a row.
"""

from .checks import CheckedBatch, RowChecker
from .findings import FINDINGS, BadRow, Findings, FindingTally
from .source import Source, SourceError

__all__ = [
    "FINDINGS",
    "BadRow",
    "CheckedBatch",
    "FindingTally",
    "Findings",
    "RowChecker",
    "Source",
    "SourceError",
]
