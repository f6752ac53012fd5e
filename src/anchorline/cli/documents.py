"""Documents in files: YAML read into a schema, with every fault named by its place."""

from __future__ import annotations

import re
from difflib import get_close_matches
from pathlib import Path
from typing import Any, TypeVar

import yaml
from pydantic import BaseModel, ValidationError

from .exit_codes import GivenWrongError

_Document = TypeVar("_Document", bound=BaseModel)
_BOOLEAN = "tag:yaml.org,2002:bool"


class _Loader(yaml.SafeLoader):
    """YAML in which yes, no, on and off are words, as in YAML 1.2: NO is Norway."""

    yaml_implicit_resolvers = {  # noqa: RUF012  # as the library declares it
        first: [(tag, expression) for tag, expression in resolvers if tag != _BOOLEAN]
        for first, resolvers in yaml.SafeLoader.yaml_implicit_resolvers.items()
    }


_Loader.add_implicit_resolver(_BOOLEAN, re.compile("^(?:true|false)$"), list("tf"))


def read_document(path: Path, schema: type[_Document]) -> _Document:
    """The document of a file.

    Raises:
        GivenWrongError: it is not YAML, or not of this schema; says where and why.
    """
    try:
        content: Any = yaml.load(path.read_text("utf-8"), Loader=_Loader)  # noqa: S506  # a safe one
    except (OSError, UnicodeDecodeError) as error:
        raise GivenWrongError(f"{path} cannot be read: {error}") from None
    except yaml.MarkedYAMLError as error:
        mark = error.problem_mark
        where = f", line {mark.line + 1}, column {mark.column + 1}" if mark else ""
        raise GivenWrongError(f"{path}{where}: {error.problem}") from None
    if not isinstance(content, dict):
        raise GivenWrongError(f"{path} must hold names with values, such as key: letters.")
    try:
        return schema.model_validate(content)
    except ValidationError as error:
        faults = [_sentence(fault, schema) for fault in error.errors(include_url=False)]
        raise GivenWrongError("\n  ".join([f"{path}:", *faults])) from None


def write_document(document: BaseModel) -> str:
    """A document as YAML that `read_document` reads."""
    content = document.model_dump(mode="json", exclude_defaults=True)
    return yaml.safe_dump(content, allow_unicode=True, sort_keys=False, width=100)


def _sentence(fault: Any, schema: type[BaseModel]) -> str:
    place = "/" + "/".join(map(str, fault["loc"]))
    if fault["type"] == "extra_forbidden":
        name = str(fault["loc"][-1])
        known = re.findall(r'"(\w+)": ?\{', str(schema.model_json_schema()).replace("'", '"'))
        nearest = get_close_matches(name, known, n=1)
        hint = f" Did you mean {nearest[0]}?" if nearest else ""
        return f"{place}: {name!r} is not known here.{hint}"
    if fault["type"] == "missing":
        return f"{place}: This is needed."
    return f"{place}: {fault['msg']}."
