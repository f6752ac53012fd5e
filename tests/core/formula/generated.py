"""Formulas by chance, with what they come to: for the engine of the browser to agree with.

python -m tests.core.formula.generated COUNT SEED > cases.json
"""

from __future__ import annotations

import json
import math
import random
import sys

from anchorline.core.formula import (
    AddressValue,
    Budget,
    Date,
    FormulaError,
    Given,
    Names,
    Problem,
    check,
    evaluate,
    to_data,
    type_of,
)
from anchorline.core.formula.functions import FUNCTIONS
from anchorline.core.formula.functions.registry import COMPONENT, SLOT

TODAY = 46_353
NAMES = Names(
    {
        "n": frozenset({"number", "empty"}),
        "price": frozenset({"number", "empty"}),
        "name": frozenset({"text", "empty"}),
        "code": frozenset({"text", "empty"}),
        "day": frozenset({"date", "empty"}),
        "wanted": frozenset({"yes_no", "empty"}),
        "nothing": frozenset({"empty"}),
    },
    ["venue", "home"],
)
SLOTS = {
    "venue": AddressValue(
        {"town": "Brackwater", "street": "Abbey Mews"}, 51.5312, -2.881,
        "16 Abbey Mews, Brackwater, QV1 1AA", ("16 Abbey Mews", "BRACKWATER", "QV1 1AA"), "picked",
        {"use": "residential", "languages": "en", "id": "demo:GB0000012"},
    ),
    "home": AddressValue({"town": "Großlinden"}, 50.04, 8.9, "Lindenplatz 7", ("Lindenplatz 7",), "typed"),
}  # fmt: skip
TEXTS = (
    "",
    "a",
    "Abbey Mews",
    "12",
    " 3.50 ",
    "2026-02-28",
    "ß",
    "İI",
    "TRUE",
    "日本 桐生",
    "🎹 piano",
    "x-y-z",
    "-4%",
)
FORMATS = (
    "0",
    "0.00",
    "#,##0.0#",
    "0%",
    '"EUR" 0.00',
    "YYYY-MM-DD",
    "D.M.YY",
    "@",
    "000.0",
    "#",
    "?",
)
# What numbers can be that nobody expects: none at all, without end, beyond all whole numbers.
ODD_NUMBERS = (
    math.nan, math.inf, -math.inf, 1e308, -1e308, 1e300, 5e-324, -5e-324, 2.0**53 + 2, -(2.0**63), 1e15,
    -0.0, 0.5, -0.5, 0.9999999999999999, 1 - 1e-16, 1e7, -1e7, 9_999_999.5, 400.0, 3e6, -3e6, 10_000.5, 1e-300,
)  # fmt: skip
OPERATORS = ("+", "-", "*", "/", "^", "&", "=", "<>", "<", ">", "<=", ">=")
CALLS = sorted(
    name for name in FUNCTIONS if name.isalpha() and name not in ("NEGATE", "PLUS", "PERCENT")
)


def some_values(rng: random.Random, *, odd: bool = False) -> dict[str, object]:
    """Values of the fields; some are not given.

    Args:
        odd: whether the numbers are those that nobody expects.
    """
    given: dict[str, object] = {
        "n": float(rng.choice(ODD_NUMBERS if odd else (0, 1, 2, -3, 7, 12.5, 1e6))),
        "price": rng.choice(
            ODD_NUMBERS if odd else (0.1, 19.99, 2.675, -0.005, 1e-9, 123456789.12345, 1e15)
        ),
        "name": rng.choice(TEXTS), "code": rng.choice(TEXTS),
        "day": Date(rng.choice((TODAY, 36_585, 0, 60, -300_000, 2_958_465))),
        "wanted": rng.random() < 0.5,
    }  # fmt: skip
    return {key: value for key, value in given.items() if rng.random() < 0.85}


