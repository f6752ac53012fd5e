"""Files of the console and the elements, compressed for whoever takes that."""

from __future__ import annotations

import gzip
from functools import lru_cache
from pathlib import Path

from flask import Response, request, send_from_directory

_COMPRESSED = frozenset({".js", ".css", ".svg", ".html", ".ts", ".json", ".map"})
# Less than this fits a packet or two, compressed or not.
_LEAST_BYTES = 1400


def static_file(folder: Path, name: str, *, max_age: int) -> Response:
    """A file of a folder; gzipped where the caller takes it and it is worth it.

    Args:
        name: relative to the folder; 404 where there is none, or it leads out of the folder.
        max_age: seconds for which the answer may be kept.
    """
    plain = send_from_directory(folder, name, max_age=max_age)
    path = folder / name
    if path.suffix not in _COMPRESSED or path.stat().st_size < _LEAST_BYTES:
        return plain
    plain.headers["Vary"] = "Accept-Encoding"
    if request.accept_encodings.quality("gzip") <= 0 or plain.status_code != 200:
        return plain
    body, tag = _gzipped(path, path.stat().st_mtime_ns)
    packed = Response(body, mimetype=plain.mimetype)
    packed.headers["Content-Encoding"] = "gzip"
    packed.headers["Vary"] = "Accept-Encoding"
    packed.cache_control.max_age = max_age
    packed.cache_control.public = plain.cache_control.public
    packed.set_etag(tag)
    plain.close()
    packed.make_conditional(request)
    return packed


@lru_cache(maxsize=128)
def _gzipped(path: Path, changed: int) -> tuple[bytes, str]:
    return gzip.compress(path.read_bytes(), compresslevel=9, mtime=0), f"{changed:x}-gzip"
