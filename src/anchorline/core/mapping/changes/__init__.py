"""The changes that a rule can make to its text, one file a kind.

A module here that registers a change is found by itself: nothing lists them.
"""

from importlib import import_module
from pkgutil import iter_modules

from .kind import CHANGES, Change, Changed, ChangeKind, Context, Setting, Settings
from .reading import read_change

for _module in sorted(module.name for module in iter_modules(__path__)):
    import_module(f"{__name__}.{_module}")

__all__ = [
    "CHANGES",
    "Change",
    "ChangeKind",
    "Changed",
    "Context",
    "Setting",
    "Settings",
    "read_change",
]
