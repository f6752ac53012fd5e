"""What is wrong with values that do not match their schema, in sentences."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, get_args

from pydantic import BaseModel

from anchorline.core.errors import nearest_names, shown


def fault_detail(fault: Mapping[str, Any], schema: type[BaseModel]) -> str:
    """A sentence on one of pydantic's errors, with the nearest known names for an unknown one."""
    kind, context = fault["type"], fault.get("ctx", {})
    if kind == "extra_forbidden":
        name = str(fault["loc"][-1])
        nearest = nearest_names(name, _field_names(schema))
        hint = f" Did you mean {' or '.join(nearest)}?" if nearest else ""
        return f"{shown(name)} is not known here.{hint}"
    if kind == "missing":
        return "This is needed."
    if kind == "string_too_long":
        return f"At most {context['max_length']} characters."
    if kind == "too_long":
        return f"At most {context['max_length']} entries; there are {context['actual_length']}."
    if kind == "value_error":
        return str(context["error"])
    return f"{fault['msg']}."


def _field_names(schema: type[BaseModel]) -> set[str]:
    """Names of the fields of a schema and of the schemas inside it."""
    names: set[str] = set()
    waiting: list[object] = [schema]
    seen: set[object] = set()
    while waiting:
        one = waiting.pop()
        if isinstance(one, type) and issubclass(one, BaseModel):
            if one in seen:
                continue
            seen.add(one)
            names.update(one.model_fields)
            waiting.extend(field.annotation for field in one.model_fields.values())
        else:
            waiting.extend(get_args(one))
    return names
