"""Estimating how much longer a load will take."""

from __future__ import annotations

# Building an index takes about as long as reading and checking its rows (bench/load).
_BUILDING_TO_READING = 1.2
_COMPARING_TO_READING = 0.25


def seconds_left(phase: str, in_phase: float, share_read: float, reading: float) -> float | None:
    """Seconds until a load is ready, or None where nothing can be said yet.

    Args:
        phase: `reading`, `building` or `comparing`.
        in_phase: seconds since the phase began.
        share_read: the share of the file, 0 to 1, that is read.
        reading: seconds that reading took, once it is over; 0 where there was none.
    """
    after = _BUILDING_TO_READING + _COMPARING_TO_READING
    if phase == "reading":
        if share_read < 0.01:
            return None
        whole = in_phase / share_read
        return whole - in_phase + whole * after
    if not reading:
        return None
    if phase == "building":
        return max(0.0, reading * after - in_phase)
    return max(0.0, reading * _COMPARING_TO_READING - in_phase)
