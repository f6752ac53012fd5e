"""What a function is, and all of them by name.

Each family has a module with one entry a function: what it takes, what it gives, a sentence and an
example for people, and the rule itself. Rules take values that are of their kinds already: what
people wrote is converted before (`check`).
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

from ..values import Value

NUMBER, TEXT, YES_NO, DATE, EMPTY, PROBLEM = (
    "number", "text", "yes_no", "date", "empty", "problem",
)  # fmt: skip
# Kinds of parameters beside those of values: any value as it is, an address, a component's name.
ANY, SLOT, COMPONENT = "any", "slot", "component"
Rule = Callable[..., Value]


@dataclass(frozen=True)
class Parameter:
    """One argument.

    Attributes:
        name: what people read, in `ROUND(number; places)`.
        kind: NUMBER, TEXT, YES_NO, DATE, ANY, SLOT or COMPONENT.
        default: what stands for it where it is left out; only read where it is optional.
    """

    name: str
    kind: str
    optional: bool = False
    default: float | str | bool | None = None


@dataclass(frozen=True)
class Function:
    """A function or an operator.

    Attributes:
        gives: the kinds of value it can come to; of the given kinds of its arguments.
        repeated: how many of its last parameters may come again and again.
        lazy: its rule takes functions that work an argument out, so that not all are.
        holds_problems: its rule is called also where an argument is a problem.
        says: a sentence for people.
        example: a formula, and what it comes to as the documentation shows it.
    """

    name: str
    parameters: tuple[Parameter, ...]
    gives: Callable[[Sequence[frozenset[str]]], frozenset[str]]
    rule: Rule
    says: str = ""
    example: tuple[str, str] = ("", "")
    repeated: int = 0
    lazy: bool = False
    holds_problems: bool = False
    refuses: Callable[[Sequence[frozenset[str]]], str] = field(default=lambda _kinds: "")

    @property
    def least(self) -> int:
        """How many arguments it needs."""
        return sum(1 for p in self.parameters if not p.optional)

    @property
    def of_addresses(self) -> bool:
        """Whether it takes the address of a slot."""
        return any(parameter.kind == SLOT for parameter in self.parameters)

    @property
    def usage(self) -> str:
        """How it is written: `ROUND(number; places)`; what may be left out in brackets."""
        names = [f"[{p.name}]" if p.optional else p.name for p in self.parameters]
        return f"{self.name}({'; '.join([*names, *(['…'] if self.repeated else [])])})"


FUNCTIONS: dict[str, Function] = {}


def always(*kinds: str) -> Callable[[Sequence[frozenset[str]]], frozenset[str]]:
    """What a function gives that always gives these kinds."""
    given = frozenset(kinds)
    return lambda _kinds: given


def needed(name: str, kind: str) -> Parameter:
    """A parameter that must be given."""
    return Parameter(name, kind)


def optional(name: str, kind: str, default: float | str | bool | None = None) -> Parameter:
    """A parameter that may be left out."""
    return Parameter(name, kind, optional=True, default=default)


def register(function: Function) -> None:
    """Adds a function; each name once."""
    assert function.name not in FUNCTIONS, function.name
    FUNCTIONS[function.name] = function


def function(
    name: str,
    parameters: Sequence[Parameter],
    gives: str | Callable[[Sequence[frozenset[str]]], frozenset[str]],
    says: str,
    example: tuple[str, str],
    *,
    repeated: int = 0,
    lazy: bool = False,
    holds_problems: bool = False,
) -> Callable[[Rule], Rule]:
    """Registers the rule below it as a function."""

    def add(rule: Rule) -> Rule:
        kinds = always(gives) if isinstance(gives, str) else gives
        register(
            Function(
                name, tuple(parameters), kinds, rule, says, example,
                repeated=repeated, lazy=lazy, holds_problems=holds_problems,
            )
        )  # fmt: skip
        return rule

    return add
