"""A number, with limits and decimals."""

import math
from decimal import Decimal

from ...counting import counted
from ...said import said
from ..model import Field
from .registry import NUMBER, Fault, FieldType, Read, register

_MOST_DECIMALS = 10


def _read(field: Field, value: object) -> Read:
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        return None, "Give a number here."
    try:
        number = float(value)
    except (ValueError, OverflowError):
        return None, said(
            "not_a_number", "{value!r} is not a number; write it like 12 or 12.5.", value=str(value)
        )
    if not math.isfinite(number):
        return None, "Give an ordinary number here."
    fault = _outside(field, number)
    if fault:
        return None, fault
    return (int(number) if number.is_integer() and abs(number) < 2**53 else number), ""


def _outside(field: Field, number: float) -> str:
    least, most = _limit(field.least), _limit(field.most)
    if least is not None and number < least:
        return said(
            "too_small", "This is less than {least:,g}, the least that is possible.", least=least
        )
    if most is not None and number > most:
        return said(
            "too_large", "This is more than {most:,g}, the most that is possible.", most=most
        )
    if field.decimals is not None and -Decimal(repr(number)).normalize().as_tuple().exponent > (  # type: ignore[operator]
        field.decimals
    ):
        if field.decimals == 0:
            return said("not_whole", "Give a whole number here.")
        sentence = f"Give at most {counted(field.decimals, 'digit')} after the point."
        return said("too_many_decimals", sentence, most=field.decimals)
    return ""


def _limit(given: float | str | None) -> float | None:
    return given if isinstance(given, int | float) else None


def _faults(field: Field) -> list[Fault]:
    found: list[Fault] = [
        (name, "A limit of a number is a number.")
        for name, value in (("least", field.least), ("most", field.most))
        if isinstance(value, str)
    ]
    least, most = _limit(field.least), _limit(field.most)
    if least is not None and most is not None and least > most:
        found.append(("most", f"No number is at least {least:g} and at most {most:g}."))
    if field.decimals is not None and not 0 <= field.decimals <= _MOST_DECIMALS:
        found.append(("decimals", f"A number has 0 to {_MOST_DECIMALS} decimals."))
    return found


register(
    FieldType(
        "number", "Number", "A number, perhaps with limits and a unit.", _read, NUMBER,
        faults=_faults, settings=("least", "most", "decimals", "unit"),
    )
)  # fmt: skip
