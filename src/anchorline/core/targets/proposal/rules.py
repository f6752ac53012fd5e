"""The rules that fill the fields of one address, from what each of them is."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ...forms.field_labels import STREET
from .meaning import LINE, WHOLE, Meaning
from .seen import SeenField
from .wording import as_listed

Entry = dict[str, Any]
# Characters of a line, where the field does not say how many it takes.
_LINE_WIDTH = 60
# Below so many characters a country or a region is a code.
_CODE = 3


def rules_for(fields: Sequence[tuple[str, SeenField, Meaning]]) -> list[Entry]:
    """Rules into fields.

    Args:
        fields: of the address: key, what is seen, what it is.
    """
    of: Mapping[str, list[tuple[str, SeenField]]] = _by_meaning(fields)
    lines = sorted(name for name in of if name.startswith(LINE))
    numbered = [key for name in lines for key, _ in of[name]]
    rules: list[Entry] = [
        _of_several(key, meaning.of) for key, _, meaning in fields if len(meaning.of) > 1
    ]
    has_number = "number" in of
    for name, listed in of.items():
        for key, seen in listed:
            if name.startswith(LINE):
                continue
            rules += _rule(name, key, seen, has_number)
    if numbered:
        rules.append(_fit(numbered, [seen for name in lines for _, seen in of[name]], of))
    return rules


def _by_meaning(
    fields: Sequence[tuple[str, SeenField, Meaning]],
) -> dict[str, list[tuple[str, SeenField]]]:
    found: dict[str, list[tuple[str, SeenField]]] = {}
    for key, seen, meaning in fields:
        if len(meaning.of) == 1:
            found.setdefault(meaning.of[0], []).append((key, seen))
    return found


def _of_several(key: str, names: Sequence[str]) -> Entry:
    """A field that takes several components."""
    if tuple(names) == STREET:
        # In the order of each country.
        return {"lines": "street", "into": key}
    return {"components": list(names), "join": ", ", "into": key}


def _rule(name: str, key: str, seen: SeenField, has_number: bool) -> list[Entry]:
    if name == WHOLE:
        width = {} if seen.several_lines else {"lines": 1}
        return [{"fit": {"into": [key], **width}}]
    if name == "street":
        if seen.several_lines:
            return [{"fit": {"into": [key], "width": seen.max_length or _LINE_WIDTH}}]
        if not has_number:
            # In the order of each country.
            return [{"lines": "street", "into": key}]
    if name in ("country", "region"):
        is_short = (seen.max_length or _CODE + 1) <= _CODE
        is_short = is_short or "code" in seen.label.casefold().split()
        return [as_listed(name, key, seen, is_short)]
    return [{"components": [name], "into": key}]


def _fit(numbered: Sequence[str], seen: Sequence[SeenField], of: Mapping[str, object]) -> Entry:
    if len(numbered) == 1:
        [key], [only] = numbered, seen
        if only.label and "street" in of:
            return {"components": ["unit", "building"], "join": ", ", "into": key}
        return {"lines": "street", "into": key}
    widths = [one.max_length for one in seen if one.max_length]
    return {"fit": {"into": list(numbered), "width": min([*widths, _LINE_WIDTH])}}
