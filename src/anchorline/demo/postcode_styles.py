"""Made-up postcodes that fit each country's masks, from areas that are not allotted."""

from __future__ import annotations

import string
from collections.abc import Callable
from typing import Any

# Letters that are told apart easily; no I, O, or those that are not used in inward codes.
_LETTERS = "ABDEFGHJLNPQRSTUWXYZ"


def _pair(index: int) -> str:
    return _LETTERS[index // len(_LETTERS) % len(_LETTERS)] + _LETTERS[index % len(_LETTERS)]


def postcode_maker(style: dict[str, Any]) -> Callable[[int, int, int, int], str]:
    """A function from (town, street of the town, segment of the street, house) to a postcode.

    A segment is some fifteen neighbours on one street.
    """

    def gb(town: int, street: int, segment: int, _house: int) -> str:
        local = street * 4 + segment
        return f"QV{town % 99 + 1} {local // 400 % 9 + 1}{_pair(local * 7 + town)}"

    def ie(town: int, street: int, _segment: int, house: int) -> str:
        local = (street * 97 + house) * 131 + town
        characters = string.digits[1:] + "ACDEFHKNPRTVWXY"
        code = ""
        for _ in range(4):
            local, place = divmod(local, len(characters))
            code += characters[place]
        return f"Q{town % 90 + 10} {code}"

    def digits(town: int, _street: int, _segment: int, _house: int) -> str:
        width = style["width"] - len(style["prefix"])
        return f"{style['prefix']}{(town * 13 + 11) % 10**width:0{width}d}"

    def nl(town: int, street: int, segment: int, _house: int) -> str:
        return f"0{(town * 7 + 101) % 900 + 100} {_pair(street * 5 + segment)}"

    def ca(town: int, street: int, segment: int, _house: int) -> str:
        letter = "ABCEGHJKLMNPRSTVXY"[street % 18]
        return f"W{town % 9 + 1}{'ABCEGHJKLM'[town // 9 % 10]} {segment}{letter}{street % 9 + 1}"

    def br(town: int, street: int, _segment: int, _house: int) -> str:
        return f"00{town % 900 + 100}-{street % 900 + 10:03d}"

    def jp(town: int, street: int, _segment: int, _house: int) -> str:
        return f"000-{(town * 31 + street) % 9000 + 1000}"

    return {"gb": gb, "ie": ie, "digits": digits, "nl": nl, "ca": ca, "br": br, "jp": jp}[
        style["style"]
    ]
