"""Signs of life: /healthz, /readyz, and /metrics in Prometheus' text format."""

from __future__ import annotations

import os
import time
from functools import lru_cache

from flask import Blueprint, Request, Response, current_app, jsonify, request
from prometheus_client import (
    CONTENT_TYPE_LATEST,
    REGISTRY,
    CollectorRegistry,
    Counter,
    Histogram,
    generate_latest,
)
from prometheus_client.multiprocess import MultiProcessCollector

from anchorline.store.database import StoreError
from anchorline.store.migrate import is_migrated

from .context import Services
from .edge import ARRIVED
from .logs import logger

REQUESTS = Counter(
    "anchorline_requests_total", "Requests answered", ["endpoint", "method", "status"]
)
SECONDS = Histogram(
    "anchorline_request_seconds",
    "Seconds from a request's arrival to its answer",
    ["endpoint"],
    buckets=(0.001, 0.0025, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10),
)

# Asked at every keystroke, or by watchers all the time.
_QUIET = frozenset({"finding.suggest", "pages.assets", "pages.embed", "health.alive",
                    "health.ready", "health.metrics"})  # fmt: skip
_log = logger("requests")


def health_pages(services: Services) -> Blueprint:
    """The pages that watchers ask for."""
    pages = Blueprint("health", __name__)

    @pages.get("/healthz")
    def alive() -> Response:
        return jsonify(alive=True)

    @pages.get("/readyz")
    def ready() -> tuple[Response, int]:
        states = {"database": False, "migrations": False, "editions": False}
        try:
            services.database.ping()
            states["database"] = True
            states["migrations"] = is_migrated(services.database)
            states["editions"] = bool(services.gazetteer.current().editions)
        except StoreError:
            pass
        everything = all(states.values())
        return jsonify(ready=everything, **states), 200 if everything else 503

    @pages.get("/metrics")
    def metrics() -> Response:
        registry = REGISTRY
        if "PROMETHEUS_MULTIPROC_DIR" in os.environ:
            registry = CollectorRegistry()
            MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
        return Response(generate_latest(registry), content_type=CONTENT_TYPE_LATEST)

    return pages


# Looking a metric up by its labels costs more than counting does.
_counter = lru_cache(maxsize=1024)(REQUESTS.labels)
_histogram = lru_cache(maxsize=1024)(SECONDS.labels)


def count_answer(endpoint: str, method: str, status: int, seconds: float) -> None:
    """Counts and times one answer."""
    _counter(endpoint, method, status).inc()
    _histogram(endpoint).observe(seconds)


def count_requests() -> None:
    """Counts, times and logs every request of the application."""
    app = current_app

    @app.after_request
    def _end(response: Response) -> Response:
        asked: Request = request._get_current_object()  # type: ignore[attr-defined]
        endpoint, method = asked.endpoint or "none", asked.method
        seconds = time.perf_counter() - asked.environ[ARRIVED]
        count_answer(endpoint, method, response.status_code, seconds)
        if endpoint in _QUIET:
            return response
        # The endpoint's name and not the path: that holds what was asked for.
        _log.info(
            "answered",
            endpoint=endpoint,
            method=method,
            status=response.status_code,
            ms=round(seconds * 1000, 1),
        )
        return response
