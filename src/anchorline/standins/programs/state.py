"""What all of them share: where they keep their fields, and what stands there at the start."""

from __future__ import annotations

import argparse
import json
from collections.abc import Mapping
from dataclasses import dataclass, field
from pathlib import Path


@dataclass
class State:
    """The fields of a program, kept in a file at every change."""

    path: Path | None
    values: dict[str, str] = field(default_factory=dict)
    number: int = 1042

    def keep(self, values: Mapping[str, str]) -> None:
        """Keeps all fields; the file is whole at any time."""
        if dict(values) == self.values:
            return
        self.values = dict(values)
        self.write()

    def write(self) -> None:
        """Writes the file."""
        if self.path is None:
            return
        beside = self.path.with_suffix(".part")
        beside.write_text(json.dumps(self.values, ensure_ascii=False), "utf-8")
        beside.replace(self.path)


def read_state(about: str, names: tuple[str, ...]) -> State:
    """The state that the command line asks for: `--file`, `--values`, `--number`."""
    parser = argparse.ArgumentParser(description=about)
    parser.add_argument("--file", type=Path, help="where the fields are kept, as JSON")
    parser.add_argument("--values", default="{}", help="what stands in the fields, as JSON")
    parser.add_argument("--number", type=int, default=1042, help="of the record, in the title")
    given = parser.parse_args()
    values = dict.fromkeys(names, "") | json.loads(given.values)
    state = State(given.file, values, given.number)
    state.write()
    return state
