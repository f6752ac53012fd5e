"""Ready-made targets: fields, mapping and writing of screens of our scenario, one file each."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from importlib import resources
from typing import Any

from anchorline.yaml_documents import read_yaml


@dataclass(frozen=True, slots=True)
class ReadyMadeTarget:
    """A target to copy and change.

    Attributes:
        name: of its file.
        says: a sentence for whoever chooses one.
        content: `fields` and `addresses` as a target's document has them.
    """

    name: str
    title: str
    says: str
    content: Mapping[str, Any]


@lru_cache(maxsize=1)
def ready_made_targets() -> Sequence[ReadyMadeTarget]:
    """All of them, by name."""
    found = []
    for file in sorted(resources.files(__package__).iterdir(), key=lambda file: file.name):
        if file.name.endswith(".yaml"):
            entry = read_yaml(file.read_bytes())
            content = {name: entry[name] for name in ("fields", "addresses")}
            found.append(ReadyMadeTarget(file.name[:-5], entry["title"], entry["says"], content))
    return tuple(found)
