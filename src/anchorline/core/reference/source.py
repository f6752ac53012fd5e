"""A file's bytes to batches of values: CSV (RFC 4180) or JSON Lines, plain or gzipped, UTF-8.

What the file is, is told from its first bytes, not from its name. Only one piece of it is in
memory at a time. A row that cannot be read is handed on as bad and reading goes on.
"""

from __future__ import annotations

import csv
import io
import zlib
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from itertools import chain, islice

import orjson

from ..gazetteer.rows import ROW_COLUMNS
from .findings import BadRow

ACTION_COLUMN = "action"
KNOWN_COLUMNS = (*ROW_COLUMNS, ACTION_COLUMN)
LONGEST_LINE = 1 << 20
_GZIP = b"\x1f\x8b"
_BOM = b"\xef\xbb\xbf"
_NOT_ROWS: tuple[tuple[bytes, str], ...] = (
    (b"PK\x03\x04", "a zip file or a spreadsheet; save it as CSV in UTF-8"),
    (b"\xd0\xcf\x11\xe0", "a spreadsheet; save it as CSV in UTF-8"),
    (b"\xff\xfe", "UTF-16; save it as UTF-8"),
    (b"\xfe\xff", "UTF-16; save it as UTF-8"),
    (b"%PDF", "a PDF; what is loaded is CSV or JSON Lines"),
)


class SourceError(ValueError):
    """The file cannot be read at all; the message says why and what to do."""


@dataclass(slots=True)
class Batch:
    """Some rows as they stand in the file.

    Attributes:
        columns: the names of the values.
        lines: the line on which each row ends.
        values: one sequence a row, as long as `columns`.
        bad: rows that could not be read.
        last_line: how far the file was read.
    """

    columns: tuple[str, ...]
    lines: list[int] = field(default_factory=list)
    values: list[Sequence[str]] = field(default_factory=list)
    bad: list[BadRow] = field(default_factory=list)
    last_line: int = 0


class Source:
    """One file of reference data.

    Args:
        chunks: the file's bytes in pieces of any size.
        columns_needed: the columns that it must name.

    Attributes:
        unknown: its columns that are not known; for JSON Lines those seen so far.
        has_actions: whether its rows are changes, by the header or the first JSON line.

    Raises:
        SourceError: it is not a file of rows, or lacks a column. Later also from `batches`,
            where the file turns out to be damaged.
    """

    def __init__(
        self, chunks: Iterable[bytes], columns_needed: Iterable[str] = ("id", "country_code")
    ) -> None:
        self.unknown: list[str] = []
        self._lines = _Lines(_texts(_unzipped(chunks)))
        first = self._lines.next()
        while first is not None and not first.strip():
            first = self._lines.next()
        self.json_lines = (first or "").lstrip().startswith("{")
        self._pending = [first or ""] if self.json_lines else []
        if self.json_lines:
            self.columns = KNOWN_COLUMNS
            self.has_actions = ACTION_COLUMN in _first_object(first or "", columns_needed)
        else:
            self.columns = self._header(first or "", columns_needed)
            self.has_actions = ACTION_COLUMN in self.columns

    def batches(self, size: int, *, after_line: int = 0) -> Iterator[Batch]:
        """Batches of at most `size` rows, those up to a line left out."""
        if after_line >= self._lines.read:
            self._pending = []
            while self._lines.read < after_line and self._lines.next() is not None:
                pass
        read = self._json_batch if self.json_lines else self._csv_batches()
        while (batch := read(size)).last_line:
            yield batch

    def _header(self, first: str, needed: Iterable[str]) -> tuple[str, ...]:
        columns = tuple(name.strip() for name in next(csv.reader([first]), []))
        missing = [name for name in needed if name not in columns]
        if missing:
            hint = ""
            for sign, name in ((";", "semicolons"), ("\t", "tabs"), ("|", "bars")):
                if first.count(sign) > first.count(","):
                    hint = f" It is parted by {name}; write commas."
            raise SourceError(
                f"The first line must name the columns; it lacks {' and '.join(missing)}.{hint}"
            )
        twice = [c for c in KNOWN_COLUMNS if columns.count(c) > 1]
        if twice:
            raise SourceError(f"The first line names {' and '.join(twice)} twice.")
        self.unknown = [column for column in columns if column not in KNOWN_COLUMNS]
        return columns

    def _csv_batches(self) -> Callable[[int], Batch]:
        """A function that reads the next batch; it ends with an empty one."""
        offset = self._lines.read
        reader = csv.reader(self._lines, strict=True)
        width = len(self.columns)

        def read(size: int) -> Batch:
            batch = Batch(self.columns)
            line, rows = offset + reader.line_num, list[Sequence[str]]()
            try:
                rows.extend(islice(reader, size))  # those before an error stay in the list
            except csv.Error as error:
                place = offset + reader.line_num
                text = self._lines.text_of(place)
                batch.bad.append(BadRow(place, "", "unreadable", "", f"is not CSV: {error}", text))
            batch.last_line = offset + reader.line_num if rows or batch.bad else 0
            if batch.last_line - line == len(rows) and set(map(len, rows)) == {width}:
                batch.values, batch.lines = rows, list(range(line + 1, batch.last_line + 1))
            else:
                _sort_out(rows, line, width, batch)
            return batch

        return read

    def _json_batch(self, size: int) -> Batch:
        batch = Batch(self.columns)
        while len(batch.values) + len(batch.bad) < size:
            line = self._pending.pop() if self._pending else self._lines.next()
            if line is None:
                break
            number = batch.last_line = self._lines.read
            if not line.strip():
                continue
            found = self._json_values(line)
            if isinstance(found, str):
                batch.bad.append(BadRow(number, "", "unreadable", "", found, line.strip()))
            else:
                batch.values.append(found)
                batch.lines.append(number)
        return batch

    def _json_values(self, line: str) -> list[str] | str:
        """The values of a line, or why it cannot be read."""
        try:
            record = orjson.loads(line.encode("utf-8", "surrogateescape"))
        except orjson.JSONDecodeError as error:
            return f"is not JSON: {error.msg}"
        if not isinstance(record, dict):
            return "is not a JSON object"
        for name in record:
            if name not in KNOWN_COLUMNS and name not in self.unknown and len(self.unknown) < 100:
                self.unknown.append(name)
        return [_text(record.get(name)) for name in KNOWN_COLUMNS]


