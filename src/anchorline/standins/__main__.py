"""Stand-in programs on the display that there is: `python -m anchorline.standins [NAME…]`."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
import tempfile
from pathlib import Path

NAMES = (
    "contacts", "firms", "letters", "labels", "parcels", "orders", "customers", "weborders",
)  # fmt: skip

# Terminals and browsers tell of fonts and buses that nobody here needs.
_TALKATIVE = ("orders", "weborders")


def main() -> None:
    """Starts them, and ends them at Ctrl-C."""
    if not os.environ.get("DISPLAY"):
        sys.exit("There is no display: run this in a graphical session, or set DISPLAY.")
    names = sys.argv[1:] or NAMES
    unknown = [name for name in names if name not in NAMES]
    if unknown:
        sys.exit(f"There is no stand-in {unknown[0]!r}; there are {', '.join(NAMES)}.")
    folder = Path(tempfile.mkdtemp(prefix="anchorline-standins-"))
    started = [
        # Ctrl-C is for this program, which ends them.
        subprocess.Popen(
            command(name, folder),
            start_new_session=True,
            stderr=subprocess.DEVNULL if name in _TALKATIVE else None,
        )
        for name in names
        if name != "orders" or _xterm()
    ]
    count = "One program runs" if len(started) == 1 else f"{len(started)} programs run"
    print(f"{count}; what stands in their fields is kept in {folder}.")
    print("Ctrl-C ends them.")
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    try:
        for one in started:
            one.wait()
    except (KeyboardInterrupt, SystemExit):
        pass
    finally:
        for one in started:
            one.terminate()
        for one in started:
            one.wait()
        shutil.rmtree(folder, ignore_errors=True)


def command(name: str, folder: Path) -> list[str]:
    """How a program is started."""
    program = f"anchorline.standins.programs.{name}"
    plain = [sys.executable, "-m", program, "--file", str(folder / f"{name}.json")]
    if name != "orders":
        return plain
    return ["xterm", "-T", "orders 1042", "-geometry", "90x24", "-e", *plain]


def _xterm() -> bool:
    return shutil.which("xterm") is not None


if __name__ == "__main__":
    main()
