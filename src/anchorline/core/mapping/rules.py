"""A mapping rule: which components, joined and changed how, go into which field."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Rule:
    """One rule of a slot's mapping.

    Attributes:
        components: component names, in the order in which they are joined.
        into: key of the field that receives the text.
        join: what stands between two components that are both there.
        changes: names of changes of `changes.CHANGES`, applied in order.
    """

    components: tuple[str, ...]
    into: str
    join: str = " "
    changes: tuple[str, ...] = ()

    def text(self, components: Mapping[str, str]) -> str:
        """The components that are there, joined; empty ones leave no trace."""
        return self.join.join(
            value for name in self.components if (value := components.get(name, "").strip())
        )