def _sort_out(rows: Iterable[Sequence[str]], line: int, width: int, batch: Batch) -> None:
    """Rows of which some are empty, of several lines, or not as long as they should be."""
    for values in rows:
        # A quoted value may hold line breaks; the row's line is its last.
        line += 1 + sum(value.count("\n") for value in values)
        if len(values) == width:
            batch.values.append(values)
            batch.lines.append(line)
        elif values:
            reason = f"has {len(values)} values where the first line names {width} columns"
            batch.bad.append(BadRow(line, "", "unreadable", "", reason, ",".join(values)))


class _Lines:
    """The lines of a file, of which one piece is in memory at a time.

    Attributes:
        read: how many lines were handed out by `next`.
    """

    def __init__(self, texts: Iterable[str]) -> None:
        self.read = 0
        self._first, self._text, self._count = 1, "", 0
        self._lines = chain.from_iterable(map(self._take, texts))

    def __iter__(self) -> Iterator[str]:
        # Without a step in Python for each line: this is most of what reading costs.
        return self._lines

    def next(self) -> str | None:
        """The next line, or None at the end."""
        line = next(self._lines, None)
        self.read += line is not None
        return line

    def text_of(self, line: int) -> str:
        """The text of a line of the piece that is in memory; else nothing."""
        if line < self._first:
            return ""
        lines = self._text.split("\n", line - self._first + 1)
        return lines[line - self._first].strip() if len(lines) > line - self._first else ""

    def _take(self, text: str) -> io.StringIO:
        self._first += self._count
        self._text, self._count = text, text.count("\n")
        return io.StringIO(text, newline="\n")


def _first_object(first: str, needed: Iterable[str]) -> dict[str, object]:
    """The first JSON line; SourceError where it is no row at all, as for a CSV header."""
    try:
        record: dict[str, object] = orjson.loads(first.encode("utf-8", "surrogateescape"))
    except orjson.JSONDecodeError as error:
        raise SourceError(f"The first line begins like JSON and is not: {error.msg}.") from error
    missing = [name for name in needed if name not in record]
    if missing:
        raise SourceError(f"The first line's object lacks {' and '.join(missing)}.")
    return record


def _text(value: object) -> str:
    if value is None:
        return ""
    return value if isinstance(value, str) else str(value)


def _texts(chunks: Iterable[bytes]) -> Iterator[str]:
    """Pieces of whole lines; bytes that are not UTF-8 become lone surrogates."""
    rest, first, count = b"", True, 0
    for chunk in chunks:
        data = rest + chunk
        if first and len(data) >= 4:
            _require_rows(data)
            data, first = data.removeprefix(_BOM), False
        end = data.rfind(b"\n") + 1
        rest = data[end:]
        if len(rest) > LONGEST_LINE:
            raise SourceError(
                f"A line after line {count} is longer than {LONGEST_LINE:,} bytes: "
                "this is not a file of rows."
            )
        count += data.count(b"\n", 0, end)
        yield data[:end].decode("utf-8", "surrogateescape")
    yield (rest.removeprefix(_BOM) if first else rest).decode("utf-8", "surrogateescape")


def _require_rows(data: bytes) -> None:
    for mark, what in _NOT_ROWS:
        if data.startswith(mark):
            raise SourceError(f"The file is {what}.")


def _unzipped(chunks: Iterable[bytes]) -> Iterator[bytes]:
    """The bytes, unzipped where they are gzip (RFC 1952, several members allowed)."""
    pieces = iter(chunks)
    start = b""
    for piece in pieces:
        start += piece
        if len(start) >= len(_GZIP):
            break
    if not start.startswith(_GZIP):
        yield start
        yield from pieces
        return
    unzip = zlib.decompressobj(wbits=31)
    data = start
    try:
        while True:
            full = False
            while data or full:
                if unzip.eof:
                    unzip = zlib.decompressobj(wbits=31)
                text = unzip.decompress(data, LONGEST_LINE)
                yield text
                data = unzip.unused_data if unzip.eof else unzip.unconsumed_tail
                full = len(text) == LONGEST_LINE and not unzip.eof
            if (more := next(pieces, None)) is None:
                break
            data = more
    except zlib.error as error:
        raise SourceError(f"The file's gzip data is damaged: {error}.") from error
    if not unzip.eof:
        raise SourceError("The file's gzip data ends in the middle; send it again.")
