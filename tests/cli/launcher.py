"""Commands as processes of their own, without loading the program anew for each.

One process loads `anchorline.cli` and waits; for each run it forks a child that gets the arguments,
the environment and the three streams of the command, and ends with the command's exit code.
"""

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import tempfile
from collections.abc import Mapping, Sequence
from contextlib import ExitStack

_LENGTH = 8


class Launcher:
    """Runs commands; `close` ends the process that forks them."""

    def __init__(self) -> None:
        self._ours, theirs = socket.socketpair()
        with theirs:
            self._process = subprocess.Popen(
                [sys.executable, "-m", "tests.cli.launcher", str(theirs.fileno())],
                pass_fds=[theirs.fileno()],
            )

    def run(
        self, arguments: Sequence[str], environment: Mapping[str, str], source: str | None
    ) -> subprocess.CompletedProcess[str]:
        """What a command printed, and its exit code.

        Args:
            source: what stands on its standard input.
        """
        with ExitStack() as streams:
            files = [streams.enter_context(tempfile.TemporaryFile()) for _ in range(3)]
            files[0].write((source or "").encode())
            files[0].seek(0)
            asked = json.dumps([list(arguments), dict(environment)]).encode()
            head = len(asked).to_bytes(_LENGTH, "big")
            socket.send_fds(self._ours, [head + asked], [file.fileno() for file in files])
            answer = self._ours.recv(_LENGTH)
            assert answer, "the process that runs commands has ended"
            for file in files[1:]:
                file.seek(0)
            texts = [file.read().decode() for file in files[1:]]
        code = int.from_bytes(answer, "big", signed=True)
        return subprocess.CompletedProcess(list(arguments), code, *texts)

    def close(self) -> None:
        """Ends the process."""
        self._ours.close()
        self._process.wait(60)


def _serve(connection: socket.socket) -> None:
    import anchorline.cli  # noqa: F401  # once, before any command

    while True:
        data, streams, _, _ = socket.recv_fds(connection, 1 << 16, 3)
        if not data:
            return
        length = _LENGTH + int.from_bytes(data[:_LENGTH], "big")
        while len(data) < length:
            data += connection.recv(length - len(data))
        arguments, environment = json.loads(data[_LENGTH:])
        child = os.fork()
        if child == 0:
            connection.close()
            _become(arguments, environment, streams)
        for stream in streams:
            os.close(stream)
        _, status = os.waitpid(child, 0)
        code = os.waitstatus_to_exitcode(status)
        connection.sendall(code.to_bytes(_LENGTH, "big", signed=True))


def _become(arguments: list[str], environment: dict[str, str], streams: list[int]) -> None:
    """Goes on as the command; does not return."""
    for wanted, given in enumerate(streams):
        os.dup2(given, wanted)
        os.close(given)
    os.environ.clear()
    os.environ.update(environment)
    sys.argv = ["anchorline", *arguments]
    sys.stdin = open(0, encoding="utf-8", errors="surrogateescape", closefd=False)  # noqa: SIM115
    sys.stdout = open(1, "w", encoding="utf-8", errors="surrogateescape", closefd=False)  # noqa: SIM115
    sys.stderr = open(2, "w", encoding="utf-8", errors="backslashreplace", closefd=False)  # noqa: SIM115
    code = 1
    try:
        from anchorline.cli import main

        main()
        code = 0
    except SystemExit as ended:
        code = ended.code if isinstance(ended.code, int) else int(ended.code is not None)
    except BaseException:  # as the interpreter says it
        sys.excepthook(*sys.exc_info())
    finally:
        sys.stdout.flush()
        sys.stderr.flush()
        os._exit(code)


if __name__ == "__main__":
    with socket.socket(fileno=int(sys.argv[1])) as given:
        _serve(given)
