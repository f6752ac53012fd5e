"""Health: /healthz, /readyz, and /metrics in Prometheus' text format."""

from __future__ import annotations

import time

from flask import Blueprint, Request, Response, current_app, jsonify, request
from prometheus_client import CONTENT_TYPE_LATEST

from anchorline.store.database import StoreError
from anchorline.store.migrate import is_migrated

from .activity import Activity
from .context import Services
from .endpoints import API
from .logs import logger
from .metrics import METHODS, NONE, OTHER, Metrics
from .middleware import ARRIVED

# Asked for at every keystroke, or by watchers all the time.
_QUIET = frozenset({"finding.suggest", "pages.assets", "pages.embed", "health.alive",
                    "health.ready", "health.metrics"})  # fmt: skip
_log = logger("requests")


def health_pages(services: Services) -> Blueprint:
    """The pages that watchers ask for."""
    pages = Blueprint("health", __name__)
    instance = services.settings.instance()

    @pages.get("/healthz")
    def alive() -> Response:
        return jsonify(alive=True, instance=instance)

    @pages.get("/readyz")
    def ready() -> tuple[Response, int]:
        states = {"database": False, "migrations": False, "editions": False}
        try:
            services.database.ping()
            states["database"] = True
            states["migrations"] = is_migrated(services.database)
        except StoreError:
            pass
        states["editions"] = bool(services.gazetteer.current().editions)
        everything = all(states.values())
        return jsonify(ready=everything, **states), 200 if everything else 503

    @pages.get("/metrics")
    def metrics() -> Response:
        counted: Metrics = current_app.extensions["metrics"]
        return Response(counted.text(), content_type=CONTENT_TYPE_LATEST)

    return pages


def count_requests(metrics: Metrics, activity: Activity) -> None:
    """Counts, times and logs every request of the application; those of the API are noted."""
    app = current_app
    app.extensions["metrics"] = metrics

    @app.after_request
    def _end(response: Response) -> Response:
        current: Request = request._get_current_object()  # type: ignore[attr-defined]
        endpoint = current.endpoint or NONE
        method = current.method if current.method in METHODS else OTHER
        seconds = time.perf_counter() - current.environ[ARRIVED]
        metrics.count(endpoint, method, response.status_code, seconds)
        if current.path.startswith(f"{API}/"):
            body = (lambda: b"") if response.is_streamed else response.get_data
            activity.note(current.environ, endpoint, response.status_code, seconds * 1000, body)
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
