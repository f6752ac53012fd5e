"""The Flask application: areas, pages, problem answers, headers."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from flask import Flask, Response
from werkzeug.middleware.proxy_fix import ProxyFix

from anchorline.store.database import Database

from .areas import datasets, finding, forms, layouts, own_layouts, records, session, stand
from .context import Services, make_services
from .edge import Edge
from .endpoints import API, Area, register
from .health import count_requests, health_pages
from .metrics import Metrics
from .openapi import api_document
from .pages import site_pages
from .problems import install_problem_handlers
from .settings import Settings
from .short_way import ShortWay

AREAS: list[Area] = [
    finding.area, layouts.area, own_layouts.area, forms.area, records.area, datasets.area,
    session.area, stand.area,
]  # fmt: skip


class _Application(Flask):
    """Flask without coroutines: it would ask of every function, at every request, if it is one."""

    def ensure_sync(self, func: Callable[..., Any]) -> Callable[..., Any]:
        """The function itself: none of ours is a coroutine."""
        return func


def create_app(settings: Settings, database: Database, *, processes: int = 1) -> Flask:
    """The application on a database whose tables are there.

    Args:
        processes: how many processes will answer with it.
    """
    services = make_services(settings, database)
    app = _Application(__name__, static_folder=None)
    app.config["MAX_CONTENT_LENGTH"] = settings.max_body
    app.extensions["services"] = services
    app.url_map.merge_slashes = False
    install_problem_handlers(app)
    app.register_blueprint(health_pages(services))
    app.register_blueprint(site_pages(services))
    register(app, AREAS, services)
    _serve_document(app)
    metrics = Metrics((rule.endpoint for rule in app.url_map.iter_rules()), processes)
    with app.app_context():
        count_requests(metrics)
    short = ShortWay(app.wsgi_app, AREAS, services, metrics)
    app.wsgi_app = Edge(short)  # type: ignore[method-assign]
    if settings.https:
        app.wsgi_app = ProxyFix(app.wsgi_app)  # type: ignore[method-assign]
    return app


def services_of(app: Flask) -> Services:
    """The services that the application works with."""
    services: Services = app.extensions["services"]
    return services


def metrics_of(app: Flask) -> Metrics:
    """The counts of the application's answers."""
    metrics: Metrics = app.extensions["metrics"]
    return metrics


def _serve_document(app: Flask) -> None:
    document = api_document(AREAS)

    @app.get(f"{API}/openapi.json", endpoint="openapi", provide_automatic_options=False)
    def openapi() -> Response:
        return Response(document, content_type="application/json")
