"""Formulas in OpenFormula: parsed and checked once, worked out here and in the browser."""

from .address_values import AddressValue
from .checking import CircleError, Formula, Names, check, in_order
from .evaluation import Given, evaluate
from .parsing import FormulaError, parse
from .tree import Node, from_data, to_data
from .values import PROBLEMS, Date, Problem, Value, type_of

__all__ = [
    "PROBLEMS",
    "AddressValue",
    "CircleError",
    "Date",
    "Formula",
    "FormulaError",
    "Given",
    "Names",
    "Node",
    "Problem",
    "Value",
    "check",
    "evaluate",
    "from_data",
    "in_order",
    "parse",
    "to_data",
    "type_of",
]
