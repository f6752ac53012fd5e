"""The Flask application: routes, pages, problem answers, headers."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from flask import Flask, Response
from werkzeug.middleware.proxy_fix import ProxyFix

from anchorline.store.database import Database

from .context import Services, make_services
from .documents import FORM_API, OWN_LAYOUT_API, TARGET_API, document_router
from .endpoints import API, Router, register
from .fast_path import FastPath
from .health import count_requests, health_pages
from .mappings import MAPPING_ROUTERS
from .metrics import Metrics
from .middleware import Middleware
from .openapi import api_document
from .pages import site_pages
from .problems import install_problem_handlers
from .routes import (
    activity,
    attached_pages,
    datasets,
    finding,
    form_design,
    forms,
    formulas,
    keys,
    layouts,
    links,
    looks,
    mapping,
    overview,
    own_layouts,
    phones,
    places,
    program_targets,
    quality,
    record_changes,
    records,
    session,
    targets,
    usage,
)
from .settings import Settings

_ROUTES = (
    finding,
    layouts,
    own_layouts,
    forms,
    form_design,
    formulas,
    links,
    mapping,
    targets,
    attached_pages,
    looks,
    program_targets,
    phones,
    places,
    records,
    record_changes,
    datasets,
    session,
    keys,
    usage,
    activity,
    quality,
    overview,
)
_DOCUMENTS = (FORM_API, OWN_LAYOUT_API, TARGET_API)
ROUTERS: list[Router] = [
    *(module.router for module in _ROUTES),
    *(document_router(api) for api in _DOCUMENTS),
    *MAPPING_ROUTERS,
]


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
    register(app, ROUTERS, services)
    services.activity.endpoints = [
        f"{router.name}.{endpoint.name}" for router in ROUTERS for endpoint in router.endpoints
    ]
    _serve_document(app)
    metrics = Metrics((rule.endpoint for rule in app.url_map.iter_rules()), processes)
    with app.app_context():
        count_requests(metrics, services.activity)
    fast_path = FastPath(app.wsgi_app, ROUTERS, services, metrics)
    app.wsgi_app = Middleware(fast_path)  # type: ignore[method-assign]
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
    document = api_document(ROUTERS)

    @app.get(f"{API}/openapi.json", endpoint="openapi", provide_automatic_options=False)
    def openapi() -> Response:
        return Response(document, content_type="application/json")
