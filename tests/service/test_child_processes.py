"""Ending processes, whoever started them."""

import subprocess
import sys
import time

import psutil
import pytest

from anchorline.child_processes import end_processes

STUBBORN = "import signal, time; signal.signal(signal.SIGTERM, signal.SIG_IGN); print(1, flush=True); time.sleep(60)"


def start(code):
    process = subprocess.Popen([sys.executable, "-c", code], stdout=subprocess.PIPE)
    process.stdout.readline()
    return process


@pytest.mark.parametrize("by", ["id", "process"])
def test_one_that_ends_when_asked_is_not_killed(by):
    process = start("import time; print(1, flush=True); time.sleep(60)")
    assert end_processes([process.pid if by == "id" else process], 10)
    process.stdout.close()
    if by == "process":
        assert process.returncode is not None
    process.wait()


def test_one_that_does_not_end_is_killed_or_left_as_wanted():
    process = start(STUBBORN)
    assert not end_processes([process], 0.2, kill=False)
    assert process.poll() is None
    assert not end_processes([process], 0.2)
    assert process.poll() is not None
    process.stdout.close()


def test_several_have_their_time_together():
    processes = [start(STUBBORN) for _ in range(3)]
    began = time.monotonic()
    assert not end_processes(processes, 2)
    assert time.monotonic() - began < 5.5, "one after the other"
    assert all(process.poll() is not None for process in processes)
    for process in processes:
        process.stdout.close()


def test_one_that_is_gone_is_no_error():
    gone = next(n for n in range(400_000, 500_000) if not psutil.pid_exists(n))
    assert end_processes([gone], 1)
    assert end_processes([], 1)
