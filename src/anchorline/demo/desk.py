"""The demo's desktop: made-up programs and the agent, on the display that there is or another."""

from __future__ import annotations

import json
import os
import shutil
import signal
import subprocess
import sys
import time
from collections.abc import Mapping, Sequence
from pathlib import Path

from .process import DemoError, folder

_PATIENCE = 10.0


def run_desktop() -> None:
    """Shows the programs and runs the agent until Ctrl-C."""
    access: Mapping[str, str] = json.loads((folder() / "access.json").read_text("utf-8"))
    environment = {
        **os.environ,
        "ANCHORLINE_URL": access["url"],
        "ANCHORLINE_KEY": access["server_key"],
    }
    started: list[subprocess.Popen[bytes]] = []
    try:
        if not environment.get("DISPLAY"):
            environment |= _own_session(started)
        programs = [sys.executable, "-m", "anchorline.standins"]
        started.append(subprocess.Popen(programs, env=environment))
        agent = [sys.executable, "-m", "anchorline.cli", "desk", "run"]
        started.append(subprocess.Popen(agent, env=environment))
        signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
        started[-1].wait()
    except (KeyboardInterrupt, SystemExit):
        pass
    finally:
        for one in reversed(started):
            one.terminate()
            one.wait()


def _own_session(started: list[subprocess.Popen[bytes]]) -> dict[str, str]:
    """A display without a screen, a window manager, a session bus: what programs need of them."""
    for program in ("Xvfb", "openbox", "dbus-daemon"):
        if shutil.which(program) is None:
            raise DemoError(f"{program} is not installed: setup/install.sh desk")
    read, write = os.pipe()
    display = ["Xvfb", "-displayfd", str(write), "-screen", "0", "1280x800x24", "-nolisten", "tcp"]
    started.append(_apart(display, pass_fds=[write]))
    os.close(write)
    with os.fdopen(read) as numbers:
        number = numbers.readline().strip()
    bus = Path(os.environ.get("XDG_RUNTIME_DIR") or folder()) / f"desk-bus-{os.getpid()}"
    address = f"unix:path={bus}"
    session = ["dbus-daemon", "--session", f"--address={address}", "--nofork"]
    found = {"DISPLAY": f":{number}", "XDG_SESSION_TYPE": "x11"}
    started.append(_apart(session, env={**os.environ, **found}))
    until = time.monotonic() + _PATIENCE
    while not bus.exists():
        if time.monotonic() > until:
            raise DemoError("The session bus does not start.")
        time.sleep(0.05)
    found["DBUS_SESSION_BUS_ADDRESS"] = address
    started.append(_apart(["openbox"], env={**os.environ, **found}))
    print(f"There is no display: this one is :{number}, without a screen.")
    print(f"See it: DISPLAY=:{number} import -window root desk.png (package imagemagick)")
    return found


def _apart(
    command: Sequence[str], pass_fds: Sequence[int] = (), env: Mapping[str, str] | None = None
) -> subprocess.Popen[bytes]:
    """A program that Ctrl-C does not reach: it is ended after those that need it."""
    quiet = subprocess.DEVNULL
    return subprocess.Popen(
        command,
        pass_fds=pass_fds,
        env=env,
        stdout=quiet,
        stderr=quiet,
        start_new_session=True,
    )
