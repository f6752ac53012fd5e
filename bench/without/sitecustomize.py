"""Takes one thing out of a service that is started with this folder in PYTHONPATH.

Python imports this at its start. BENCH_WITHOUT names it; see `bench.shortcuts`.
"""

from __future__ import annotations

import os


def _fast_path() -> None:
    from anchorline.service.fast_path import FastPath

    FastPath.__call__ = lambda self, environ, start: self._application(environ, start)  # type: ignore[method-assign]


def _recent_answers() -> None:
    from anchorline.service.recent_answers import RecentAnswers

    RecentAnswers.get = lambda *_: None  # type: ignore[method-assign]
    RecentAnswers.put = lambda *_: None  # type: ignore[method-assign]


def _one_piece() -> None:
    from waitress.task import Task

    from anchorline.service.serving.connection import _OnePiece

    _OnePiece.write = Task.write  # type: ignore[method-assign]


def _even_connections() -> None:
    from anchorline.service.serving import server

    server._EVEN_ENOUGH = 1 << 30


def _counting() -> None:
    from anchorline.service.activity import Activity
    from anchorline.service.metrics import Metrics

    Activity.note = lambda *_: None  # type: ignore[method-assign]
    Metrics.count = lambda *_: None  # type: ignore[method-assign]


SHORTCUTS = {
    "fast path": _fast_path,
    "recent answers": _recent_answers,
    "head and body in one packet": _one_piece,
    "even connections": _even_connections,
}
# No shortcut, but what is done at every keystroke beside its answer.
TAKEN_OUT = {**SHORTCUTS, "counting and timing": _counting}
if os.environ.get("BENCH_WITHOUT"):
    TAKEN_OUT[os.environ["BENCH_WITHOUT"]]()
