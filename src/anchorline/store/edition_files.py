"""Built editions as files: all arrays in one, and a manifest; opened as a memory map.

What every search reads stands first, and of that the small arrays, which opening reads: one look
at a cold disk brings them all, while the large ones are still being read ahead.
"""

from __future__ import annotations

import math
import os
import shutil
import threading
from contextlib import suppress
from pathlib import Path
from typing import Any, cast

import numpy as np
import numpy.typing as npt
import orjson

from anchorline.core.errors import EditionError
from anchorline.core.gazetteer import Edition
from anchorline.core.gazetteer.arrays import SELDOM_SEARCHED, Arrays
from anchorline.core.gazetteer.building.build import Built
from anchorline.core.gazetteer.edition import require_form
from anchorline.private_files import sync_folder, write_whole

_ARRAYS = "arrays.bin"
# Bytes to which each array is aligned: a line of the processor's cache.
_ALIGNED = 64
_PIECE = 1 << 20
# Opening waits so long for the file to be read; the rest is read beside the first searches.
_WAIT_SECONDS = 0.04


class EditionFiles:
    """The folder that holds `DATASET/NUMBER/` for every edition."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder

    def write(self, dataset: str, number: int, built: Built) -> int:
        """Writes an edition whole or not at all; returns the bytes it takes on disk."""
        final = self._path(dataset, number)
        partial = final.with_name(f".{number}.partial")
        shutil.rmtree(partial, ignore_errors=True)
        partial.mkdir(parents=True)
        manifest = {**built.manifest, **_write_arrays(partial / _ARRAYS, built.arrays)}
        write_whole(partial / "manifest.json", orjson.dumps(manifest), mode=0o644)
        before = final.with_name(f".{number}.before")
        shutil.rmtree(before, ignore_errors=True)
        if final.exists():
            final.rename(before)
        partial.rename(final)
        sync_folder(final.parent)
        shutil.rmtree(before, ignore_errors=True)
        return sum(file.stat().st_size for file in final.iterdir())

    def remove(self, dataset: str, number: int) -> None:
        """Takes an edition's files away; whoever has them open goes on reading them."""
        shutil.rmtree(self._path(dataset, number), ignore_errors=True)

    def open(self, dataset: str, number: int) -> Edition:
        """Opens an edition; its arrays are mapped, not read.

        Raises:
            EditionError: its files are missing or are not an edition that this release reads.
        """
        path = self._path(dataset, number)
        try:
            manifest = cast(dict[str, Any], orjson.loads((path / "manifest.json").read_bytes()))
            require_form(dataset, number, manifest)
            arrays = _mapped(path / _ARRAYS, manifest)
        except (OSError, ValueError, KeyError) as error:
            raise EditionError(
                f"Edition {number} of {dataset} cannot be opened from {path}: {error}"
            ) from error
        return Edition(dataset, number, manifest, arrays)

    def _path(self, dataset: str, number: int) -> Path:
        return self._folder / dataset / str(number)


def _write_arrays(file: Path, arrays: Arrays) -> dict[str, Any]:
    """Writes arrays one after the other; returns what the manifest says of them."""
    entries: dict[str, dict[str, Any]] = {}
    with file.open("xb") as opened:
        order = sorted((name in SELDOM_SEARCHED, arrays[name].nbytes, name) for name in arrays)
        for _seldom, _bytes, name in order:
            array = arrays[name]
            opened.write(bytes(-opened.tell() % _ALIGNED))
            entries[name] = {
                "type": array.dtype.str,
                "shape": array.shape,
                "offset": opened.tell(),
            }
            np.ascontiguousarray(array).tofile(opened)
        opened.flush()
        os.fsync(opened.fileno())
        return {"arrays": entries, "bytes": opened.tell()}


def _mapped(file: Path, manifest: dict[str, Any]) -> Arrays:
    """The arrays of a file as maps of it; the system is asked to read it ahead."""
    with file.open("rb") as opened:
        if os.fstat(opened.fileno()).st_size != manifest["bytes"]:
            raise ValueError(f"{file.name} is not as long as it was written")
        os.posix_fadvise(opened.fileno(), 0, _PIECE, os.POSIX_FADV_WILLNEED)
    ahead = threading.Thread(target=_read_ahead, args=(file,), name="read ahead", daemon=True)
    ahead.start()
    ahead.join(_WAIT_SECONDS)
    whole = np.memmap(file, dtype=np.uint8, mode="r").view(np.ndarray)
    return {name: _array(whole, **entry) for name, entry in manifest["arrays"].items()}


def _read_ahead(file: Path) -> None:
    """Reads a file once from its beginning, so that its pages are there before they are asked for.

    Piece by piece: a search that needs a page waits for one piece and not for the whole file.
    """
    with suppress(OSError), file.open("rb", buffering=0) as opened:
        room = bytearray(_PIECE)
        while opened.readinto(room):
            pass


def _array(
    whole: npt.NDArray[np.uint8], *, type: str, shape: list[int], offset: int
) -> npt.NDArray[np.generic]:
    kind = np.dtype(type)
    size = kind.itemsize * math.prod(shape)
    return whole[offset : offset + size].view(kind).reshape(shape)
