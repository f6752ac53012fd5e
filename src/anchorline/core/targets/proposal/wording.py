"""How a list names countries or regions: what its options are decides what is written."""

from __future__ import annotations

import re
from typing import Any

from .seen import SeenField

# A code as the value of an option, or in brackets in its text.
_CODE = re.compile(r"[A-Z]{2,3}")
_CODE_IN_TEXT = re.compile(r"\([A-Z]{2,3}\)")


def as_listed(name: str, key: str, seen: SeenField, is_short: bool) -> dict[str, Any]:
    """The rule that writes a country or a region.

    Args:
        name: `country` or `region`.
        is_short: the field has room for a code alone, or asks for one.
    """
    codes = sum(
        bool(_CODE.fullmatch(one.value) or _CODE_IN_TEXT.search(one.text)) for one in seen.options
    )
    is_code = codes > len(seen.options) // 2 if seen.options else is_short
    return {"components": [f"{name}_code" if is_code else name], "into": key}
