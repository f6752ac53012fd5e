"""Pages that are not ours, in which an address must land.

`page` reads a page target from a document; `ways` names how a field is found on a page.
"""

from .page import PageAddress, PageField, PageTarget, matches_path, read_page_target
from .ways import SITS, WAYS, WRITES

__all__ = [
    "SITS",
    "WAYS",
    "WRITES",
    "PageAddress",
    "PageField",
    "PageTarget",
    "matches_path",
    "read_page_target",
]
