"""Reading reference data: from the bytes of a file to checked blocks of rows.

`source` reads CSV and JSON Lines in batches, `checks` turns a batch into a block of usable rows,
`findings` names and counts what was noticed, `repeats` finds rows that occur twice, `comparison`
compares two editions, and `limits` decides whether a new one may become active without being asked
for. Memory does not grow with the file, except for sixteen bytes a row.
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
