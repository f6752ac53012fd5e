"""Receiving a file of reference data: straight from the request into the database, in pieces."""

from __future__ import annotations

from collections.abc import Iterator
from typing import IO

from flask import Request

from anchorline.core.errors import Problem

from ..endpoints import FILE_TYPES
from ..problems import ProblemError, invalid

PIECE = 1 << 20
_MULTIPART = "multipart/form-data"


def file_of(http: Request, most: int) -> tuple[str, Iterator[bytes]]:
    """The file's name and its pieces, from a form or from the body itself.

    Args:
        most: bytes that a file may have.

    Raises:
        ProblemError: 415 or 422 where no file is sent.
    """
    http.max_content_length = most
    if http.mimetype == _MULTIPART:
        uploaded = http.files.get("file")
        if uploaded is None:
            raise invalid([Problem("/file", "Send the file in the part `file` of the form.")])
        return uploaded.filename or "", _pieces(uploaded.stream)
    if http.mimetype not in FILE_TYPES:
        raise ProblemError(
            415, f"Send the file as {_MULTIPART}, or as the body itself: {', '.join(FILE_TYPES)}."
        )
    return "", _pieces(http.stream)


def _pieces(file: IO[bytes]) -> Iterator[bytes]:
    """Pieces of one size, whatever comes over the wire at once."""
    waiting = bytearray()
    while data := file.read(PIECE):
        waiting += data
        while len(waiting) >= PIECE:
            yield bytes(waiting[:PIECE])
            del waiting[:PIECE]
    if waiting:
        yield bytes(waiting)
