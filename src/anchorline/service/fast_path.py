"""The fast path: a call of every keystroke is answered by its handler without Flask around it.

Routing, contexts, hooks and response objects would cost a keystroke more than its search does. A
plain request to an endpoint declared `fast` is authorized by the same gate and answered by the
same handler as any other. A request that is refused, wrong or fails is handed to the application,
which starts on it from the beginning and answers it.
"""

from __future__ import annotations

from collections.abc import Iterable
from http import HTTPStatus
from time import perf_counter
from typing import TYPE_CHECKING

from flask import Request

from .context import Services
from .endpoints import API, ApiRequest, ApiResponse, Endpoint, Router, check_headers, serialized
from .metrics import Metrics
from .middleware import ARRIVED

if TYPE_CHECKING:
    from _typeshed.wsgi import StartResponse, WSGIApplication, WSGIEnvironment

_STATUS_LINES = {status.value: f"{status.value} {status.phrase.upper()}" for status in HTTPStatus}


class FastPath:
    """Answers plain requests to `fast` endpoints; hands on all others."""

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
            response = self._response(endpoint, environ)
        except Exception:  # the application meets it again, and answers with the problem
            return self._application(environ, start_response)
        headers, body = serialized(response)
        if body:
            headers["Content-Length"] = str(len(body))
        seconds = perf_counter() - environ[ARRIVED]
        self._metrics.count(name, endpoint.method, response.status, seconds)
        start_response(_STATUS_LINES[response.status], list(headers.items()))
        return [body]

    def _response(self, endpoint: Endpoint, environ: WSGIEnvironment) -> ApiResponse:
        request = Request(environ, populate_request=False)
        caller = self._services.gate.authorize(request, endpoint.access, often=True)
        check_headers(endpoint, request.headers)
        answer = endpoint.handler(ApiRequest(self._services, caller, {}, request))
        return answer if isinstance(answer, ApiResponse) else ApiResponse(answer)
