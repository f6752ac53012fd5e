"""A port that is taken: said with who holds it, before anything else is done or sent."""

import json
import os
import socket
import subprocess
import sys
import threading
from http.server import BaseHTTPRequestHandler, HTTPServer
from pathlib import Path

import httpx
import pytest

from anchorline.service.running.listening import holders, listen
from anchorline.service.settings import read_settings
from tests.conftest import PROJECT, free_port

SEEN: list[str] = []


class Listener(BaseHTTPRequestHandler):
    """Answers everything, and keeps what it was sent."""

    def do_GET(self):
        SEEN.append(f"{self.requestline} {self.headers}")
        self.send_response(200)
        self.end_headers()
        self.wfile.write(b'{"alive": true, "instance": "another"}')

    def do_POST(self):
        self.do_GET()

    def log_message(self, *_):
        pass


def test_a_demo_on_a_taken_port_makes_no_keys_and_sends_nothing(tmp_path_factory):
    folder = Path("/tmp") / f"anchorline-taken-{os.getpid()}"
    folder.mkdir(mode=0o755)
    with HTTPServer(("127.0.0.1", 0), Listener) as other:
        threading.Thread(target=other.serve_forever, daemon=True).start()
        port = other.server_port
        done = subprocess.run(
            [sys.executable, "-m", "anchorline.demo", "start"],
            env={
                **os.environ, "ANCHORLINE_VAR_DIR": str(folder), "ANCHORLINE_PORT": str(port),
                "ANCHORLINE_DATABASE_PORT": str(free_port()),
            },
            capture_output=True, text=True, timeout=200,
        )  # fmt: skip
        other.shutdown()
    said = done.stdout + done.stderr
    assert done.returncode != 0
    assert "✓" not in said
    assert f"Port {port}" in said
    assert f"process {os.getpid()}" in said, "who holds it was not told"
    assert "ANCHORLINE_PORT" in said
    assert not any("uthorization" in seen for seen in SEEN)
    assert not (folder / "demo" / "access.json").exists()
    assert not (folder / "mariadb").exists(), "the database was started for nothing"
    subprocess.run(["rm", "-rf", str(folder)], check=True)


def test_who_listens_is_named_by_program_and_process():
    with socket.create_server(("127.0.0.1", 0)) as taken:
        (holder,) = holders(taken.getsockname()[1])
    assert f"process {os.getpid()}" in holder


def test_the_service_says_which_one_it_is(stack):
    told = httpx.get(f"{stack.url}/healthz", trust_env=False, timeout=60).json()
    assert told == {"alive": True, "instance": (stack.folder / "instance").read_text()}
    secret = (stack.folder / "service-secret").read_text()
    assert told["instance"] not in secret


def test_a_socket_that_systemd_hands_over_is_listened_at(tmp_path):
    """As sd_listen_fds(3) has it: file descriptor 3, LISTEN_FDS and LISTEN_PID."""
    code = (
        "import os; os.environ['LISTEN_PID'] = str(os.getpid());"
        "from anchorline.service.running.listening import listen;"
        "from anchorline.service.settings import read_settings;"
        "print(listen(read_settings()).getsockname()[1])"
    )
    with socket.create_server(("127.0.0.1", 0)) as handed:
        done = subprocess.run(
            ["bash", "-c", f'exec 3<&{handed.fileno()} "$0" -c "$1"', sys.executable, code],
            env={**os.environ, "LISTEN_FDS": "1"}, pass_fds=[handed.fileno()],
            capture_output=True, text=True, timeout=200, cwd=PROJECT,
        )  # fmt: skip
        assert done.stdout.strip() == str(handed.getsockname()[1]), done.stderr


@pytest.mark.skipif(not socket.has_ipv6, reason="no IPv6 here")
def test_an_ipv6_address_can_be_listened_at():
    settings = read_settings({"ANCHORLINE_HOST": "::1", "ANCHORLINE_PORT": str(free_port())})
    try:
        with listen(settings) as listener:
            assert listener.getsockname()[0] == "::1"
    except Exception as error:  # no loopback address of that kind on this machine
        pytest.skip(json.dumps(str(error)))
