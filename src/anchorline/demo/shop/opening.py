"""Opening the shop: its target and its key, set up through the client, and its process."""

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import time
from contextlib import suppress
from importlib import resources
from pathlib import Path

from anchorline.client import Client, NotFoundError, PageTargetDocument
from anchorline.private_files import write_whole
from anchorline.yaml_documents import read_yaml

from ..process import DemoError, folder

TARGET = "checkout"
# Seen from the service's port; the one between is the database's.
_AWAY = 2
_OPENS_SECONDS = 60


def target_document(origin: str) -> PageTargetDocument:
    """The target of the shop's checkout."""
    text = (resources.files(__package__) / "checkout.yaml").read_text("utf-8")
    return PageTargetDocument.model_validate({**read_yaml(text), "origins": [origin]})


def open_shop(client: Client, service: str, *, tied: bool = False) -> subprocess.Popen[bytes]:
    """Sets up the shop's target and key, and starts its process.

    Args:
        tied: it ends when this process ends, however that comes.
    """
    port = _port(int(service.rsplit(":", 1)[1]) + _AWAY)
    origin = f"http://127.0.0.1:{port}"
    _publish(client, target_document(origin))
    secret = _key(client, origin)
    tie = ["setpriv", "--pdeathsig", "TERM", "--"] if tied else []
    process = subprocess.Popen(
        [*tie, sys.executable, "-m", "anchorline.demo.shop.serving", str(port), service],
        stdin=subprocess.PIPE,
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
        start_new_session=True,
    )
    assert process.stdin is not None
    process.stdin.write(f"{secret}\n".encode())
    process.stdin.close()
    (folder() / "shop.pid").write_text(str(process.pid))
    _wait_until_open(process, port)
    return process


def _wait_until_open(process: subprocess.Popen[bytes], port: int) -> None:
    """Until the shop answers; DemoError where it does not."""
    deadline = time.monotonic() + _OPENS_SECONDS
    while process.poll() is None and time.monotonic() < deadline:
        with suppress(OSError), socket.create_connection(("127.0.0.1", port), timeout=1):
            return
        time.sleep(0.05)
    raise DemoError(f"The shop does not open on port {port}.")


def shop_url() -> str:
    """Where the shop was opened last."""
    return str(json.loads(_kept().read_text())["origin"])


def running_shop() -> int | None:
    """The shop's process, if it runs."""
    try:
        pid = int((folder() / "shop.pid").read_text())
        command = Path(f"/proc/{pid}/cmdline").read_bytes()
    except (OSError, ValueError):
        return None
    return pid if b"anchorline.demo.shop" in command else None


def _publish(client: Client, document: PageTargetDocument) -> None:
    try:
        draft, etag = client.targets.draft(TARGET)
    except NotFoundError:
        client.targets.put_draft(document)
    else:
        # What somebody has tried out stays; only where the shop is may differ.
        kept = draft.document
        if not isinstance(kept, PageTargetDocument):
            return
        if kept.origins == document.origins and draft.summary.published_version:
            return
        moved = kept.model_copy(update={"origins": document.origins})
        client.targets.put_draft(moved, etag)
    client.targets.publish(TARGET)


def _key(client: Client, origin: str) -> str:
    """The shop's key: the one it has, unless it is for another origin or ended."""
    in_use = {key.id for key in client.keys.list() if key.state == "in_use"}
    if _kept().exists():
        kept = json.loads(_kept().read_text())
        if kept["origin"] == origin and kept["id"] in in_use:
            return str(kept["secret"])
        if kept["id"] in in_use:
            client.keys.end(kept["id"])
    made = client.keys.make("browser", "Felt & Hammer", origins=[origin], targets=[TARGET])
    kept = {"origin": origin, "id": made.key.id, "secret": made.secret}
    write_whole(_kept(), json.dumps(kept).encode())
    return made.secret


def _kept() -> Path:
    return folder() / "shop.json"


def _port(wanted: int) -> int:
    """The port that is wanted, or one that is free."""
    for port in (wanted, 0):
        with socket.socket() as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind(("127.0.0.1", port))
            except OSError:
                continue
            return int(probe.getsockname()[1])
    raise OSError(f"No port is free on {os.uname().nodename}.")
