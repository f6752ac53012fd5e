"""What a key may do and from where: scopes of server keys, web origins of browser keys."""

from __future__ import annotations

import re
from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import datetime
from urllib.parse import urlsplit

from .errors import Problem, nearest_names, unknown_name_detail

KEY_KINDS: tuple[str, ...] = ("server", "browser")
# What a server key may be for, each with what it opens.
SCOPES: dict[str, str] = {
    "find": "find addresses, look them up, read layouts",
    "desk": "read and fill published program targets, tell of runs and looks at screens",
    "forms": "read forms; make, try and publish forms, mappings and layouts",
    "records": "read published forms; fill them; read and change records",
    "data": "load, compare and activate reference data",
    "administer": "read the overview, activity and usage; list, make, rotate and end keys",
    "observe": "keep and read what people type and are answered, for some hours",
}
_HOST = re.compile(r"[a-z0-9]([a-z0-9.-]*[a-z0-9])?|\[[0-9a-f:.]+\]")
_USUAL_PORTS = {"http": 80, "https": 443}


class OriginError(ValueError):
    """What was given is no web origin; the message says what one is."""


@dataclass(frozen=True, slots=True)
class WantedKey:
    """A key that is to be made.

    Attributes:
        name: what it is for.
        scopes: of a server key, keys of SCOPES.
        origins: of a browser key, as they were given.
        forms, targets: of a browser key, those that it may be used for.
        expires_at: nobody can use it from then on; None for no end.
    """

    kind: str
    name: str
    scopes: Sequence[str] = ()
    origins: Sequence[str] = ()
    forms: Sequence[str] = ()
    targets: Sequence[str] = ()
    expires_at: datetime | None = None


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


def checked_key(
    wanted: WantedKey, forms: Collection[str], targets: Collection[str], now: datetime
) -> tuple[WantedKey, list[Problem]]:
    """A key with its origins as browsers send them and nothing twice, and what is wrong with it.

    Args:
        forms, targets: the keys of all that there are.
    """
    origins: dict[str, None] = {}
    problems: list[Problem] = []
    for at, text in enumerate(wanted.origins):
        try:
            origins[web_origin(text)] = None
        except OriginError as error:
            problems.append(Problem(f"/origins/{at}", str(error)))
    problems += (
        _of_server(wanted) if wanted.kind == "server" else _of_browser(wanted, forms, targets)
    )
    if not wanted.name.strip():
        problems.append(Problem("/name", "Say what the key is for."))
    if wanted.expires_at is not None and wanted.expires_at <= now:
        problems.append(Problem("/expires_at", "This is over already: name a later time."))
    kept = WantedKey(
        wanted.kind,
        wanted.name.strip(),
        tuple(name for name in SCOPES if name in wanted.scopes),
        tuple(origins),
        tuple(dict.fromkeys(wanted.forms)),
        tuple(dict.fromkeys(wanted.targets)),
        wanted.expires_at,
    )
    return kept, problems


def _of_server(wanted: WantedKey) -> list[Problem]:
    problems = _unknown("scope", wanted.scopes, SCOPES, "/scopes")
    if not wanted.scopes:
        detail = f"Say what the key may do: one or more of {', '.join(SCOPES)}."
        problems.append(Problem("/scopes", detail))
    tied = {"origins": wanted.origins, "forms": wanted.forms, "targets": wanted.targets}
    for name, given in tied.items():
        if given:
            detail = "A server key is not tied to origins, forms or targets; make a browser key."
            problems.append(Problem(f"/{name}", detail))
    return problems


def _of_browser(
    wanted: WantedKey, forms: Collection[str], targets: Collection[str]
) -> list[Problem]:
    problems = _unknown("form", wanted.forms, forms, "/forms")
    problems += _unknown("target", wanted.targets, targets, "/targets")
    if not wanted.origins:
        detail = "A browser key needs the web origins of its pages, such as https://shop.example."
        problems.append(Problem("/origins", detail))
    if not wanted.forms and not wanted.targets:
        detail = "A browser key needs the forms or targets that it may be used for."
        problems.append(Problem("/forms", detail))
    if wanted.scopes:
        detail = "A browser key has no scopes: it finds addresses and fills what it names."
        problems.append(Problem("/scopes", detail))
    return problems


def _unknown(
    what: str, names: Sequence[str], known: Collection[str], pointer: str
) -> list[Problem]:
    return [
        Problem(f"{pointer}/{at}", unknown_name_detail(what, name, nearest_names(name, known)))
        for at, name in enumerate(names)
        if name not in known
    ]


def _bracketed(host: str) -> str:
    return f"[{host}]" if ":" in host else host
