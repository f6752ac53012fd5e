"""Sending requests: retries where they are safe, problems as exceptions."""

from __future__ import annotations

import random
import time
from collections.abc import Callable, Iterator, Mapping
from http import HTTPStatus
from typing import Any

import httpx
from pydantic import BaseModel, ValidationError
from pydantic_core import PydanticSerializationError

from anchorline.wire.problems import ProblemAnswer

from .errors import UnreachableError, WrongArgumentError, error_of

RETRY_STATUSES = frozenset({429, 502, 503, 504})
LONGEST_PAUSE = 20.0
_FIRST_PAUSE = 0.2


class Transport:
    """One connection pool to one service.

    Args:
        url: the service's address.
        key: a server or browser key.
        tries: how often a request is sent at most, where sending it again is safe.
        timeout: seconds for a whole answer.
        http: a transport of one's own, for tests.
        sleep: how to wait, for tests.

    Raises:
        WrongArgumentError: the address or the key cannot be one.
    """

    def __init__(
        self,
        url: str,
        key: str | None,
        *,
        tries: int = 4,
        timeout: float = 10.0,
        http: httpx.BaseTransport | None = None,
        sleep: Callable[[float], None] = time.sleep,
    ) -> None:
        headers = {"Accept": "application/json, application/problem+json"}
        if key:
            headers["Authorization"] = f"Bearer {_plain_key(key)}"
        url = _web_address(url)
        self._http = httpx.Client(
            base_url=url.rstrip("/") + "/api/v1/",
            headers=headers,
            timeout=timeout,
            transport=http,
            trust_env=False,
        )
        self._url, self._tries, self._sleep = url, tries, sleep
        self._timeout = timeout

    def close(self) -> None:
        """Closes all connections."""
        self._http.close()

    def send(
        self,
        method: str,
        path: str,
        *,
        query: Mapping[str, object] | None = None,
        body: BaseModel | None = None,
        headers: Mapping[str, str] | None = None,
        content: Callable[[], Iterator[bytes]] | None = None,
        repeatable: bool | None = None,
        seconds: float = 0.0,
    ) -> httpx.Response:
        """Sends a request and returns its successful answer.

        Args:
            query: parameters; those that are None are left out.
            content: makes the pieces of a body that is no JSON, anew for every try.
            repeatable: whether it may be sent again; by default every GET may.
            seconds: how much longer than usual its answer may take.

        Raises:
            WrongArgumentError: a text cannot be sent; nothing was.
            UnreachableError: nothing answers, even after the retries.
            ProblemError: the service answered with a problem.
        """
        timeout = httpx.Timeout(self._timeout, read=self._timeout + seconds)
        may_repeat = method == "GET" if repeatable is None else repeatable
        for attempt in range(1, self._tries + 1):
            last = not may_repeat or attempt == self._tries
            try:
                request = self._request(method, path, query, body, headers, content)
            except (UnicodeError, PydanticSerializationError, httpx.InvalidURL) as error:
                raise WrongArgumentError(f"A text cannot be sent: {error}") from error
            request.extensions["timeout"] = timeout.as_dict()
            try:
                response = self._http.send(request)
            except httpx.TransportError as error:
                if last:
                    raise UnreachableError(
                        f"Nothing answers at {self._url}: {error}. Is the service running?"
                    ) from error
                self._sleep(_pause(attempt, None))
                continue
            if response.is_success:
                return response
            if last or not _passes(response):
                raise error_of(_problem(response))
            self._sleep(_pause(attempt, response.headers.get("Retry-After")))
        raise AssertionError("unreachable: the last attempt returns or raises")

    def _request(
        self,
        method: str,
        path: str,
        query: Mapping[str, object] | None,
        body: BaseModel | None,
        headers: Mapping[str, str] | None,
        content: Callable[[], Iterator[bytes]] | None,
    ) -> httpx.Request:
        sent: str | Iterator[bytes] | None = content() if content is not None else None
        if body is not None:
            sent = body.model_dump_json(exclude_none=True)
        return self._http.build_request(
            method,
            path,
            params={k: _as_text(v) for k, v in (query or {}).items() if v is not None},
            content=sent,
            headers={**(headers or {}), **({"Content-Type": "application/json"} if body else {})},
        )


def _web_address(url: str) -> str:
    """A service's address that can be called."""
    given = (url or "").strip()
    try:
        parsed = httpx.URL(given)
    except (httpx.InvalidURL, UnicodeError):
        parsed = httpx.URL("")
    if parsed.scheme not in ("http", "https") or not parsed.host:
        said = f"{given!r} is no address of a service" if given else "No address of a service"
        raise WrongArgumentError(f"{said}: give one such as http://127.0.0.1:8470.")
    return given


def _plain_key(key: str) -> str:
    if not (key.isascii() and key.isprintable() and " " not in key):
        raise WrongArgumentError(
            "The key has characters that no key has; copy it again. It begins with anl_."
        )
    return key


def _passes(response: httpx.Response) -> bool:
    """Whether what an answer says is over soon; an allowance that is used up names no time."""
    if response.status_code == 429 and "Retry-After" not in response.headers:
        return False
    return response.status_code in RETRY_STATUSES


def _pause(attempt: int, retry_after: str | None) -> float:
    """Seconds before the next try: what the service asks for, else doubling with jitter."""
    if retry_after is not None and retry_after.isdecimal():
        return min(float(retry_after), LONGEST_PAUSE)
    longest = min(_FIRST_PAUSE * 2.0 ** (attempt - 1), LONGEST_PAUSE)
    return longest * random.uniform(0.5, 1.0)  # noqa: S311


def _as_text(value: object) -> Any:
    if isinstance(value, bool):
        return "true" if value else "false"
    if isinstance(value, list | tuple):
        return ",".join(map(str, value))
    return value


def _problem(response: httpx.Response) -> ProblemAnswer:
    """The problem of an answer; one of our making where something else answered."""
    try:
        return ProblemAnswer.model_validate_json(response.content)
    except ValidationError:
        known = [s.value for s in HTTPStatus]
        title = HTTPStatus(response.status_code).phrase if response.status_code in known else "?"
        detail = f"The service answered {response.status_code} without saying why."
        return ProblemAnswer(title=title, status=response.status_code, detail=detail)
