"""The process of the service that the demo starts: where it is, whether it lives, how it ends."""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path

import click
import httpx
import psutil

from anchorline.child_processes import end_processes

STOP_SECONDS = 40


class DemoError(click.ClickException):
    """A step of the demo failed; the message says which and what to do."""


def spawn(errors: int, *, tied: bool = False) -> subprocess.Popen[bytes]:
    """The service as a process; `tied` ends it when this process ends, however that comes."""
    tie = ["setpriv", "--pdeathsig", "TERM", "--"] if tied else []
    return subprocess.Popen(
        [*tie, sys.executable, "-m", "anchorline.service", "run", "--worker"],
        # On the terminal only what went wrong; the background's log has everything.
        env={"ANCHORLINE_LOG_LEVEL": "warning", **os.environ} if tied else None,
        stdin=subprocess.DEVNULL,
        stdout=errors,
        stderr=errors,
        start_new_session=True,
    )


def listens(pid: int) -> bool:
    """Whether it is this process that listens at the service's port."""
    port = int(os.environ.get("ANCHORLINE_PORT") or "8470")
    try:
        held = psutil.Process(pid).net_connections("tcp")
    except psutil.Error:
        return False
    return any(c.status == psutil.CONN_LISTEN and c.laddr[1:2] == (port,) for c in held)


def alive() -> bool:
    """Whether the service of this folder answers at the address."""
    try:
        answer = httpx.get(f"{url()}/healthz", timeout=2, trust_env=False)
        return bool(answer.json()["instance"] == (folder().parent / "instance").read_text())
    except (httpx.TransportError, OSError, ValueError, KeyError):
        return False


def running_pid() -> int | None:
    """The process that `start` left in the background, if it runs."""
    try:
        pid = int((folder() / "service.pid").read_text())
        command = Path(f"/proc/{pid}/cmdline").read_bytes()
    except (OSError, ValueError):
        return None
    return pid if b"anchorline.service" in command else None


def end(pid: int) -> None:
    """Asks a process of the service to end, and waits for it."""
    if not end_processes([pid], STOP_SECONDS, kill=False):
        raise DemoError(f"The service (process {pid}) does not stop; look at its log.")


def url() -> str:
    """Where the service answers."""
    host = os.environ.get("ANCHORLINE_HOST") or "127.0.0.1"
    return f"http://{host}:{os.environ.get('ANCHORLINE_PORT') or '8470'}"


def folder() -> Path:
    """`demo` in the service's own folder."""
    project = Path(__file__).resolve().parents[3]
    found = Path(os.environ.get("ANCHORLINE_VAR_DIR") or project / "var") / "demo"
    found.mkdir(parents=True, exist_ok=True)
    return found
