"""The fast path: a call of every keystroke is answered by its handler without Flask around it.

Routing, contexts, hooks and response objects would cost a keystroke more than its search does. A
request to an endpoint declared `fast` is dispatched as all others are (`endpoints.dispatch`), and
what goes wrong is answered by the same problem; only Flask is not asked. Requests for other
addresses, or with other methods, are handed to the application.
"""

from __future__ import annotations

from collections.abc import Iterable
from http import HTTPStatus
from time import perf_counter
from typing import TYPE_CHECKING

from flask import Request

from .context import Services
from .endpoints import API, ApiResponse, Router, dispatch, serialized
from .metrics import Metrics
from .middleware import ARRIVED
from .problems import problem_of, problem_response

if TYPE_CHECKING:
    from _typeshed.wsgi import StartResponse, WSGIApplication, WSGIEnvironment

_STATUS_LINES = {status.value: f"{status.value} {status.phrase.upper()}" for status in HTTPStatus}


class FastPath:
    """Answers requests to `fast` endpoints; hands on all others."""

    def __init__(
        self,
        application: WSGIApplication,
        routers: Iterable[Router],
        services: Services,
        metrics: Metrics,
    ) -> None:
        self._application, self._services, self._metrics = application, services, metrics
        self._endpoints = {
            API + endpoint.rule: (f"{router.name}.{endpoint.name}", endpoint)
            for router in routers
            for endpoint in router.endpoints
            if endpoint.fast
        }

    def __call__(self, environ: WSGIEnvironment, start_response: StartResponse) -> Iterable[bytes]:
        """One request, as WSGI has it."""
        name, endpoint = self._endpoints.get(environ["PATH_INFO"], ("", None))
        if endpoint is None or environ["REQUEST_METHOD"] != endpoint.method:
            return self._application(environ, start_response)
        try:
            response = dispatch(endpoint, self._services, _request(environ), {})
        except Exception as error:
            response = _problem(error)
        headers, body = serialized(response)
        if body:
            headers["Content-Length"] = str(len(body))
        seconds = perf_counter() - environ[ARRIVED]
        self._metrics.count(name, endpoint.method, response.status, seconds)
        self._services.activity.note(environ, name, response.status, seconds * 1000, lambda: body)
        start_response(_STATUS_LINES[response.status], list(headers.items()))
        return [body]


def _request(environ: WSGIEnvironment) -> Request:
    return Request(environ, populate_request=False)


def _problem(error: Exception) -> ApiResponse:
    answer = problem_response(problem_of(error))
    return ApiResponse(
        None, status=answer.status_code, headers=dict(answer.headers), body=answer.get_data()
    )
