"""How much of the core its tests hold: small changes to it, each of which a test should notice.

    python -m pip install cosmic-ray
    python -m bench.mutants --count 300 --seed 1          about an hour on two processors

Takes a seeded sample of all mutants that cosmic-ray makes of `core/` (what is compiled aside), and
runs for each the tests of its package. Mutants that change annotations alone are left out. Prints
those that no test noticed, with their lines, and the share of those that one did.
"""

from __future__ import annotations

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from itertools import count
from pathlib import Path
from queue import Queue

import cosmic_ray.plugins
from cosmic_ray.ast import get_ast
from cosmic_ray.mutating import MutationVisitor, mutate_code

PROJECT = Path(__file__).parents[1]
CORE = Path("src/anchorline/core")
TIMEOUT_S = 240
# Python takes a compiled module for that of a source with the same size and second.
_SECONDS = count(1_000_000_000)
_LAYOUTS = ["test_layouts", "test_shipped_layouts", "test_designators", "test_written_or_left_out",
            "test_recalled_facts", "test_own_layouts"]  # fmt: skip
_FINDING = ["test_search", "test_inside_a_group", "test_search_laws", "test_search_oracle", "test_interpretations",
            "test_build", "test_bitmaps", "test_compiled", "test_nearest", "test_postcodes",
            "test_restrictions", "test_languages", "test_abbreviations",
            "test_typed_as_people_do"]  # fmt: skip
# The tests of each package, quickest to notice first.
TESTS: dict[str, list[str]] = {
    "checking": ["checking"],
    "forms": ["test_forms", "test_own_layouts"],
    "gazetteer": [*_FINDING, "reference"],
    "layouts": [*_LAYOUTS, "checking", "test_forms"],
    "mapping": ["mapping"],
    "reference": ["reference"],
    "": [
        "test_text",
        "test_counting",
        "test_address",
        "test_forms",
        "mapping",
        *_LAYOUTS,
        "reference",
        *_FINDING,
    ],
}


# Those that put other variables in place of some need to be told which.
_OPERATORS = sorted(n for n in cosmic_ray.plugins.operator_names() if "Variable" not in n)


@dataclass(frozen=True)
class Mutant:
    """One change of one module: an operator of cosmic-ray at one of the places that it finds."""

    module: Path
    operator: str
    occurrence: int

    @property
    def tests(self) -> list[str]:
        """The tests of its package, as paths."""
        inside = self.module.relative_to(CORE).parts
        names = TESTS[inside[0] if len(inside) > 1 else ""]
        return [
            f"tests/core/{name}"
            if (PROJECT / "tests/core" / name).is_dir()
            else f"tests/core/{name}.py"
            for name in names
        ]

    def code(self) -> str | None:
        """The module with the change; None where it changes nothing but annotations."""
        before = (PROJECT / self.module).read_text()
        operator = cosmic_ray.plugins.get_operator(self.operator)()
        after: str | None = mutate_code(before, operator, self.occurrence)
        if after is None:
            return None
        try:
            same = _bare(after) == _bare(before)
        except SyntaxError:
            return None
        return None if same else after


class _WithoutAnnotations(ast.NodeTransformer):
    def visit_arg(self, node: ast.arg) -> ast.AST:
        node.annotation = None
        return node

    def visit_FunctionDef(self, node: ast.FunctionDef) -> ast.AST:
        node.returns = None
        self.generic_visit(node)
        return node

    def visit_AnnAssign(self, node: ast.AnnAssign) -> ast.AST:
        node.annotation = ast.Constant("")
        self.generic_visit(node)
        return node


def _bare(code: str) -> str:
    return ast.dump(_WithoutAnnotations().visit(ast.parse(code)))


def all_mutants() -> Iterator[Mutant]:
    """Every mutant of the core."""
    for path in sorted((PROJECT / CORE).rglob("*.py")):
        module = path.relative_to(PROJECT)
        tree = get_ast(path.read_text())
        for name in _OPERATORS:
            counter = MutationVisitor(-1, cosmic_ray.plugins.get_operator(name)())
            counter.walk(tree)
            for occurrence in range(counter._count):
                yield Mutant(module, name, occurrence)


def main() -> None:
    """Samples, runs and prints."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawTextHelpFormatter
    )
    parser.add_argument("--count", type=int, default=300)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--processes", type=int, default=2)
    given = parser.parse_args()
    known = list(all_mutants())
    random.Random(given.seed).shuffle(known)
    sample: list[tuple[Mutant, str]] = []
    for mutant in known:
        code = mutant.code() if len(sample) < given.count else None
        if code is not None:
            sample.append((mutant, code))
    print(f"{len(known):,} mutants of {CORE}; {len(sample)} of them, seed {given.seed}", flush=True)
    with tempfile.TemporaryDirectory() as folder:
        trees: Queue[Path] = Queue()
        for number in range(given.processes):
            trees.put(_copy(Path(folder) / str(number)))
        for package in TESTS:
            unchanged = Mutant(CORE / package / "__init__.py", "", 0)
            if _is_noticed(trees, unchanged, (PROJECT / unchanged.module).read_text()):
                raise SystemExit(f"The tests of {package or 'core'} fail without any change.")
        print()
        with ThreadPoolExecutor(given.processes) as pool:
            noticed = list(pool.map(lambda one: _is_noticed(trees, *one), sample))
    print(f"\n{sum(noticed)} of {len(sample)} were noticed: {sum(noticed) / len(sample):.1%}")


def _copy(tree: Path) -> Path:
    """Sources and tests, so that a change disturbs nobody."""
    for name in ("src", "tests"):
        shutil.copytree(
            PROJECT / name, tree / name,
            ignore=shutil.ignore_patterns("__pycache__", "web", "browser", "faults"),
        )  # fmt: skip
    for name in ("pyproject.toml", "docs"):
        (tree / name).symlink_to(PROJECT / name)
    return tree


def _is_noticed(trees: Queue[Path], mutant: Mutant, code: str) -> bool:
    tree = trees.get()
    file = tree / mutant.module
    before = file.read_text()
    try:
        _write(file, code)
        done = subprocess.run(
            [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider",
             "--hypothesis-profile", "mutants", *mutant.tests],
            cwd=tree, env={**os.environ, "PYTHONPATH": str(tree / "src"), "PYTHONDONTWRITEBYTECODE": ""},
            capture_output=True, timeout=TIMEOUT_S, check=False,
        )  # fmt: skip
        noticed = done.returncode != 0
    except subprocess.TimeoutExpired:
        noticed = True
    finally:
        _write(file, before)
        trees.put(tree)
    if mutant.operator and not noticed:
        print(f"\n{mutant.module} {mutant.operator}\n{_difference(mutant, code)}", flush=True)
    else:
        print(".", end="", flush=True)
    return noticed


def _write(file: Path, code: str) -> None:
    file.write_text(code)
    second = next(_SECONDS)
    os.utime(file, (second, second))


def _difference(mutant: Mutant, code: str) -> str:
    before = (PROJECT / mutant.module).read_text().splitlines()
    after = code.splitlines()
    lines = [
        f"  {number}\n  - {old.strip()}\n  + {new.strip()}"
        for number, (old, new) in enumerate(zip(before, after, strict=False), start=1)
        if old != new
    ]
    return "\n".join(lines[:3])


if __name__ == "__main__":
    main()
