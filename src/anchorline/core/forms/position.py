"""A place that belongs to a captured address beside what the reference data know: a moved pin, or
where the person was."""

from __future__ import annotations

from dataclasses import dataclass

from ..address import Facts
from ..sphere import metres_between
from .slot_settings import SlotSettings


@dataclass(frozen=True, slots=True)
class Position:
    """A place in degrees (WGS 84).

    Attributes:
        source: `pin`, one that was moved, or `device`, the person's.
        accuracy_m: of a device: metres within which it is.
        distance_m: from the address, where the reference data know its place.
    """

    latitude: float
    longitude: float
    source: str
    accuracy_m: float | None = None
    distance_m: int | None = None


def kept_position(given: Position | None, settings: SlotSettings, facts: Facts) -> Position | None:
    """What is kept of a place that was sent: with its distance, and only where its form says so."""
    if given is None:
        return None
    is_kept = settings.keeps_position if given.source == "device" else settings.map is not None
    if not is_kept:
        return None
    distance = None
    if facts.latitude is not None and facts.longitude is not None:
        distance = metres_between(facts.latitude, facts.longitude, given.latitude, given.longitude)
    return Position(given.latitude, given.longitude, given.source, given.accuracy_m, distance)
