"""Which way of writing was found best for a target on this machine, kept from run to run."""

from __future__ import annotations

import json
from pathlib import Path

from anchorline.core.targets.programs.ways import TRIED
from anchorline.private_files import write_whole

from .known_targets import AddressOfTarget, KnownTarget


class BestWays:
    """Ways by target and address; a new version of a target is tried anew.

    Args:
        file: where they are kept.
    """

    def __init__(self, file: Path) -> None:
        self._file = file
        self._ways: dict[str, dict[str, object]] = {}
        try:
            kept = json.loads(file.read_text("utf-8"))
        except (OSError, ValueError):
            # None yet, or half written: they are tried again.
            return
        if isinstance(kept, dict):
            self._ways = {name: one for name, one in kept.items() if isinstance(one, dict)}

    def of(self, target: KnownTarget, address: AddressOfTarget) -> str:
        """The way that was found best; empty where none was tried."""
        kept = self._ways.get(_name(target, address), {})
        way = kept.get("way")
        return str(way) if kept.get("version") == target.version and way in TRIED else ""

    def remember(self, target: KnownTarget, address: AddressOfTarget, way: str) -> None:
        """Keeps a way; OSError where it cannot be kept on disk, and it is known until the end."""
        self._ways[_name(target, address)] = {"version": target.version, "way": way}
        self._file.parent.mkdir(parents=True, exist_ok=True)
        write_whole(self._file, json.dumps(self._ways, indent=1).encode())


def _name(target: KnownTarget, address: AddressOfTarget) -> str:
    return f"{target.key}/{address.key}"
