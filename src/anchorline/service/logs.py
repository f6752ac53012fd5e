"""Structured logs: for people on a terminal, JSON elsewhere.

Nothing above debug level holds what people typed; no level holds a secret. Values go through
structlog's renderers, which escape line breaks, so that nothing typed can forge a line.
"""

from __future__ import annotations

import logging
import sys
from typing import Any

import structlog

_SECRET_WORDS = ("password", "secret", "token", "authorization", "cookie", "key")


def set_up_logs(level: str) -> None:
    """Sets up logging for the process."""
    on_terminal = sys.stderr.isatty()
    structlog.configure(
        processors=[
            structlog.contextvars.merge_contextvars,
            structlog.processors.add_log_level,
            structlog.processors.TimeStamper(fmt="iso", utc=True),
            _hide_secrets,
            structlog.processors.format_exc_info,
            structlog.dev.ConsoleRenderer() if on_terminal else structlog.processors.JSONRenderer(),
        ],
        wrapper_class=structlog.make_filtering_bound_logger(getattr(logging, level.upper())),
        # A line and its end in one write: the processes of the service share one log, and with
        # two writes another's line can come between them.
        logger_factory=structlog.WriteLoggerFactory(sys.stderr),
        cache_logger_on_first_use=True,
    )


def logger(name: str) -> Any:
    """A logger that says which area it speaks for."""
    return structlog.get_logger(area=name)


def _hide_secrets(_logger: Any, _method: str, event: Any) -> Any:
    for name in event:
        if any(word in name.lower() for word in _SECRET_WORDS):
            event[name] = "hidden"
    return event
