"""The general text engines that the finder is held against, each given the same lines.

Both hold one document an address: its line, folded as our own index folds it. They are asked as
one would ask them for type-ahead: every token must match, the last one as a beginning.
"""

from __future__ import annotations

import sqlite3
import tempfile
import time
from collections.abc import Iterable
from pathlib import Path

import tantivy

from anchorline.core.gazetteer import Row
from anchorline.core.text import tokens

from .queries import line_of

LIMIT = 8


def document(row: Row) -> str:
    """What an engine indexes of a row."""
    get = row.components.get
    parts = (get("organisation", ""), get("building", ""), get("unit", ""), line_of(row))
    around = (get("postcode", ""), get("region", ""))
    return " ".join(tokens(" ".join((*parts, *around))))


class TextEngine:
    """`tantivy`: beginnings first, and tokens with edits where that finds nothing."""

    name = "tantivy, prefix then fuzzy"

    def __init__(self, rows: Iterable[Row]) -> None:
        started = time.process_time()
        builder = tantivy.SchemaBuilder()
        builder.add_text_field("line", stored=False)
        builder.add_text_field("id", stored=True, tokenizer_name="raw")
        self._schema = builder.build()
        self._folder = tempfile.TemporaryDirectory()
        index = tantivy.Index(self._schema, path=self._folder.name)
        writer = index.writer(heap_size=200_000_000, num_threads=1)
        for row in rows:
            writer.add_document(tantivy.Document(line=document(row), id=row.id))
        writer.commit()
        writer.wait_merging_threads()
        index.reload()
        self._searcher = index.searcher()
        self.build_seconds = time.process_time() - started
        self.size = sum(f.stat().st_size for f in Path(self._folder.name).iterdir())

    def search(self, text: str) -> list[str]:
        """Ids of the best addresses."""
        typed = tokens(text)
        if not typed:
            return []
        return self._run(typed, fuzzy=False) or self._run(typed, fuzzy=True)

    def _run(self, typed: list[str], *, fuzzy: bool) -> list[str]:
        parts = []
        for place, token in enumerate(typed):
            edits = (2 if len(token) >= 8 else 1 if len(token) >= 4 else 0) if fuzzy else 0
            last = place == len(typed) - 1
            if edits or last:
                part = tantivy.Query.fuzzy_term_query(
                    self._schema, "line", token, distance=edits, prefix=last
                )
            else:
                part = tantivy.Query.term_query(self._schema, "line", token)
            parts.append((tantivy.Occur.Must, part))
        found = self._searcher.search(tantivy.Query.boolean_query(parts), LIMIT)
        return [self._searcher.doc(address)["id"][0] for _, address in found.hits]


class DatabaseEngine:
    """SQLite FTS5 with prefix indexes, ranked."""

    name = "SQLite FTS5, prefix indexes"

    def __init__(self, rows: Iterable[Row]) -> None:
        started = time.process_time()
        self._folder = tempfile.TemporaryDirectory()
        file = Path(self._folder.name) / "lines.db"
        self._base = sqlite3.connect(file)
        self._base.execute(
            "create virtual table lines using fts5(line, id unindexed, prefix='2 3')"
        )
        self._base.executemany(
            "insert into lines(line, id) values (?, ?)", ((document(row), row.id) for row in rows)
        )
        self._base.execute("insert into lines(lines) values ('optimize')")
        self._base.commit()
        self.build_seconds = time.process_time() - started
        self.size = file.stat().st_size

    def search(self, text: str) -> list[str]:
        """Ids of the best addresses."""
        typed = tokens(text)
        if not typed:
            return []
        asked = " ".join(f'"{token}"' for token in typed) + "*"
        rows = self._base.execute(
            "select id from lines where lines match ? order by rank limit ?", (asked, LIMIT)
        )
        return [row[0] for row in rows]
