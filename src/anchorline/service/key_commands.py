"""The operator's commands on keys: make, list, end."""

from __future__ import annotations

import argparse
import re
import sys
from urllib.parse import urlsplit

from anchorline.core.errors import nearest_names, unknown_name_detail
from anchorline.store.forms import FormStore
from anchorline.store.keys import ApiKey, KeyStore

_HOST = re.compile(r"[a-z0-9]([a-z0-9.-]*[a-z0-9])?|\[[0-9a-f:.]+\]")
_USUAL_PORTS = {"http": 80, "https": 443}


class OriginError(ValueError):
    """What was given is no web origin; the message says what one is."""


def web_origin(text: str) -> str:
    """A web origin as browsers send it (RFC 6454): scheme, host, and a port that is not the usual.

    Raises:
        OriginError: it is none, or has more than that.
    """
    given = text.strip()
    try:
        parts = urlsplit(given)
        host, port = (parts.hostname or "").lower(), parts.port
    except ValueError:
        parts, host, port = urlsplit(""), "", None
    if parts.scheme not in _USUAL_PORTS or not _HOST.fullmatch(_bracketed(host)):
        raise OriginError(
            f"{given!r} is no web origin: it is scheme, host and perhaps port, such as "
            "https://shop.example or http://localhost:3000."
        )
    usual = port is None or port == _USUAL_PORTS[parts.scheme]
    origin = f"{parts.scheme}://{_bracketed(host)}" + ("" if usual else f":{port}")
    if parts.path not in ("", "/") or parts.query or parts.fragment or parts.username is not None:
        raise OriginError(
            f"{given!r} is more than a web origin, which has no path: write {origin}."
        )
    return origin


def make_key(keys: KeyStore, forms: FormStore, given: argparse.Namespace) -> int:
    """Makes the key that a command line asks for and prints it; returns the exit status."""
    origins, faults = _origins(given.origin)
    faults += _faults(forms, given)
    if faults:
        print("\n".join(faults), file=sys.stderr)
        return 2
    of_forms = tuple(dict.fromkeys(given.form))
    print(keys.create(given.kind, given.name, origins=origins, forms=of_forms))
    return 0


def list_keys(keys: KeyStore) -> int:
    """Prints all keys, without their secrets; returns the exit status."""
    found = keys.list()
    for key in found:
        print(_line(key))
    if not found:
        print("There are no keys yet.", file=sys.stderr)
    return 0


def end_key(keys: KeyStore, identifier: str) -> int:
    """Ends a key for good; returns the exit status."""
    known = {key.id: key for key in keys.list()}
    key = known.get(identifier)
    if key is None:
        nearest = nearest_names(identifier, known)
        print(unknown_name_detail("key", identifier, nearest), file=sys.stderr)
        return 3
    if key.ended:
        print(f"The key {identifier} ({key.name}) was ended before.")
        return 0
    keys.end(identifier)
    print(f"The key {identifier} ({key.name}) is ended: within seconds nobody can use it any more.")
    return 0


def _origins(given: list[str]) -> tuple[tuple[str, ...], list[str]]:
    origins: dict[str, None] = {}
    faults = []
    for text in given:
        try:
            origins[web_origin(text)] = None
        except OriginError as error:
            faults.append(str(error))
    return tuple(origins), faults


def _faults(forms: FormStore, given: argparse.Namespace) -> list[str]:
    if given.kind == "server":
        tied = given.origin or given.form
        return ["A server key is not tied to origins or forms; make a browser key."] if tied else []
    faults = []
    if not given.origin:
        faults.append("A browser key needs the web origins of its pages: --origin https://…")
    if not given.form:
        faults.append("A browser key needs the forms that it may be used for: --form KEY")
    known = [entry.key for entry in forms.list()]
    faults += [
        unknown_name_detail("form", key, nearest_names(key, known))
        for key in given.form
        if key not in known
    ]
    return faults


def _line(key: ApiKey) -> str:
    made = key.created_at.strftime("%Y-%m-%d %H:%M") if key.created_at else ""
    tied = [f"from {', '.join(key.origins)}"] if key.origins else []
    tied += [f"for {', '.join(key.forms)}"] if key.forms else []
    state = "ended" if key.ended else "in use"
    return "  ".join([key.id, f"{key.kind:7}", f"made {made} UTC", f"{state:6}", key.name, *tied])


def _bracketed(host: str) -> str:
    return f"[{host}]" if ":" in host else host
