"""The process of one job: a fork of the worker, which has everything loaded already."""

from __future__ import annotations

import ctypes
import os
import signal
import sys
from collections.abc import Callable
from typing import NoReturn

from anchorline.child_processes import end_with_parent

from ..logs import logger

# What tools like `ps -o comm` and `top` show of it.
PROCESS_NAME = b"anchorline-job"
_PR_SET_NAME = 15
_log = logger("jobs")


class JobProcess:
    """A job's process, as the worker sees it; `returncode` is None while it runs."""

    def __init__(self, pid: int) -> None:
        self.pid = pid
        self.returncode: int | None = None

    @classmethod
    def start(cls, work: Callable[[], int]) -> JobProcess:
        """Starts a process that leads a session of its own, works, and ends with the status.

        It ends with its parent, however that ends. The parent must run no other thread.
        """
        parent = os.getpid()
        sys.stdout.flush()
        sys.stderr.flush()
        pid = os.fork()
        if pid == 0:
            _work_and_exit(work, parent)
        return cls(pid)

    def poll(self) -> int | None:
        """How it ended: its exit status, or minus the signal's number; None while it runs."""
        if self.returncode is None:
            try:
                pid, status = os.waitpid(self.pid, os.WNOHANG)
            except ChildProcessError:  # somebody else waited for it
                pid, status = self.pid, 0
            if pid:
                self.returncode = os.waitstatus_to_exitcode(status)
        return self.returncode

    def terminate(self) -> None:
        """Asks it to end."""
        if self.poll() is None:
            os.kill(self.pid, signal.SIGTERM)


def _work_and_exit(work: Callable[[], int], parent: int) -> NoReturn:
    status = 1
    try:
        # What the worker does on these signals is not for its jobs.
        for number in (signal.SIGINT, signal.SIGTERM):
            signal.signal(number, signal.SIG_DFL)
        os.setsid()
        end_with_parent(parent)
        ctypes.CDLL(None).prctl(_PR_SET_NAME, PROCESS_NAME, 0, 0, 0)
        status = work()
    except BaseException as error:
        _log.error("job's process failed", exc_info=error)
    finally:
        sys.stdout.flush()
        sys.stderr.flush()
        os._exit(status)
