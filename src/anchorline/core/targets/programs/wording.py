"""How a target writes everything: capitals, and how the country is named.

It is said once for a target, and holds for every rule of its mapping; a rule that says it by itself
is left as it is.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

# What names the country, however it is written.
_COUNTRY = (["country"], ["country_code"])


def with_wording(document: Mapping[str, Any]) -> dict[str, Any]:
    """The document with its wording in each rule of its mapping."""
    wording = document.get("wording") or {}
    if not wording:
        return dict(document)
    addresses = [
        {**entry, "mapping": [_worded(rule, wording) for rule in entry.get("mapping") or ()]}
        for entry in document.get("addresses") or ()
    ]
    return {**document, "addresses": addresses}


def _worded(rule: Mapping[str, Any], wording: Mapping[str, Any]) -> dict[str, Any]:
    changed = dict(rule)
    changes = list(rule.get("changes") or ())
    names = {next(iter(one)) if isinstance(one, Mapping) else one for one in changes}
    if rule.get("components") in _COUNTRY:
        style, home = wording.get("country_as"), wording.get("home_country")
        if style and "country" not in names:
            changed["components"] = ["country"]
            changes.append({"country": {"as": style}})
        if home and not rule.get("when") and not rule.get("otherwise"):
            changed["when"] = f'country_code <> "{home}"'
    if wording.get("capitals") and "upper" not in names and not rule.get("link"):
        changes.append("upper")
    return changed | ({"changes": changes} if changes else {})
