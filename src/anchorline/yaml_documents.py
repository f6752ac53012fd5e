"""YAML 1.2: reading and writing documents.

By the core schema of YAML 1.2, `no` and `on` are words (NO is Norway), and 012 is twelve.
"""

from __future__ import annotations

from typing import Any

import yaml
from yamlcore import CCoreDumper, CCoreLoader


class YamlError(ValueError):
    """A text that is not YAML; `line` and `column` count from 1, 0 where the place is not known."""

    def __init__(self, detail: str, line: int, column: int) -> None:
        super().__init__(detail)
        self.line, self.column = line, column


def read_yaml(text: str | bytes) -> Any:
    """The plain values of one document.

    Raises:
        YamlError: it is none.
    """
    try:
        return yaml.load(text, Loader=CCoreLoader)  # noqa: S506  # it makes plain values only
    except yaml.MarkedYAMLError as error:
        mark = error.problem_mark
        line, column = (mark.line + 1, mark.column + 1) if mark else (0, 0)
        raise YamlError(str(error.problem), line, column) from None
    except yaml.YAMLError as error:
        raise YamlError(str(error), 0, 0) from None


def write_yaml(content: Any) -> str:
    """Plain values as one document that `read_yaml` reads."""
    written: str = yaml.dump(
        content, Dumper=CCoreDumper, allow_unicode=True, sort_keys=False, width=100
    )
    return written
