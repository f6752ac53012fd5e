"""Reference data: rows in, editions built and opened, search, postcodes, nearest.

`rows` says what is loaded; `core.reference` reads and checks it. `building` turns rows into the
arrays that `arrays` names; they are the edition's form in memory and on disk alike. `edition`
looks things up in them, `searching` finds and opens groups, `postcodes` and `nearest` answer their
own questions, and `gazetteer` puts the active editions of all datasets together.
"""

from ..abbreviations import load_abbreviations
from .building.build import build_edition
from .edition import Edition
from .gazetteer import Gazetteer
from .rows import ROW_COLUMNS, Row, RowBlock
from .suggestion import SearchRequest, Suggestion

__all__ = [
    "ROW_COLUMNS",
    "Edition",
    "Gazetteer",
    "Row",
    "RowBlock",
    "SearchRequest",
    "Suggestion",
    "build_edition",
    "load_abbreviations",
]
