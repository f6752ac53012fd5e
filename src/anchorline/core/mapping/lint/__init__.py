"""Checking a mapping before it is used, one check a file.

A module here that registers a check is found by itself: nothing lists them.
"""

from importlib import import_module
from pkgutil import iter_modules

from .kind import CHECKS, Case, Finding, Run

for _module in sorted(module.name for module in iter_modules(__path__)):
    import_module(f"{__name__}.{_module}")


def lint(case: Case) -> list[Finding]:
    """All findings of all checks: problems first, then by place."""
    found = [one for check in CHECKS.values() for one in check(case)]
    return sorted(found, key=lambda one: (one.severity != "problem", one.pointer))


__all__ = ["CHECKS", "Case", "Finding", "Run", "lint"]
