"""Kept-alive connections are spread over the worker processes, and answers come in one piece."""

import socket
import subprocess
import sys
import time
from collections import Counter
from contextlib import ExitStack, closing, suppress
from http.client import HTTPConnection

import pytest

from ..conftest import free_port

APPLICATION = """
import os


def app(environ, start):
    body = str(os.getpid()).encode()
    start("200 OK", [("Content-Length", str(len(body)))])
    return [body]
"""
WORKER = "anchorline.service.problem_worker.ProblemWorker"


def ask(connection):
    connection.request("GET", "/")
    return connection.getresponse().read()


@pytest.fixture
def port(tmp_path):
    """Where two workers answer with the numbers of their processes."""
    (tmp_path / "which_process.py").write_text(APPLICATION)
    port = free_port()
    process = subprocess.Popen(
        [sys.executable, "-m", "gunicorn", "--no-control-socket", "--worker-class", WORKER,
         "--workers", "2", "--threads", "4", "--keep-alive", "15", "--log-level", "warning",
         "--chdir", str(tmp_path), "--bind", f"127.0.0.1:{port}", "which_process:app"]
    )  # fmt: skip
    seen = set()
    deadline = time.monotonic() + 30
    while len(seen) < 2 and time.monotonic() < deadline:
        with closing(HTTPConnection("127.0.0.1", port)) as connection, suppress(OSError):
            seen.add(ask(connection))
        time.sleep(0.02)
    yield port
    process.terminate()
    process.wait()


def test_no_worker_holds_most_of_the_connections(port):
    with ExitStack() as opened:
        held = Counter(
            ask(opened.enter_context(closing(HTTPConnection("127.0.0.1", port)))) for _ in range(24)
        )
    assert len(held) == 2, held
    assert max(held.values()) <= 16, held


def test_head_and_body_of_an_answer_come_together(port):
    with socket.create_connection(("127.0.0.1", port), timeout=10) as connection:
        for _ in range(20):
            connection.sendall(b"GET / HTTP/1.1\r\nHost: here\r\n\r\n")
            head, _, body = connection.recv(65536).partition(b"\r\n\r\n")
            assert head.startswith(b"HTTP/1.1 200 OK")
            assert body.isdigit(), "the body came later: whoever reads is woken twice"
