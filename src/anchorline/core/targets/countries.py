"""In which field of a target an address says its country, and what is written there for each."""

from __future__ import annotations

from dataclasses import dataclass

from ..forms import Form, Slot
from ..forms.receiving import receivers_of
from ..layouts import LayoutLibrary
from ..mapping import KnownAddress, Rule, fill

_COUNTRY = frozenset({"country", "country_code"})


@dataclass(frozen=True, slots=True)
class CountryField:
    """A field, and by country code the text that the mapping writes there."""

    field: str
    texts: dict[str, str]


def country_field(form: Form, slot: Slot, layouts: LayoutLibrary) -> CountryField | None:
    """The field that a mapping fills with the country alone; None for none.

    Texts that two countries share tell neither, and are left out.
    """
    receivers = receivers_of(form)
    for key in dict.fromkeys(key for rule in slot.mapping for key in rule.into):
        rules = [rule for rule in slot.mapping if key in rule.into]
        if not all(map(_is_country, rules)):
            continue
        texts: dict[str, str] = {}
        for code in slot.countries:
            layout = layouts.require(code)
            known = KnownAddress({"country_code": code}, layout, layouts=layouts)
            texts[code] = fill(rules, receivers, known).values[key]
        written = list(texts.values())
        alone = {code: text for code, text in texts.items() if text and written.count(text) == 1}
        return CountryField(key, alone) if alone else None
    return None


def _is_country(rule: Rule) -> bool:
    return bool(rule.source.takes) and set(rule.source.takes) <= _COUNTRY
