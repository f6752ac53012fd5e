"""The service and the browser come to the same."""

import json
import os
import subprocess

from tests.conftest import PROJECT
from tests.core.formula.generated import document

COUNT, SEED = 1500, 2026


def test_formulas_made_by_chance_come_to_the_same_in_the_browsers_engine(tmp_path):
    cases = tmp_path / "cases.json"
    cases.write_text(json.dumps(document(COUNT, SEED)))
    done = subprocess.run(
        ["npx", "vitest", "run", "--config", "vitest.config.ts", "embed/test/generated-formulas.test.ts"],
        cwd=PROJECT, capture_output=True, text=True, timeout=300,
        env={**os.environ, "VITE_FORMULA_CASES": str(cases)},
    )  # fmt: skip
    assert done.returncode == 0, done.stdout[-4000:] + done.stderr[-2000:]
    assert f"{COUNT} formulas, 0 disagreements" in done.stdout
