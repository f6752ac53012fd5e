"""A service of the bench's own, on free ports and in a folder of its own; ended with the bench."""

from __future__ import annotations

import json
import os
import shutil
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

import httpx

from .options import FOLDER

START_SECONDS = 60


@dataclass(frozen=True)
class Running:
    """Where the service is, and a server key for it."""

    url: str
    key: str
    folder: Path


@contextmanager
def service(without: str = "") -> Iterator[Running]:
    """Runs the service with a worker, as an operator would, on an empty database.

    Args:
        without: a shortcut to take out of it (`bench.shortcuts`).
    """
    folder = (FOLDER / f"service {without}".strip()).resolve()
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True)
    port = free_port()
    environment = {
        **{k: v for k, v in os.environ.items() if not k.startswith("ANCHORLINE_")},
        "ANCHORLINE_VAR_DIR": str(folder),
        "ANCHORLINE_PORT": str(port),
        "ANCHORLINE_DATABASE_PORT": str(free_port()),
        "ANCHORLINE_LOG_LEVEL": "warning",
        "BENCH_WITHOUT": without,
        "PYTHONPATH": str(Path(__file__).parent / "without"),
    }
    program = [sys.executable, "-m", "anchorline.service"]
    process = subprocess.Popen([*program, "run", "--worker"], env=environment)
    url = f"http://127.0.0.1:{port}"
    try:
        wait_for(f"{url}/healthz")
        made = subprocess.run(
            [*program, "provision", "bench@example.org", "Bench"],
            env=environment, input="not a secret here\n", capture_output=True, text=True, check=True,
        )  # fmt: skip
        yield Running(url, json.loads(made.stdout)["server_key"], folder)
    finally:
        process.terminate()
        process.wait()
        shutil.rmtree(folder, ignore_errors=True)


def wait_for(url: str) -> None:
    """Until something answers there."""
    deadline = time.monotonic() + START_SECONDS
    while True:
        try:
            if httpx.get(url, trust_env=False).status_code == 200:
                return
        except httpx.TransportError:
            pass
        if time.monotonic() > deadline:
            raise RuntimeError(f"nothing answers at {url}")
        time.sleep(0.1)


def free_port() -> int:
    """A port of the loopback that nobody uses."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])
