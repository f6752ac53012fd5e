"""Capitals at the beginning of words, as names are written."""

from __future__ import annotations

import re

from .kind import Changed, Context, Settings, change

# Words that stay small inside a name, by language; sources: the languages' style guides for names.
_SMALL = {
    "en": "of the and on in at by under upon with",
    "fr": "de du des la le les et aux à sur sous en d l",
    "de": "von vom zu zum zur am an im in der die das den dem des und auf bei unter ob",
    "nl": "van de der den het te ter ten in op aan bij onder en",
    "es": "de del la las los el y en",
    "pt": "de da do das dos e em",
    "it": "di del della dello dei degli delle da dal dalla e in la lo le il",
    "ga": "na an agus",
}
_WORD = re.compile(r"[^\W\d_]+(?:[’'][^\W\d_]+)*|\d+[^\W\d_]+")
_ELIDED = re.compile(r"^([dl])([’'])(.+)$", re.IGNORECASE)
_ROMAN = re.compile(r"(?=[IVX])(X{0,3})(IX|IV|V?I{0,3})")
_MC = re.compile(r"^(mc)(.{2,})$", re.IGNORECASE)
_OF = re.compile(r"^(o)([’'])(.+)$", re.IGNORECASE)


@change(
    "title",
    "with capital first letters",
    "A capital for each word, small ones for de la, van der, of the: RUE DE LA GARE → "
    "Rue de la Gare, MCDOUGAL → McDougal.",
    keeps=True,
)
def title(text: str, _settings: Settings, context: Context) -> Changed:
    """Each word with a capital; particles inside a name stay small, the first word never."""
    languages = {language.split("-")[0] for language in context.layout.languages} | {"en"}
    small = {word for one in languages for word in _SMALL.get(one, "").split()}

    def written(match: re.Match[str]) -> str:
        word, is_first = match.group(), match.start() == 0
        return _word(word, small, is_first=is_first)

    return Changed(_WORD.sub(written, text))


def _word(word: str, small: set[str], *, is_first: bool) -> str:
    if word[0].isdigit():  # 12A, 2nd
        return word if len(word.lstrip("0123456789")) == 1 else word.lower()
    if word.lower() in small and not is_first:
        return word.lower()
    if len(word) > 1 and word.isupper() and _ROMAN.fullmatch(word):
        return word
    elided = _ELIDED.match(word)
    if elided and elided[1].lower() in small:
        first = elided[1].upper() if is_first else elided[1].lower()
        return first + elided[2] + elided[3][:1].upper() + elided[3][1:].lower()
    for pattern in (_MC, _OF):
        found = pattern.match(word)
        if found:
            *front, rest = found.groups()
            return "".join(front).capitalize() + rest[:1].upper() + rest[1:].lower()
    return word[:1].upper() + word[1:].lower()
