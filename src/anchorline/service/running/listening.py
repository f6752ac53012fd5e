"""The listening socket: opened first, and kept while processes come and go."""

from __future__ import annotations

import os
import socket
import time

import psutil

from ..settings import Settings
from .run_error import RunError

# Names, in the environment of those that answer, the socket that they are handed.
LISTENER = "ANCHORLINE_LISTENER"
# As long as an earlier service may take to end.
_WAIT_SECONDS = 12
_BACKLOG = 1024
# systemd's socket activation (sd_listen_fds(3)): the first socket that it hands over.
_FIRST_HANDED = 3
_ANOTHERS = "a program of another account"


def listen(settings: Settings) -> socket.socket:
    """A socket that listens at the service's address.

    Raises:
        RunError: the port is taken or not allowed; it says who holds it, where that can be told.
    """
    if os.environ.get("LISTEN_PID") == str(os.getpid()) and os.environ.get("LISTEN_FDS") == "1":
        return socket.socket(fileno=_FIRST_HANDED)
    deadline = time.monotonic() + _WAIT_SECONDS
    family = socket.AF_INET6 if ":" in settings.host else socket.AF_INET
    while True:
        try:
            return socket.create_server(
                (settings.host, settings.port), family=family, backlog=_BACKLOG
            )
        except OSError as error:
            if time.monotonic() >= deadline or not holders(settings.port):
                raise RunError(_refusal(settings, error)) from error
            time.sleep(0.2)


def holders(port: int) -> list[str]:
    """Who listens on a port: programs with their process ids, or that it cannot be told."""
    found = {
        _program(connection.pid)
        for connection in psutil.net_connections("tcp")
        if connection.status == psutil.CONN_LISTEN and connection.laddr[1:2] == (port,)
    }
    return sorted(found)


def _program(pid: int | None) -> str:
    try:
        return f"{psutil.Process(pid).name()}, process {pid}" if pid else _ANOTHERS
    except psutil.Error:
        return _ANOTHERS


def _refusal(settings: Settings, error: OSError) -> str:
    known = holders(settings.port)
    held = f"; it is held by {' and '.join(known)}" if known else ""
    return (
        f"Port {settings.port} on {settings.host} cannot be used ({error.strerror}{held}). "
        "Stop what listens there, or set ANCHORLINE_PORT to another one."
    )
