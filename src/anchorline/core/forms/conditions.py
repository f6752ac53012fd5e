"""Simple conditions in words, as people would say them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ..formula import FormulaError, parse
from ..formula.tree import Call, Constant, FieldValue, Node
from ..formula.values import plain

Document = Mapping[str, Any]
_COMPARED = {
    "=": "is",
    "<>": "is not",
    "<": "is less than",
    ">": "is more than",
    "<=": "is at most",
    ">=": "is at least",
}
_JOINED = {"AND": " and ", "OR": " or "}


def in_words(condition: str, items: Mapping[str, Document]) -> str | None:
    """A condition in words: “Visit” is “Moving the piano”.

    Args:
        condition: a formula.
        items: fields and slots of the document, by key.

    Returns:
        None where it is more than comparisons of fields with values.
    """
    try:
        tree = parse(condition).tree
    except FormulaError:
        return None
    return _said(tree, {key.upper(): item for key, item in items.items()})


def _said(node: Node, items: Mapping[str, Document]) -> str | None:
    if isinstance(node, FieldValue):
        label = _label(node, items)
        return f"{label} is yes" if label else None
    if not isinstance(node, Call):
        return None
    if node.name in _JOINED:
        parts = [_said(part, items) for part in node.of]
        return _JOINED[node.name].join(p for p in parts if p) if all(parts) else None
    label = _label(node.of[0], items) if node.of else None
    if label is None:
        return None
    if node.name == "NOT":
        return f"{label} is no"
    if node.name == "ISBLANK":
        return f"{label} is empty"
    compared = {**_COMPARED, "CHOSEN": "includes"}.get(node.name)
    if compared is None or not isinstance(node.of[1], Constant):
        return None
    return f"{label} {compared} {_value(node.of[0], node.of[1], items)}"


def _label(node: Node, items: Mapping[str, Document]) -> str | None:
    item = items.get(node.key.upper()) if isinstance(node, FieldValue) else None
    return f"“{item.get('label') or item['key']}”" if item is not None else None


def _value(node: Node, constant: Constant, items: Mapping[str, Document]) -> str:
    value = constant.value
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return plain(value)
    item = items[node.key.upper()] if isinstance(node, FieldValue) else {}
    options = {o["value"].casefold(): o.get("label") or o["value"] for o in item.get("options", ())}
    text = str(value or "")
    return f"“{options.get(text.casefold(), text)}”"
