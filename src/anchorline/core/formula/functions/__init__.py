"""Functions and operators of formulas, a family a module."""

from . import addresses, dates, logic, numbers, operators, texts
from .operators import CONVERSIONS, TAKEN_FOR
from .registry import FUNCTIONS, Function, Parameter


def functions_by_name() -> list[Function]:
    """The functions that people write by their names; operators are not among them."""
    named = [function for function in FUNCTIONS.values() if function.says]
    return sorted(named, key=lambda function: function.name)


__all__ = [
    "CONVERSIONS",
    "FUNCTIONS",
    "TAKEN_FOR",
    "Function",
    "Parameter",
    "addresses",
    "dates",
    "functions_by_name",
    "logic",
    "numbers",
    "operators",
    "texts",
]
