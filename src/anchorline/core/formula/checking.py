"""Checking a parsed formula once: names, numbers and kinds of arguments, circles."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from ..address import COMPONENTS
from ..errors import nearest_names
from .functions import CONVERSIONS, FUNCTIONS, TAKEN_FOR, Function, Parameter
from .functions.registry import ANY, COMPONENT, SLOT
from .parsing import FormulaError, Parsed, parse
from .tree import Call, Constant, FieldValue, Node, SlotAddress, fields_of, slots_of
from .values import Problem, type_of

_KINDS = {
    "number": "a number", "text": "a text", "yes_no": "yes or no", "date": "a date",
    "empty": "nothing",
}  # fmt: skip
_OPERATOR_NAMES = {"NEGATE": "-", "PLUS": "+", "PERCENT": "%"}


@dataclass(frozen=True)
class Names:
    """What a formula may speak of.

    Attributes:
        fields: the kinds of value that each field can have.
        slots: keys of the addresses.
    """

    fields: Mapping[str, frozenset[str]] = field(default_factory=dict)
    slots: Collection[str] = ()

    @cached_property
    def folded_fields(self) -> Mapping[str, str]:
        """Keys of fields as formulas may write them; which they are never changes."""
        return {key.upper(): key for key in self.fields}

    @cached_property
    def folded_slots(self) -> Mapping[str, str]:
        """The same of slots."""
        return {key.upper(): key for key in self.slots}


@dataclass(frozen=True)
class Formula:
    """A formula that can be worked out.

    Attributes:
        text: as it was written.
        tree: checked.
        gives: the kinds of value that it can come to, beside a problem.
    """

    text: str
    tree: Node
    gives: frozenset[str]

    @property
    def fields(self) -> set[str]:
        """The fields whose values it needs."""
        return fields_of(self.tree)

    @property
    def slots(self) -> set[str]:
        """The slots whose addresses it needs."""
        return slots_of(self.tree)


def check(formula: str | Parsed, names: Names) -> Formula:
    """A formula whose names are known and whose arguments can be what they have to be.

    Raises:
        FormulaError: it can never be worked out, with the place.
    """
    parsed = parse(formula) if isinstance(formula, str) else formula
    tree, gives = _Checker(names).value(parsed.tree)
    return Formula(parsed.text, tree, gives)


def in_order(needs: Mapping[str, Collection[str]]) -> list[str]:
    """Formula fields in an order in which each comes after those that it needs.

    Args:
        needs: for each formula field the keys that its formula speaks of.

    Raises:
        CircleError: some need each other.
    """
    done: dict[str, None] = {}
    for start in needs:
        # Not by recursion: a thousand fields may hang on each other in one row.
        under_way = {start: iter(needs[start])} if start not in done else {}
        while under_way:
            key = next(reversed(under_way))
            other = next((o for o in under_way[key] if o in needs and o not in done), None)
            if other is None:
                del under_way[key]
                done[key] = None
            elif other in under_way:
                row = list(under_way)
                raise CircleError([*row[row.index(other) :], other])
            else:
                under_way[other] = iter(needs[other])
    return list(done)


class CircleError(Exception):
    """Formulas that need each other; `circle` begins and ends with the same key."""

    def __init__(self, circle: Sequence[str]) -> None:
        self.circle = list(circle)
        super().__init__("These need each other: " + " → ".join(circle))


class _Checker:
    def __init__(self, names: Names) -> None:
        self._names = names
        self._fields, self._slots = names.folded_fields, names.folded_slots

    def value(self, node: Node) -> tuple[Node, frozenset[str]]:
        """A node that stands for a value, checked, and the kinds that it can have."""
        if isinstance(node, Constant):
            return node, frozenset({type_of(node.value)})
        if isinstance(node, FieldValue):
            key = self._fields.get(node.key.upper())
            if key is None:
                raise FormulaError(self._no_value(node.key), node.at, len(node.key))
            return FieldValue(key, node.at), self._names.fields[key]
        assert isinstance(node, Call)
        return self._call(node)

    def _no_value(self, name: str) -> str:
        if name.upper() in self._slots:
            return f"“{name}” is an address: write ADDRESS({name}), or another function of it."
        if name.upper() in FUNCTIONS:
            return f"{name.upper()} is a function: write {FUNCTIONS[name.upper()].usage}."
        near = nearest_names(name, [*self._names.fields, *self._names.slots])
        return f"There is no field “{name}”." + _meant(near)

    def _call(self, node: Call) -> tuple[Node, frozenset[str]]:
        function = FUNCTIONS.get(node.name)
        if function is None:
            known = [name.lower() for name in FUNCTIONS if name.isalpha()]
            near = [name.upper() for name in nearest_names(node.name.lower(), known)]
            detail = f"There is no function {node.name}." + _meant(near)
            raise FormulaError(detail, node.at, len(node.name))
        self._hold_count(function, node)
        arguments = list(node.of)
        parameters = _parameters(function, len(arguments))
        parts: list[Node] = []
        kinds: list[frozenset[str]] = []
        for parameter, argument in zip(parameters, arguments, strict=False):
            part, found = self._argument(function, parameter, argument, node)
            parts.append(part)
            kinds.append(found)
        for parameter in function.parameters[len(arguments) :]:
            if not (function.repeated and parameter in function.parameters[-function.repeated :]):
                parts.append(Constant(parameter.default))
                kinds.append(frozenset({type_of(parameter.default)}))
        refused = function.refuses(kinds)
        if refused:
            raise FormulaError(refused, node.at, len(_shown(node.name)))
        return Call(node.name, tuple(parts), node.at), function.gives(kinds)

    def _hold_count(self, function: Function, node: Call) -> None:
        given, most = len(node.of), len(function.parameters)
        if given < function.least or (given > most and not function.repeated):
            wanted = (
                str(function.least) if function.least == most else f"{function.least} to {most}"
            )
            if function.repeated:
                wanted = f"at least {function.least}"
            detail = f"{function.usage} takes {wanted}; {given or 'none'} came."
            raise FormulaError(detail, node.at, len(node.name))

    def _argument(
        self, function: Function, parameter: Parameter, node: Node, call: Call
    ) -> tuple[Node, frozenset[str]]:
        if parameter.kind == SLOT:
            return self._slot(function, node, call), frozenset()
        if parameter.kind == COMPONENT:
            return self._component(node, call), frozenset({"text"})
        if node == Constant(None) and parameter.optional:
            node = Constant(parameter.default, call.at)
        part, kinds = self.value(node)
        if parameter.kind == ANY or kinds == {parameter.kind} or function.lazy:
            self._hold_kind(function, parameter, part, kinds)
            return part, kinds
        if part == Constant(None) and parameter.optional and parameter.default is None:
            return part, kinds
        self._hold_kind(function, parameter, part, kinds)
        return Call(parameter.kind, (part,), node.at), kinds

    def _hold_kind(
        self, function: Function, parameter: Parameter, part: Node, kinds: frozenset[str]
    ) -> None:
        if parameter.kind == ANY:
            return
        written = part.value if isinstance(part, Constant) else None
        if isinstance(written, str):
            wrong = isinstance(CONVERSIONS[parameter.kind](written), Problem)
            said, length = f"“{written}”", len(written) + 2
        else:
            wrong = not kinds & TAKEN_FOR[parameter.kind]
            said, length = " or ".join(_KINDS[kind] for kind in sorted(kinds)), 1
        if wrong:
            where = f" in {function.usage}" if function.name.isalpha() else ""
            wanted = _KINDS[parameter.kind]
            detail = f"{wanted[0].upper()}{wanted[1:]} must stand here{where}, not {said}."
            raise FormulaError(detail, part.at, length)

    def _slot(self, function: Function, node: Node, call: Call) -> Node:
        if isinstance(node, FieldValue):
            key = self._slots.get(node.key.upper())
            if key is not None:
                return SlotAddress(key, node.at)
            near = nearest_names(node.key, list(self._names.slots))
            detail = f"“{node.key}” is no address of this form." + _meant(near)
            raise FormulaError(detail, node.at, len(node.key))
        detail = f"{function.usage} needs the name of an address of this form."
        raise FormulaError(detail, call.at, len(call.name))

    def _component(self, node: Node, call: Call) -> Node:
        name = node.value if isinstance(node, Constant) else None
        if name in COMPONENTS:
            return Constant(name, node.at)
        at = node.at or call.at
        if not isinstance(name, str):
            raise FormulaError('Name the component in quotation marks: "town".', at)
        detail = f"There is no component “{name}”." + _meant(nearest_names(name, COMPONENTS))
        raise FormulaError(detail, at, len(name) + 2)


def _parameters(function: Function, given: int) -> list[Parameter]:
    parameters = list(function.parameters)
    while function.repeated and len(parameters) < given:
        parameters += parameters[-function.repeated :]
    return parameters


def _meant(near: Sequence[str]) -> str:
    return f" Did you mean {' or '.join(near)}?" if near else ""


def _shown(name: str) -> str:
    return _OPERATOR_NAMES.get(name, name)
