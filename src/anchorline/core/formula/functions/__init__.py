"""Functions and operators of formulas, a family a module."""

from . import addresses, dates, logic, numbers, operators, texts
from .operators import CONVERSIONS, TAKEN_FOR
from .registry import FUNCTIONS, Function, Parameter

__all__ = [
    "CONVERSIONS",
    "FUNCTIONS",
    "TAKEN_FOR",
    "Function",
    "Parameter",
    "addresses",
    "dates",
    "logic",
    "numbers",
    "operators",
    "texts",
]
