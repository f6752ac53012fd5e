"""Where the service is and with which key: environment first, then the settings file."""

from __future__ import annotations

import json
import os
import tomllib
from dataclasses import dataclass
from pathlib import Path

from platformdirs import user_config_path

from anchorline.private_files import write_whole

from .exit_codes import GivenWrongError


class NotConnectedError(Exception):
    """Nobody has said which service is meant."""


@dataclass(frozen=True, slots=True)
class Connection:
    """A service's address and a key for it."""

    url: str
    key: str | None


def settings_file() -> Path:
    """The settings file, such as `~/.config/anchorline/settings.toml`."""
    return user_config_path("anchorline") / "settings.toml"


def read_connection() -> Connection:
    """The connection of the environment (ANCHORLINE_URL, ANCHORLINE_KEY) or the settings file.

    Raises:
        NotConnectedError: neither names a service.
        GivenWrongError: the settings file cannot be read.
    """
    kept: dict[str, str] = {}
    path = settings_file()
    try:
        kept = tomllib.loads(path.read_text("utf-8"))
    except FileNotFoundError:
        pass
    except (OSError, ValueError) as error:
        raise GivenWrongError(
            f"{path} cannot be read: {error}. Mend it, or write it anew: anchorline connect"
        ) from error
    url = os.environ.get("ANCHORLINE_URL") or kept.get("url")
    if not url:
        raise NotConnectedError(
            "Not connected to a service yet. Run: anchorline connect ACCESS.json (on the demo: "
            "var/demo/access.json), or set ANCHORLINE_URL and ANCHORLINE_KEY."
        )
    return Connection(url, os.environ.get("ANCHORLINE_KEY") or kept.get("key"))


def write_connection(connection: Connection) -> Path:
    """Keeps a connection in the settings file, readable by its owner only."""
    path = settings_file()
    path.parent.mkdir(parents=True, exist_ok=True)
    # JSON strings are TOML strings.
    lines = [f"url = {json.dumps(connection.url)}", f"key = {json.dumps(connection.key or '')}"]
    write_whole(path, ("\n".join(lines) + "\n").encode())
    return path
