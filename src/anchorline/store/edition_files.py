"""Built editions as files: one `.npy` an array and a manifest, opened as memory maps."""

from __future__ import annotations

import os
import shutil
from pathlib import Path
from typing import Any, cast

import numpy as np
import orjson

from anchorline.core.errors import EditionError
from anchorline.core.gazetteer import Edition
from anchorline.core.gazetteer.build import Built


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
        for name, array in built.arrays.items():
            np.save(partial / f"{name}.npy", array, allow_pickle=False)
        manifest = {**built.manifest, "arrays": sorted(built.arrays)}
        (partial / "manifest.json").write_bytes(orjson.dumps(manifest))
        before = final.with_name(f".{number}.before")
        shutil.rmtree(before, ignore_errors=True)
        if final.exists():
            final.rename(before)
        partial.rename(final)
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
            arrays = {name: _mapped(path / f"{name}.npy") for name in manifest["arrays"]}
        except (OSError, ValueError, KeyError) as error:
            raise EditionError(
                f"Edition {number} of {dataset} cannot be opened from {path}: {error}"
            ) from error
        return Edition(dataset, number, manifest, arrays)

    def _path(self, dataset: str, number: int) -> Path:
        return self._folder / dataset / str(number)


def _mapped(file: Path) -> Any:
    """An array mapped from its file; the system is asked to read it ahead of the first search."""
    with file.open("rb") as opened:
        os.posix_fadvise(opened.fileno(), 0, 0, os.POSIX_FADV_WILLNEED)
    return np.load(file, mmap_mode="r", allow_pickle=False)
