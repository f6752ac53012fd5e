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
    """Plain values as one document that `read_yaml` reads; what is short stands in one line."""
    return str(yaml.dump(content, Dumper=_Dumper, allow_unicode=True, sort_keys=False, width=100))


_LONGEST_IN_ONE_LINE = 80


class _Dumper(CCoreDumper):  # type: ignore[misc]
    """Writes short lists and mappings of plain values in one line each."""

    def represent_sequence(self, tag: str, sequence: Any, flow_style: bool | None = None) -> Any:
        node = super().represent_sequence(tag, sequence, flow_style)
        node.flow_style = _is_short(sequence)
        return node

    def represent_mapping(self, tag: str, mapping: Any, flow_style: bool | None = None) -> Any:
        node = super().represent_mapping(tag, mapping, flow_style)
        is_whole = not self.represented_objects or len(self.represented_objects) == 1
        node.flow_style = not is_whole and _is_short(list(mapping.values()), len(mapping))
        return node


def _is_short(values: list[Any], names: int = 0) -> bool:
    """Whether plain values, or short lists of them, fit into one line."""
    plain = all(not isinstance(value, dict) for value in values)
    nested = any(isinstance(value, list) and not _is_short(value) for value in values)
    return plain and not nested and len(str(values)) + 8 * names <= _LONGEST_IN_ONE_LINE
