"""How long a form's formulas take: a hundred of them, in the service and in the browser's engine.

    python -m bench.formulas --count 3000 --seed 1

Formulas are made by chance (`tests/core/formula/generated.py`), nested up to four deep, with the
values that they speak of. The browser's engine runs under node. What is printed is the median and
the 95th percentile of working a hundred of them out, how long checking one takes, and how long all
steps of one form last where each is as dear as can be.
"""

from __future__ import annotations

import argparse
import json
import os
import re
import statistics
import subprocess
import tempfile
from pathlib import Path
from time import perf_counter

from tests.core.formula.generated import NAMES, SLOTS, TODAY, document

from anchorline.core.formula import Budget, Date, Given, Value, check, evaluate, from_data
from anchorline.core.formula.parsing import parse

PROJECT = Path(__file__).parents[1]
AT_ONCE = 100
# What is dear by the step: long texts looked through, small calls by the thousand.
COSTLY = (
    'SEARCH(REPT("a"; 4999) & "b"; REPT("a"; 9999))',
    'SEARCH(REPT("ß"; 4999) & "b"; REPT("ß"; 9999))',
    'CHOSEN(REPT("a,"; 5000); "b")',
    "ROUND(1e-300; 2) + MOD(1e300; 7)",
    "IF(TRUE; IF(TRUE; IF(TRUE; 1; 0); 0); 0)",
)


def main() -> None:
    """Makes formulas, times both engines, prints."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawTextHelpFormatter
    )
    parser.add_argument("--count", type=int, default=3000)
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    made = document(given.count, given.seed)
    cases = made["cases"]
    assert isinstance(cases, list)
    trees = [from_data(case["tree"]) for case in cases]
    values = [{k: _value(v) for k, v in case["values"].items()} for case in cases]
    times = []
    for first in range(0, len(trees) - AT_ONCE + 1, AT_ONCE):
        began = perf_counter()
        for place in range(first, first + AT_ONCE):
            evaluate(trees[place], Given(values[place], SLOTS, TODAY))
        times.append(1000 * (perf_counter() - began))
    print(f"{given.count:,} formulas, seed {given.seed}; a hundred at once, in ms")
    print(f"service   p50 {statistics.median(times):6.2f}   p95 {_p95(times):6.2f}")
    print(f"browser   {_browser(made)}")
    parse.cache_clear()
    began = perf_counter()
    for case in cases:
        check(case["formula"], NAMES)
    print(f"checking one formula  {1000 * (perf_counter() - began) / len(cases):.2f} ms")
    for text in COSTLY:
        tree, budget, began = check(text, NAMES).tree, Budget(), perf_counter()
        while not budget.is_used_up:
            evaluate(tree, Given(), budget)
        print(f"all steps of a form  {1000 * (perf_counter() - began):5.0f} ms  {text}")


def _value(given: object) -> Value:
    if isinstance(given, dict):
        return Date(given["date"]) if "date" in given else float(given["number"])
    assert given is None or isinstance(given, str | bool | float)
    return given


def _p95(times: list[float]) -> float:
    return sorted(times)[int(0.95 * (len(times) - 1))]


def _browser(made: dict[str, object]) -> str:
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "cases.json"
        path.write_text(json.dumps(made))
        done = subprocess.run(
            ["npx", "vitest", "run", "--config", "vitest.config.ts",
             "embed/test/generated-formulas.test.ts"],
            cwd=PROJECT, env={**os.environ, "VITE_FORMULA_CASES": str(path)},
            capture_output=True, text=True, check=False,
        )  # fmt: skip
    found = re.search(r"a hundred at once: (.*)", done.stdout)
    return found[1] if found else f"did not run: {done.stdout[-500:]}{done.stderr[-500:]}"


if __name__ == "__main__":
    main()
