"""Records: a filled form sent, kept, changed and read again."""

from .checking import Submission
from .guard import RecordGuard, TooSoonError
from .keeping import DryRun, Kept, change, dry_run, history, read, submit
from .links import finder_of_records, link_choices, linked

__all__ = [
    "DryRun",
    "Kept",
    "RecordGuard",
    "Submission",
    "TooSoonError",
    "change",
    "dry_run",
    "finder_of_records",
    "history",
    "link_choices",
    "linked",
    "read",
    "submit",
]
