"""What gunicorn does around its workers: open the editions at once, tidy up after the dead."""

from __future__ import annotations

from typing import Any

from prometheus_client.multiprocess import mark_process_dead

from .app import services_of
from .settle_memory import settle_memory


def post_worker_init(worker: Any) -> None:
    """Opens the active editions, so that nobody's first keystroke waits for it."""
    services_of(worker.app.callable).gazetteer.current()
    settle_memory()


def child_exit(_server: Any, worker: Any) -> None:
    """Takes a dead worker's gauges out of the metrics."""
    mark_process_dead(worker.pid)  # type: ignore[no-untyped-call]
