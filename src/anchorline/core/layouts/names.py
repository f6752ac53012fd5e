"""The names of countries in all languages, from Unicode's CLDR through Babel."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from functools import lru_cache

from babel import Locale, UnknownLocaleError
from babel.core import get_global

from ..errors import nearest_names, unknown_name_detail
from ..text import fold

# Country names written in these languages are recognised in pasted addresses, beside the
# country's own: those that mail from abroad is most often addressed in.
LANGUAGES_OF_MAIL: tuple[str, ...] = ("en", "fr", "de", "es", "it", "nl", "pt", "ja", "ga")


@lru_cache(maxsize=4096)
def country_name(country_code: str, language: str) -> str | None:
    """A country's name in a language (BCP 47), or None where CLDR has none in it."""
    locale = _locale(language)
    name = locale.territories.get(country_code) if locale is not None else None
    return str(name) if name else None


def likely_countries(typed: str, codes: Collection[str]) -> list[str]:
    """The codes that somebody may mean who typed another thing, the likeliest first.

    A country's name, another code of it (`UK`, `USA`, `826`: CLDR's aliases), or a slip.
    """
    aliases: Mapping[str, list[str]] = get_global("territory_aliases")
    meant = [code for code in aliases.get(typed.strip().upper(), ()) if code in codes]
    name = fold(typed)
    meant += [
        code
        for code in codes
        if any(fold(country_name(code, language) or "") == name for language in LANGUAGES_OF_MAIL)
    ]
    return list(dict.fromkeys(meant))[:3] or nearest_names(typed, codes)


def unknown_country_detail(typed: str, codes: Collection[str], what: str = "country code") -> str:
    """The sentence for a country that is not among some codes, with what may be meant."""
    return unknown_name_detail(what, typed, likely_countries(typed, codes))


def is_language(language: str) -> bool:
    """Whether CLDR knows a language tag (BCP 47), or the language in front of it."""
    return _locale(language) is not None


def language_name(language: str) -> str:
    """A language's name in English, or its tag where CLDR has none."""
    locale = _locale(language)
    return str(locale.get_display_name("en") or language) if locale is not None else language


def load_names() -> None:
    """Reads the names in LANGUAGES_OF_MAIL: a tenth of a second that no search should wait for."""
    for language in LANGUAGES_OF_MAIL:
        country_name("GB", language)


def text_direction(language: str) -> str:
    """The direction of a language (BCP 47): `ltr` or `rtl`."""
    locale = _locale(language)
    return str(locale.text_direction) if locale is not None else "ltr"


@lru_cache(maxsize=256)
def _locale(language: str) -> Locale | None:
    """The locale of a language tag, or of its first part."""
    for tag in (language, language.split("-")[0]):
        try:
            return Locale.parse(tag, sep="-")
        except (UnknownLocaleError, ValueError):
            continue
    return None
