"""API: trying a formula, and the functions that there are."""

from __future__ import annotations

from anchorline.core.address import component_problems, escape_pointer
from anchorline.core.errors import Problem
from anchorline.core.forms.address_values import address_value
from anchorline.core.formula import (
    PROBLEMS,
    AddressValue,
    FormulaError,
    Given,
    Names,
    check,
    evaluate,
    functions_by_name,
    today,
    type_of,
)
from anchorline.core.formula import Problem as FormulaProblem
from anchorline.core.formula.json_values import from_plain, to_plain
from anchorline.wire.base import Schema
from anchorline.wire.formulas import (
    FormulaFunction,
    FormulaFunctions,
    FunctionExample,
    TriedSlot,
    TryFormulaAnswer,
    TryFormulaRequest,
)

from ..access import Access
from ..endpoints import ApiRequest, Router
from ..problems import invalid

router = Router("formulas", "forms")


@router.endpoint(
    "POST",
    "/formulas/try",
    access=Access.SERVER,
    body=TryFormulaRequest,
    answer=TryFormulaAnswer,
)
def try_formula(request: ApiRequest) -> Schema:
    """A formula worked out on some values."""
    body = request.body(TryFormulaRequest)
    values = {key: from_plain(value) for key, value in body.values.items()}
    names = Names({key: frozenset({type_of(v)}) for key, v in values.items()}, list(body.slots))
    try:
        formula = check(body.formula, names)
    except FormulaError as error:
        raise invalid([formula_problem("/formula", error)]) from None
    slots = {key: _tried(request, key, slot) for key, slot in body.slots.items()}
    value = evaluate(formula.tree, Given(values, slots, today(request.services.database.now())))
    return TryFormulaAnswer(
        value=to_plain(value),
        type=type_of(value),
        problems=[PROBLEMS[value.code]] if isinstance(value, FormulaProblem) else [],
    )


@router.endpoint("GET", "/formulas", access=Access.SERVER, answer=FormulaFunctions)
def list_formula_functions(_request: ApiRequest) -> Schema:
    """The functions of formulas, each with a sentence and an example."""
    return FormulaFunctions(
        functions=[
            FormulaFunction(
                name=function.name,
                usage=function.usage,
                says=function.says,
                of_addresses=function.of_addresses,
                example=FunctionExample(formula=function.example[0], value=function.example[1])
                if function.example[0]
                else None,
            )
            for function in functions_by_name()
        ]
    )


def formula_problem(pointer: str, error: FormulaError) -> Problem:
    """What is wrong with a formula, with the place in its text."""
    return Problem(pointer, error.detail, error.at, error.length)


def _tried(request: ApiRequest, key: str, slot: TriedSlot) -> AddressValue:
    layout = request.services.layouts.get(slot.components.get("country_code", ""))
    pointer = f"/slots/{escape_pointer(key)}/components"
    problems = component_problems(slot.components, pointer, layout.extras if layout else ())
    if problems:
        raise invalid(problems)
    facts = slot.facts
    placed = facts.latitude is not None and facts.longitude is not None
    return address_value(
        layout,
        slot.components,
        latitude=facts.latitude,
        longitude=facts.longitude,
        picked=placed if slot.picked is None else slot.picked,
        facts={
            "use": facts.use,
            "languages": ", ".join(facts.languages),
            "id": slot.address_id,
        },
    )
