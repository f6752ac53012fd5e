"""Which request bodies are accepted: how large at each address and, if large, from whom."""

from __future__ import annotations

import re
import tempfile
from collections.abc import Callable, Iterable
from pathlib import Path

from flask import Request

from .context import Services
from .endpoints import API, Endpoint, Router
from .problems import problem_of
from .serving.limits import Refusal
from .settings import Settings
from .space import free_bytes

# For addresses that take no body: some programs send an empty object all the same.
NO_BODY = 1_024
_PART = re.compile(r"<(path:)?\w+>")


class Bodies:
    """Finds the endpoint of a request by its method and path, before the application does."""

    def __init__(self, routers: Iterable[Router], settings: Settings) -> None:
        self._settings = settings
        self._patterns = [
            (endpoint.method, _pattern(endpoint.rule), endpoint)
            for router in routers
            for endpoint in router.endpoints
            if endpoint.body is not None or endpoint.upload
        ]

    def endpoint(self, method: str, path: str) -> Endpoint | None:
        """The endpoint that takes a body at this address."""
        for of_method, pattern, endpoint in self._patterns:
            if of_method == method and pattern.fullmatch(path):
                return endpoint
        return None

    def largest(self, method: str, path: str) -> int:
        """The most bytes that a body may have there."""
        endpoint = self.endpoint(method, path)
        if endpoint is None:
            return NO_BODY
        if endpoint.upload:
            return self._settings.max_upload
        return min(endpoint.largest_body or self._settings.max_body, self._settings.max_body)

    def room(self) -> int:
        """Bytes that temporary files of bodies may take."""
        return free_bytes(Path(tempfile.gettempdir())) - self._settings.reserved_space

    def admission(self, services: Services) -> Callable[[dict[str, object]], Refusal | None]:
        """Looks who sends a large body, before it is taken in."""

        def admit(environ: dict[str, object]) -> Refusal | None:
            request = Request(environ, populate_request=False)
            endpoint = self.endpoint(request.method, request.path)
            if endpoint is None:
                return None
            try:
                services.gate.authorize(request, endpoint.access, endpoint.scopes, counted=False)
            except Exception as error:
                problem = problem_of(error)
                return problem.status, problem.detail, problem.headers
            return None

        return admit


def _pattern(rule: str) -> re.Pattern[str]:
    pieces = _PART.split(rule)
    # Two pieces of text with what the part's kind was between them.
    texts, kinds = pieces[::2], pieces[1::2]
    parts = [".+" if kind else "[^/]+" for kind in kinds]
    escaped = [re.escape(text) for text in texts]
    return re.compile(API + "".join(a + b for a, b in zip(escaped, [*parts, ""], strict=True)))
