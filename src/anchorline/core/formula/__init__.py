"""Formulas in OpenFormula: parsed and checked once, worked out here and in the browser."""

from .address_values import AddressValue
from .budget import Budget
from .checking import CircleError, Formula, Names, check, in_order
from .evaluation import Given, evaluate, today
from .functions import functions_by_name
from .parsing import FormulaError, parse
from .tree import Node, from_data, to_data
from .values import PROBLEMS, Date, Problem, Value, type_of

__all__ = [
    "PROBLEMS",
    "AddressValue",
    "Budget",
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
    "functions_by_name",
    "in_order",
    "parse",
    "to_data",
    "today",
    "type_of",
]
