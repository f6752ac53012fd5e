"""What formulas know of the address in a slot."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field


@dataclass(frozen=True, slots=True)
class AddressValue:
    """The address of a slot.

    Attributes:
        components: by name.
        latitude, longitude: degrees (WGS 84), where they are known.
        line: the address as one line.
        lines: as its country writes it, for mail inside it.
        given: `picked`, `typed`, or nothing where there is none.
        facts: of one that was picked: `use`, `languages`, `id`, as texts.
    """

    components: Mapping[str, str] = field(default_factory=dict)
    latitude: float | None = None
    longitude: float | None = None
    line: str = ""
    lines: tuple[str, ...] = ()
    given: str = ""
    facts: Mapping[str, str] = field(default_factory=dict)
