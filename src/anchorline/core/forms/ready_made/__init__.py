"""Ready-made forms: documents to begin from, one file each."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from importlib import resources
from typing import Any

from anchorline.yaml_documents import read_yaml


@dataclass(frozen=True, slots=True)
class ReadyMade:
    """A form to begin from.

    Attributes:
        name: of its file.
        says: a sentence for whoever chooses one.
    """

    name: str
    says: str
    document: Mapping[str, Any]


@lru_cache(maxsize=1)
def ready_made_forms() -> Sequence[ReadyMade]:
    """All of them, by name."""
    files = sorted(resources.files(__package__).iterdir(), key=lambda file: file.name)
    found = []
    for file in files:
        if file.name.endswith(".yaml"):
            content = read_yaml(file.read_bytes())
            found.append(ReadyMade(file.name[:-5], content["says"], content["form"]))
    return tuple(found)
