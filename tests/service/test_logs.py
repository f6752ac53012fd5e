"""The log: one event is one line, and one line is written whole."""

import json
import os
import socket
import subprocess
import sys

WRITE_TWO = """
from anchorline.service.logs import logger, set_up_logs
set_up_logs("info")
logger("sample").info("first", value="two\\nlines", password="hunter2")
logger("sample").warning("second")
"""


def test_a_line_and_its_end_are_one_write_so_that_processes_can_share_a_log():
    """The other end of a socket that keeps writes apart sees how often each line was written."""
    ours, theirs = socket.socketpair(socket.AF_UNIX, socket.SOCK_SEQPACKET)
    with ours, theirs:
        subprocess.run(
            [sys.executable, "-c", WRITE_TWO],
            env=os.environ | {"PYTHONUNBUFFERED": "1"},
            stderr=theirs,
            timeout=200,
            check=True,
        )
        theirs.close()
        writes = list(iter(lambda: ours.recv(65536).decode(), ""))
    assert [text.count("\n") for text in writes] == [1, 1], writes
    first, second = map(json.loads, writes)
    assert first["event"] == "first"
    assert first["value"] == "two\nlines"
    assert first["password"] == "hidden"
    assert second["level"] == "warning"
