"""Structured logs: for people on a terminal, JSON elsewhere.

Nothing above debug level holds what people typed; no level holds a secret. Of an exception the log
has its kind and where it came from and never its text: what somebody typed may stand in that.
Values go through structlog's renderers, which escape line breaks, so that nothing typed can forge
a line. A log that cannot be written (a full disk) is no reason for anything else to fail.
"""

from __future__ import annotations

import logging
import sys
import threading
import traceback
from contextlib import suppress
from types import TracebackType
from typing import Any, TextIO

import structlog

_SECRET_WORDS = ("password", "secret", "token", "authorization", "cookie", "key")


def set_up_logs(level: str) -> None:
    """Sets up logging for the process: ours, the libraries', and what nobody caught."""
    on_terminal = sys.stderr.isatty()
    structlog.configure(
        processors=[
            structlog.contextvars.merge_contextvars,
            structlog.processors.add_log_level,
            structlog.processors.TimeStamper(fmt="iso", utc=True),
            _hide_secrets,
            _without_texts,
            structlog.dev.ConsoleRenderer() if on_terminal else structlog.processors.JSONRenderer(),
        ],
        wrapper_class=structlog.make_filtering_bound_logger(getattr(logging, level.upper())),
        # A line and its end in one write: the processes of the service share one log, and with
        # two writes another's line can come between them.
        logger_factory=structlog.WriteLoggerFactory(_Forgiving(sys.stderr)),  # type: ignore[arg-type]
        cache_logger_on_first_use=True,
    )
    logging.basicConfig(level=logging.WARNING, handlers=[_Libraries()], force=True)
    sys.excepthook = _uncaught
    threading.excepthook = lambda given: _uncaught(
        given.exc_type, given.exc_value, given.exc_traceback
    )


def logger(name: str) -> Any:
    """A logger that says which part of the service it speaks for."""
    return structlog.get_logger(part=name)


class _Forgiving:
    """A stream whose writing may fail without anybody noticing but those who read it."""

    def __init__(self, stream: TextIO) -> None:
        self._stream = stream

    def write(self, text: str) -> None:
        with suppress(OSError, ValueError):
            self._stream.write(text)

    def flush(self) -> None:
        with suppress(OSError, ValueError):
            self._stream.flush()


class _Libraries(logging.Handler):
    """What libraries log, as lines of ours: who said it and of which error, not what."""

    def emit(self, record: logging.LogRecord) -> None:
        failure = record.exc_info[1] if record.exc_info else None
        logger("libraries").warning(
            "a library reports", library=record.name, line=record.lineno, exc_info=failure
        )


def _uncaught(
    kind: type[BaseException], error: BaseException | None, _trace: TracebackType | None
) -> None:
    if issubclass(kind, KeyboardInterrupt):
        return
    logger("process").critical("unexpected end", exc_info=error)


def _hide_secrets(_logger: Any, _method: str, event: Any) -> Any:
    for name in event:
        if any(word in name.lower() for word in _SECRET_WORDS):
            event[name] = "hidden"
    return event


def _without_texts(_logger: Any, _method: str, event: Any) -> Any:
    """Puts in place of an exception its kind, those behind it, and where each came from."""
    error = event.pop("exc_info", None)
    if error is True:
        error = sys.exc_info()[1]
    if isinstance(error, BaseException):
        event["exception"] = _kinds_and_places(error)
    return event


def _kinds_and_places(error: BaseException | None) -> list[str]:
    said: list[str] = []
    seen: set[int] = set()
    while error is not None and id(error) not in seen:
        seen.add(id(error))
        said.append(f"{type(error).__module__}.{type(error).__name__}")
        frames = traceback.extract_tb(error.__traceback__)
        said += [f"  {f.filename}:{f.lineno} in {f.name}" for f in frames]
        error = error.__cause__ or (None if error.__suppress_context__ else error.__context__)
    return said
