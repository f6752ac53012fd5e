"""What an opened edition's addresses and nodes are called in other languages."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Sequence
from typing import cast

import numpy as np
import numpy.typing as npt

from ..address import Components
from .arrays import INNER_COMPONENTS, NAMED_COMPONENTS, NODE_COMPONENTS, Arrays
from .compiled.pools import TextPool
from .compiled.textrows import TextRows

# Between an id and the language that was picked with it: `demo:GB0000012@cy`.
LANGUAGE_MARK = "@"


class AlternateNames:
    """What differs in other languages, by node and by address.

    Args:
        languages: BCP 47, as the arrays number them.
    """

    def __init__(self, languages: Sequence[str], arrays: Arrays, texts: TextPool) -> None:
        self.languages = tuple(languages)
        self._nodes = arrays["alternate_nodes"].data
        self._node_languages = arrays["alternate_node_languages"].data
        node_texts = cast(npt.NDArray[np.uint32], arrays["alternate_node_texts"])
        self._node_rows = TextRows(NODE_COMPONENTS, node_texts, texts)
        self._addresses = arrays["alternate_addresses"].data
        self._address_languages = arrays["alternate_address_languages"].data
        address_texts = cast(npt.NDArray[np.uint32], arrays["alternate_address_texts"])
        names = (*INNER_COMPONENTS, *NAMED_COMPONENTS)
        self._address_rows = TextRows(names, address_texts, texts)

    def __bool__(self) -> bool:
        return bool(self.languages)

    def of_node(self, node: int) -> dict[str, Components]:
        """By language the components of a node that are spelt otherwise in it."""
        return self._found(self._nodes, self._node_languages, self._node_rows, node)

    def of_address(self, index: int) -> dict[str, Components]:
        """The same of what an address has beside its street's components."""
        return self._found(self._addresses, self._address_languages, self._address_rows, index)

    def _found(
        self, among: memoryview, languages: memoryview, rows: TextRows, wanted: int
    ) -> dict[str, Components]:
        found: dict[str, Components] = {}
        place = bisect_left(among, wanted)
        while place < len(among) and among[place] == wanted:
            found[self.languages[languages[place]]] = rows.of(place)
            place += 1
        return found


def split_language(public_id: str) -> tuple[str, str]:
    """An id without the language that stands behind it, and the language; empty for none."""
    plain, mark, language = public_id.rpartition(LANGUAGE_MARK)
    return (plain, language) if mark else (public_id, "")


def with_language(public_id: str, language: str) -> str:
    """An id that says in which language it was picked; none for an edition's own."""
    return f"{public_id}{LANGUAGE_MARK}{language}" if language else public_id


def best_language(wanted: str, known: Sequence[str]) -> str:
    """The known language that a wanted one means: itself, or what it begins with.

    By the lookup of RFC 4647, §3.4: `fr-BE` means `fr` where there is no `fr-BE`; and `fr`, where
    there is none, any `fr-…`. Empty where there is none of these.
    """
    by_key = {language.lower(): language for language in known}
    key = wanted.lower()
    while key:
        if key in by_key:
            return by_key[key]
        key = key.rpartition("-")[0]
    longer = (language for language in known if language.lower().startswith(f"{wanted.lower()}-"))
    return next(longer, "") if wanted else ""
