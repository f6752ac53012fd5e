"""Observing: question and answer of calls are kept for a while, to find an error."""

from __future__ import annotations

from datetime import timedelta

from anchorline.core.errors import Problem, nearest_names, unknown_name_detail

from .caller import Caller
from .errors import InvalidError
from .services import Services

KEY = "key"


def observe(services: Services, caller: Caller, kind: str, name: str, time: timedelta) -> None:
    """Has question and answer of the calls of a key, a target or a form kept from now on.

    Args:
        kind: `key`, or a kind of document.

    Raises:
        InvalidError: there is none of that name.
    """
    known = services.keys.names() if kind == KEY else services.documents[kind].keys()
    if name not in known:
        detail = unknown_name_detail(kind, name, nearest_names(name, known))
        raise InvalidError([Problem("/name", detail)])
    services.calls.observe(kind, name, services.database.now() + time, caller.name)
