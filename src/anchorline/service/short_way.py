"""The short way: what is asked at every keystroke, answered by its handler without Flask around.

Routing, contexts, hooks and response objects would cost a keystroke more than its search does. A
plain request to an endpoint declared `every_key` is let in by the same gate and answered by the
same handler as on the usual way. Whatever is not plain (somebody who is refused, a query that is
not as it should be, a failure) goes the usual way from its beginning, and is answered there.
"""

from __future__ import annotations

from collections.abc import Iterable
from http import HTTPStatus
from time import perf_counter
from typing import TYPE_CHECKING

from flask import Request

from .context import Services
from .edge import ARRIVED
from .endpoints import API, Area, Call, Endpoint, Reply, check_headers, written
from .metrics import Metrics

if TYPE_CHECKING:
    from _typeshed.wsgi import StartResponse, WSGIApplication, WSGIEnvironment

_STATUS_LINES = {status.value: f"{status.value} {status.phrase.upper()}" for status in HTTPStatus}


class ShortWay:
    """Answers plain requests to endpoints of every keystroke; hands on all others."""

    def __init__(
        self,
        application: WSGIApplication,
        areas: Iterable[Area],
        services: Services,
        metrics: Metrics,
    ) -> None:
        self._application, self._services, self._metrics = application, services, metrics
        self._endpoints = {
            API + endpoint.rule: (f"{area.name}.{endpoint.name}", endpoint)
            for area in areas
            for endpoint in area.endpoints
            if endpoint.every_key
        }

    def __call__(self, environ: WSGIEnvironment, start_response: StartResponse) -> Iterable[bytes]:
        """One request, as WSGI has it."""
        name, endpoint = self._endpoints.get(environ["PATH_INFO"], ("", None))
        if endpoint is None or environ["REQUEST_METHOD"] != endpoint.method:
            return self._application(environ, start_response)
        try:
            reply = self._reply(endpoint, environ)
        except Exception:  # the usual way meets it again, and says what it is
            return self._application(environ, start_response)
        headers, body = written(reply)
        if body:
            headers["Content-Length"] = str(len(body))
        seconds = perf_counter() - environ[ARRIVED]
        self._metrics.count(name, endpoint.method, reply.status, seconds)
        start_response(_STATUS_LINES[reply.status], list(headers.items()))
        return [body]

    def _reply(self, endpoint: Endpoint, environ: WSGIEnvironment) -> Reply:
        request = Request(environ, populate_request=False)
        caller = self._services.gate.admit(request, endpoint.access, often=True)
        check_headers(endpoint, request.headers)
        answer = endpoint.handler(Call(self._services, caller, {}, request))
        return answer if isinstance(answer, Reply) else Reply(answer)
