"""Free disk space: large writes stop before the last of it is used up."""

from __future__ import annotations

import shutil
from collections.abc import Callable
from pathlib import Path
from time import monotonic

# A database that starts on a full disk ends at once, after it has written what it could.
_TO_START_BYTES = 8 << 20
_LOOK_EVERY_SECONDS = 1.0


def free_bytes(folder: Path) -> int:
    """How much may still be written below a folder; none where that cannot be told."""
    try:
        return shutil.disk_usage(folder).free
    except OSError:
        return 0


def why_not_start(folder: Path) -> str | None:
    """Why the database in a folder should not be started now; None where it may be."""
    free = free_bytes(folder)
    if free >= _TO_START_BYTES:
        return None
    return f"{free / 1e6:.1f} MB are free on the disk of {folder}; it waits for more"


def room_left(folder: Path, reserved: int) -> Callable[[], bool]:
    """Says whether more than `reserved` bytes are free, looking once in a second."""
    looked, room = float("-inf"), True

    def has_room() -> bool:
        nonlocal looked, room
        if monotonic() - looked > _LOOK_EVERY_SECONDS:
            looked, room = monotonic(), free_bytes(folder) > reserved
        return room

    return has_room
