"""The shop's web server: one page, on a port of its own, which makes it another origin."""

from __future__ import annotations

import sys
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from importlib import resources
from string import Template


def page(service: str, key: str) -> bytes:
    """The checkout, with the line that attaches it to a service."""
    text = (resources.files(__package__) / "page.html").read_text("utf-8")
    return Template(text).substitute(service=service, key=key).encode()


def serve(port: int, service: str, key: str) -> None:
    """Serves the shop on loopback until it is told to stop."""
    content = page(service, key)

    class Shop(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            is_there = self.path.split("?")[0] in ("/", "/checkout")
            self.send_response(200 if is_there else 404)
            body = content if is_there else b"There is no such page in this shop."
            self.send_header("Content-Type", "text/html; charset=utf-8")
            self.send_header("Content-Length", str(len(body)))
            self.end_headers()
            self.wfile.write(body)

        def log_message(self, format: str, *args: object) -> None:
            """Nothing is told of who looks."""

    with ThreadingHTTPServer(("127.0.0.1", port), Shop) as server:
        try:
            server.serve_forever()
        except KeyboardInterrupt:
            return


if __name__ == "__main__":
    serve(int(sys.argv[1]), sys.argv[2], sys.stdin.readline().strip())
