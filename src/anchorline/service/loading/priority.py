"""A low priority for a process that must not disturb those who type."""

from __future__ import annotations

import os
from contextlib import suppress
from pathlib import Path

NICENESS = 15


def step_back(pid: int) -> None:
    """Gives a process that leads a session of its own the niceness NICENESS.

    Where the kernel groups processes by their sessions (sched(7), "The autogroup feature"), a
    process's own niceness counts inside its session alone: the group is given it as well.
    """
    os.setpriority(os.PRIO_PROCESS, pid, NICENESS)
    # Not every kernel has groups, and one may refuse to change them just now.
    with suppress(OSError):
        Path(f"/proc/{pid}/autogroup").write_text(str(NICENESS))
