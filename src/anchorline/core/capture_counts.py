"""What is counted of a capture, from the first look at a slot to the address that stands there.

Pages count, and anybody can send what a page sends: a report holds no more than one page can have
done, so that nobody makes the figures of a form what they like by one call.
"""

from __future__ import annotations

from collections.abc import Mapping

# Each with what it counts.
COUNTED: dict[str, str] = {
    "shown": "slots that were shown",
    "begun": "of these, in which somebody has typed",
    "picked": "addresses that were picked",
    "partly": "streets, postcodes and the like that were taken as far as they go",
    "by_hand": "addresses that were typed by hand",
    "changed": "of those picked, in which something was changed afterwards",
    "left": "slots that were begun and left without an address",
    "keys": "keys pressed in finders",
    "characters": "characters that fills have written",
}
# As many as a form can have; a page tells of each once.
_MOST_SLOTS = 20
# In one go, by a person who tries again and again.
_MOST_TAKEN = 200
_MOST_KEYS = 20_000
# All fields of an address, filled.
_MOST_WRITTEN = 5_000
# Of one page at most; what is more is no person.
MOST_COUNTED: dict[str, int] = {
    "shown": _MOST_SLOTS,
    "begun": _MOST_SLOTS,
    "picked": _MOST_TAKEN,
    "partly": _MOST_TAKEN,
    "by_hand": _MOST_SLOTS,
    "changed": _MOST_TAKEN,
    "left": _MOST_SLOTS,
    "keys": _MOST_KEYS,
    "characters": 2 * _MOST_TAKEN * _MOST_WRITTEN,
}


def impossible(counts: Mapping[str, int]) -> tuple[str, str] | None:
    """The count that no page can have come to beside the others, and why; None where all can be.

    Begun, changed and left may be of what an earlier report has told.
    """
    taken = counts["picked"] + counts["partly"]
    if counts["changed"] > counts["picked"] + _MOST_SLOTS:
        return "changed", "More addresses cannot have been changed than were picked."
    if counts["characters"] > taken * _MOST_WRITTEN:
        return "characters", "Fewer addresses than these were filled in: so much is not written."
    return None
