"""What gunicorn does around its workers: open the editions at once, tidy up after the dead."""

from __future__ import annotations

import gc
from typing import Any

from prometheus_client.multiprocess import mark_process_dead

from .app import services_of

# A search makes some hundred short-lived objects; looking for garbage among them at every one of
# Python's 700 would cost more than it frees.
_COLLECT_AFTER = 20_000


def post_worker_init(worker: Any) -> None:
    """Opens the active editions, so that nobody's first keystroke waits for it."""
    services_of(worker.app.callable).gazetteer.current()
    settle_memory()


def settle_memory() -> None:
    """Has garbage looked for seldom, and no more among what is there by now.

    A collection that looks at all of it would take tens of milliseconds in the middle of
    somebody's typing.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(_COLLECT_AFTER, 20, 20)


def child_exit(_server: Any, worker: Any) -> None:
    """Takes a dead worker's gauges out of the metrics."""
    mark_process_dead(worker.pid)  # type: ignore[no-untyped-call]
