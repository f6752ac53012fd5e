"""A web page in Chromium whose form stands in a frame, and to which nobody attaches."""

from __future__ import annotations

import json
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from importlib import resources
from pathlib import Path

from .state import State, read_state

NAMES = ("line1", "line2", "town", "postcode", "country")
_PAGE = """<!doctype html><html lang="en"><meta charset="utf-8"><title>Web order</title>
<body style="margin:0"><h1 style="font:bold 20px sans-serif;margin:1rem">Web order</h1>
<iframe src="/frame" title="Delivery" style="border:0;width:100%;height:420px"></iframe>
</body></html>"""
_LARGEST = 65_536


class _Handler(BaseHTTPRequestHandler):
    state: State

    def do_GET(self) -> None:
        """The page, its frame, or the state."""
        if self.path.startswith("/frame"):
            page = resources.files(__package__).joinpath("frame.html").read_text("utf-8")
            self._answer(page, "text/html")
        elif self.path == "/state":
            self._answer(json.dumps(self.state.values), "application/json")
        else:
            self._answer(_PAGE, "text/html")

    def do_POST(self) -> None:
        """The state as the page has it."""
        length = min(int(self.headers.get("Content-Length") or 0), _LARGEST)
        self.state.keep(json.loads(self.rfile.read(length)))
        self._answer("{}", "application/json")

    def log_message(self, *_given: object) -> None:
        """Nothing is logged."""

    def _answer(self, text: str, kind: str) -> None:
        body = text.encode()
        self.send_response(200)
        self.send_header("Content-Type", f"{kind}; charset=utf-8")
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)


def main() -> None:
    """Serves the page on loopback and shows it in a window of Chromium until that is closed."""
    state = read_state(__doc__ or "", NAMES)
    browser = shutil.which("chromium")
    if browser is None:
        sys.exit("Chromium is not installed: apt-get install chromium")
    handler = type("Handler", (_Handler,), {"state": state})
    with ThreadingHTTPServer(("127.0.0.1", 0), handler) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        profile = Path(tempfile.mkdtemp(prefix="anchorline-weborders-"))
        url = f"http://127.0.0.1:{server.server_address[1]}/?number={state.number}"
        shown = subprocess.Popen(
            [
                browser, f"--user-data-dir={profile}", f"--app={url}", "--no-sandbox",
                "--test-type", "--window-size=600,480",
                "--no-first-run", "--disable-gpu", "--force-renderer-accessibility",
                "--disable-background-networking", "--disable-component-update",
                "--disable-sync", "--password-store=basic",
            ]
        )  # fmt: skip
        signal.signal(signal.SIGTERM, lambda *_: shown.terminate())
        try:
            shown.wait()
        finally:
            shown.terminate()
            server.shutdown()
            shutil.rmtree(profile, ignore_errors=True)


if __name__ == "__main__":
    main()
