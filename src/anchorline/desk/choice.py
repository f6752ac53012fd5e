"""What an address can be written into: a target, and one of its addresses."""

from __future__ import annotations

from dataclasses import dataclass

from .known_targets import AddressOfTarget, KnownTarget


@dataclass(frozen=True, slots=True)
class Choice:
    """A target and one of its addresses."""

    target: KnownTarget
    address: AddressOfTarget

    @property
    def label(self) -> str:
        """Both in words."""
        if len(self.target.addresses) == 1:
            return self.target.title
        return f"{self.target.title}: {self.address.label}"
