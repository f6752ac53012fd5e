"""Running the garbage collector rarely, in processes that make very many short-lived objects."""

from __future__ import annotations

import gc

# A search makes some hundred objects, a row of a file twenty. Python looks for garbage among them
# at every 700 that are left, which costs more than it frees.
_COLLECT_AFTER = 20_000


def settle_memory() -> None:
    """Has garbage looked for seldom, and no more among what is there by now.

    A collection that looks at all of it would take tens of milliseconds in the middle of
    somebody's typing.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(_COLLECT_AFTER, 20, 20)