def some_formula(rng: random.Random, depth: int) -> str:
    """A formula nested at most so deep."""
    if depth == 0 or rng.random() < 0.15:
        return some_leaf(rng)
    kind = rng.random()
    if kind < 0.35:
        left, right = some_formula(rng, depth - 1), some_formula(rng, depth - 1)
        return f"({left} {rng.choice(OPERATORS)} {right})"
    if kind < 0.42:
        return f"-{some_formula(rng, 0)}" if rng.random() < 0.5 else f"{some_formula(rng, 0)}%"
    function = FUNCTIONS[rng.choice(CALLS)]
    parts: list[str] = []
    for parameter in function.parameters:
        if parameter.optional and rng.random() < 0.4:
            break
        if parameter.kind == SLOT:
            parts.append(rng.choice(("venue", "home")))
        elif parameter.kind == COMPONENT:
            parts.append(rng.choice(('"town"', '"street"', '"unit"')))
        elif parameter.name == "format":
            parts.append('"' + rng.choice(FORMATS).replace('"', '""') + '"')
        else:
            parts.append(some_formula(rng, depth - 1))
    while function.repeated and len(parts) >= len(function.parameters) and rng.random() < 0.4:
        parts.append(some_formula(rng, depth - 1))
    return f"{function.name}({'; '.join(parts)})"


def some_leaf(rng: random.Random) -> str:
    """A field or a constant."""
    if rng.random() < 0.5:
        return rng.choice(sorted(NAMES.fields))
    if rng.random() < 0.6:
        return rng.choice(("0", "1", "2", "3", "10", "0.5", "2.675", "1e3", "100", "7.25", "15"))
    if rng.random() < 0.2:
        return rng.choice(("1e300", "1e-300", "-1e308", "9007199254740993", "9999.5", "1e7"))
    if rng.random() < 0.1:
        return rng.choice(('REPT("aß"; 4999)', 'REPT("a"; 9999) & "b"', 'REPT("🎹ς"; 700)'))
    return rng.choice(("TRUE", "FALSE", *(f'"{text}"' for text in TEXTS)))


def as_data(value: object) -> object:
    """A value as both languages write it down."""
    if isinstance(value, Date):
        return {"date": value.serial}
    if isinstance(value, float) and not math.isfinite(value):
        return {"number": str(value)}  # JSON has none of these
    return {"problem": value.code} if isinstance(value, Problem) else value


def cases(count: int, seed: int) -> list[dict[str, object]]:
    """So many formulas that can be worked out."""
    rng = random.Random(seed)
    found: list[dict[str, object]] = []
    while len(found) < count:
        text = some_formula(rng, rng.randint(1, 4))
        try:
            formula = check(text, NAMES)
        except FormulaError:
            continue
        # Every other one of the odd numbers; every tenth with few steps, of which some run out.
        values = some_values(rng, odd=len(found) % 2 == 1)
        budget = Budget(rng.randint(0, 40)) if len(found) % 10 == 0 else Budget()
        steps = budget.left
        value = evaluate(formula.tree, Given(values, SLOTS, TODAY), budget)  # type: ignore[arg-type]
        assert type_of(value) in formula.gives | {"problem"}, text
        assert not isinstance(value, float) or math.isfinite(value), text
        assert budget.is_used_up == (value == Problem("too-many-steps")), text
        found.append(
            {
                "formula": text, "tree": to_data(formula.tree), "value": as_data(value),
                "steps": steps, "left": budget.left,
                "values": {key: as_data(given) for key, given in values.items()},
            }
        )  # fmt: skip
    return found


def document(count: int, seed: int) -> dict[str, object]:
    """All that the other engine needs."""
    slots = {
        key: {
            "components": dict(slot.components), "latitude": slot.latitude,
            "longitude": slot.longitude, "line": slot.line, "lines": list(slot.lines),
            "given": slot.given, "facts": dict(slot.facts),
        }
        for key, slot in SLOTS.items()
    }  # fmt: skip
    return {"today": TODAY, "slots": slots, "cases": cases(count, seed)}


if __name__ == "__main__":
    json.dump(document(int(sys.argv[1]), int(sys.argv[2])), sys.stdout, ensure_ascii=False)
