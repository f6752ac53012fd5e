"""Ending processes."""

from __future__ import annotations

import subprocess
from collections.abc import Iterable
from contextlib import suppress

import psutil


def end_processes(
    processes: Iterable[int | subprocess.Popen[bytes]], seconds: float, *, kill: bool = True
) -> bool:
    """Asks processes to end (SIGTERM) and waits until they have.

    Args:
        processes: by their ids, or as they were started.
        seconds: how long they have for it, all together.
        kill: those that are left after that are killed.

    Returns:
        Whether all of them ended when they were asked to.
    """
    given = list(processes)
    running = []
    for one in given:
        with suppress(psutil.NoSuchProcess):
            process = psutil.Process(one if isinstance(one, int) else one.pid)
            process.terminate()
            running.append(process)
    _, left = psutil.wait_procs(running, timeout=seconds)
    if left and kill:
        for process in left:
            with suppress(psutil.NoSuchProcess):
                process.kill()
        psutil.wait_procs(left, timeout=seconds)
    for one in given:
        if not isinstance(one, int):
            one.poll()  # it was waited for above: that this is so must be known to it
    return not left
