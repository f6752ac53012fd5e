"""Documents in files: YAML read into a schema, with every fault named by its place."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from anchorline.wire.faults import fault_detail
from anchorline.yaml_documents import YamlError, read_yaml, write_yaml

from .exit_codes import GivenWrongError

_Document = TypeVar("_Document", bound=BaseModel)


def read_document(path: Path, schema: type[_Document]) -> _Document:
    """The document of a file.

    Raises:
        GivenWrongError: it is not YAML, or not of this schema; says where and why.
    """
    return read_one_of(path, lambda content: schema)  # noqa: ARG005


def read_one_of(path: Path, schema_of: Callable[[Mapping[str, Any]], type[_Document]]) -> _Document:
    """The document of a file whose schema depends on what it says.

    Raises:
        GivenWrongError: it is not YAML, or not of its schema; says where and why.
    """
    try:
        content: Any = read_yaml(path.read_text("utf-8"))
    except (OSError, UnicodeDecodeError) as error:
        raise GivenWrongError(f"{path} cannot be read: {error}") from None
    except YamlError as error:
        where = f", line {error.line}, column {error.column}" if error.line else ""
        raise GivenWrongError(f"{path}{where}: {error}") from None
    if not isinstance(content, dict):
        raise GivenWrongError(f"{path} must hold names with values, such as key: letters.")
    schema = schema_of(content)
    try:
        return schema.model_validate(content)
    except ValidationError as error:
        faults = [
            f"/{'/'.join(map(str, fault['loc']))}: {fault_detail(fault, schema)}"
            for fault in error.errors(include_url=False)
        ]
        raise GivenWrongError("\n  ".join([f"{path}:", *faults])) from None


def write_document(document: BaseModel) -> str:
    """A document as YAML that `read_document` reads."""
    content = document.model_dump(mode="json", exclude_defaults=True)
    return write_yaml(content)
