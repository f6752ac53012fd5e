"""The other codes of a country, from ISO 3166-1 through pycountry."""

from __future__ import annotations

from functools import lru_cache

import pycountry


@lru_cache(maxsize=512)
def alpha_3_code(country_code: str) -> str:
    """Three letters for ISO 3166-1's two; empty where it lists no such country."""
    found = pycountry.countries.get(alpha_2=country_code)
    return str(found.alpha_3) if found is not None else ""


@lru_cache(maxsize=512)
def numeric_code(country_code: str) -> str:
    """Three digits for ISO 3166-1's two letters; empty where it lists no such country."""
    found = pycountry.countries.get(alpha_2=country_code)
    return str(found.numeric) if found is not None else ""
