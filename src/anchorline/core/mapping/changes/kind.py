"""What a change is: its name, its words, its settings, and what it makes of a text.

One kind of change is one file in this package; `@change` puts it into `CHANGES`, which documents,
the console, the command line and the docs are made from.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from ...layouts import Layout, LayoutLibrary

Settings = Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class Changed:
    """What a change made of a text.

    Attributes:
        text: what goes on.
        lost: what was there and is not any more without anybody having asked for that; empty
            where nothing is.
        warning: what a person should know, a sentence without the field's name; empty for nothing.
        shortened: whether words are written shorter, or fewer of them.
    """

    text: str
    lost: str = ""
    warning: str = ""
    shortened: bool = False


@dataclass(frozen=True, slots=True)
class Context:
    """What a change may know beside the text.

    Attributes:
        layout: of the address's country.
        components: of the address.
        limit: characters that the receiver takes; None for any number.
        layouts: of all countries; None where no other country can be told.
    """

    layout: Layout
    components: Mapping[str, str] = field(default_factory=dict)
    limit: int | None = None
    layouts: LayoutLibrary | None = None


@dataclass(frozen=True, slots=True)
class Setting:
    """One setting of a change.

    Attributes:
        type: `count` is a whole number; `table` maps texts to texts; `language` is a BCP 47 tag.
        options: of a choice: what it is called, by value.
        default: where it is left out; None: it has to be given.
    """

    name: str
    title: str
    type: Literal["count", "text", "choice", "table", "language"]
    options: Mapping[str, str] = field(default_factory=dict)
    default: Any = None
    least: int = 1
    most: int = 1000


Apply = Callable[[str, Settings, Context], Changed]
# What is wrong with settings: their names, each with a sentence.
Faults = Callable[[Settings], Iterable[tuple[str, str]]]


def _nothing_wrong(_settings: Settings) -> Iterable[tuple[str, str]]:
    return ()


@dataclass(frozen=True, slots=True)
class ChangeKind:
    """One kind of change.

    Attributes:
        title: what it makes of a text, to be read after its name: `in capitals`.
        help: a sentence, with an example.
        keeps: whether the text can be told again from what it makes of it, up to its case.
    """

    name: str
    title: str
    help: str
    apply: Apply
    settings: tuple[Setting, ...] = ()
    faults: Faults = _nothing_wrong
    keeps: bool = False

    @property
    def is_table(self) -> bool:
        """Whether its only setting is a table, which then stands for all settings."""
        return [setting.type for setting in self.settings] == ["table"]


CHANGES: dict[str, ChangeKind] = {}


def change(
    name: str,
    title: str,
    help: str,
    *settings: Setting,
    faults: Faults = _nothing_wrong,
    keeps: bool = False,
) -> Callable[[Apply], Apply]:
    """Registers a kind of change."""

    def register(apply: Apply) -> Apply:
        CHANGES[name] = ChangeKind(name, title, help, apply, settings, faults, keeps)
        return apply

    return register


@dataclass(frozen=True, slots=True)
class Change:
    """A change as a rule uses it."""

    kind: ChangeKind
    settings: Settings = field(default_factory=dict)

    def apply(self, text: str, context: Context) -> Changed:
        """What it makes of a text."""
        return self.kind.apply(text, self.settings, context)
