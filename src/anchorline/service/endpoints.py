"""How an API call is declared, checked and answered: the same way for all of them.

A router declares endpoints with what they ask for and answer. For each request the steps are:
who calls, is the body what it says it is, do path, query and body match their schemas, and only
then the handler. The same declarations make the OpenAPI document, so that it cannot lie.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from typing import TypeVar

import orjson
from flask import Flask, Request, Response, request
from pydantic import BaseModel, ValidationError
from werkzeug.datastructures import Headers

from anchorline.application.caller import Caller
from anchorline.core.errors import Problem
from anchorline.wire.base import Schema

from .access import Access
from .activity import ABOUT
from .context import Services
from .json_bodies import JSON, read_body
from .problems import ProblemError, from_validation, invalid

API = "/api/v1"
LONGEST_HEADER = 200
FILE_TYPES = ("text/csv", "application/x-ndjson", "application/gzip", "application/octet-stream")
_Schema = TypeVar("_Schema", bound=BaseModel)


@dataclass(slots=True)
class ApiRequest:
    """One request, checked: what a handler works with.

    Attributes:
        path: the parts of the path, by name.
        http: the request as Flask has it.
    """

    services: Services
    caller: Caller
    path: Mapping[str, str]
    http: Request
    _body: BaseModel | None = None

    def query(self, schema: type[_Schema]) -> _Schema:
        """The query, of the schema that the endpoint declares."""
        given = self.http.args.to_dict()
        try:
            return schema.model_validate(given)
        except ValidationError as error:
            raise from_validation(error, schema, given, "?") from None

    def body(self, schema: type[_Schema]) -> _Schema:
        """The body, of the schema that the endpoint declares."""
        assert isinstance(self._body, schema)
        return self._body


@dataclass(frozen=True, slots=True)
class ApiResponse:
    """An answer with another status than 200, or with headers; `content` None for no body.

    Attributes:
        body: the content as JSON, where that was made already.
        stream: a body in pieces, where the endpoint declares a download.
        cookies: values of Set-Cookie headers.
    """

    content: Schema | None
    status: int = 200
    headers: Mapping[str, str] = field(default_factory=dict)
    body: bytes | None = None
    stream: Iterable[bytes] | None = None
    cookies: Sequence[str] = ()


Handler = Callable[[ApiRequest], "Schema | ApiResponse"]


@dataclass(frozen=True, slots=True)
class Endpoint:
    """The declaration of one call.

    Attributes:
        rule: path below the API's root, with `<name>` or `<path:name>` for its parts.
        answers: the schemas of its answers by status; None for an answer without a body.
        problems: the statuses of the problems that it answers beside the general ones.
        request_headers: headers that it reads, with what they are for.
        answer_headers: headers that it sends, with what they are for.
        upload: the body is a file, which the handler reads from the request.
        download: the media type of an answer that is not JSON.
        fast: it is called at every keystroke, and answered by `fast_path`.
        searches: it counts among searches where calls are counted for the rates, as `fast` does.
        largest_body: in bytes; None for what the settings allow.
        scopes: of which a server key has to have one.
        before: rules that it had in earlier releases, which are answered still.
    """

    method: str
    rule: str
    handler: Handler
    access: Access
    summary: str
    query: type[BaseModel] | None
    body: type[BaseModel] | None
    answers: Mapping[int, tuple[type[Schema], ...] | None]
    problems: tuple[int, ...]
    request_headers: Mapping[str, str]
    answer_headers: Mapping[str, str]
    upload: bool = False
    download: str | None = None
    fast: bool = False
    searches: bool = False
    largest_body: int | None = None
    scopes: tuple[str, ...] = ()
    before: tuple[str, ...] = ()

    @property
    def name(self) -> str:
        """The handler's name: the operation's id."""
        return self.handler.__name__


def request_header_pattern(name: str) -> str:
    """What the value of a declared request header looks like, as a regular expression."""
    return "[!-~]+" if name == "Idempotency-Key" else "[!-~]([ -~]*[!-~])?"


def check_headers(endpoint: Endpoint, headers: Headers) -> None:
    """ProblemError 422 for a declared request header that is not as the description has it."""
    for name in endpoint.request_headers:
        value = headers.get(name)
        if value is None:
            continue
        if len(value) > LONGEST_HEADER or not _header_value(name).fullmatch(value):
            blanks = ", no blanks" if name == "Idempotency-Key" else ""
            detail = (
                f"The header {name} has 1 to {LONGEST_HEADER} characters: letters, digits, "
                f"signs{blanks}."
            )
            raise invalid([Problem("", detail)])


@lru_cache(maxsize=64)
def _header_value(name: str) -> re.Pattern[str]:
    return re.compile(request_header_pattern(name))


class Router:
    """A group of endpoints: its name is their tag in the API document.

    Args:
        scopes: of which a server key has to have one, where an endpoint does not say otherwise.
    """

    def __init__(self, name: str, *scopes: str) -> None:
        self.name, self._scopes = name, scopes
        self.endpoints: list[Endpoint] = []

    def endpoint(
        self,
        method: str,
        rule: str,
        *,
        access: Access,
        answer: type[Schema] | tuple[type[Schema], ...] | None,
        status: int = 200,
        query: type[BaseModel] | None = None,
        body: type[BaseModel] | None = None,
        problems: tuple[int, ...] = (),
        request_headers: Mapping[str, str] | None = None,
        answer_headers: Mapping[str, str] | None = None,
        not_modified: bool = False,
        upload: bool = False,
        download: str | None = None,
        fast: bool = False,
        searches: bool = False,
        largest_body: int | None = None,
        scopes: tuple[str, ...] | None = None,
        before: tuple[str, ...] = (),
    ) -> Callable[[Handler], Handler]:
        """Declares an endpoint; its summary is the first line of the handler's docstring.

        Args:
            not_modified: it may answer 304 to a request with If-None-Match.
            upload: its body is a file.
            download: the media type of an answer that is not JSON.
            fast, searches: as of an `Endpoint`; what is fast is a GET whose path has no parts.
            largest_body: in bytes, where that is less than the settings allow.
            scopes: instead of the router's.
            before: rules that it had in earlier releases.
        """

        def declare(handler: Handler) -> Handler:
            schemas = answer if isinstance(answer, tuple) or answer is None else (answer,)
            self.endpoints.append(
                Endpoint(
                    method=method,
                    rule=rule,
                    handler=handler,
                    access=access,
                    summary=(handler.__doc__ or "").strip().splitlines()[0].rstrip("."),
                    query=query,
                    body=body,
                    answers={status: schemas, 304: None} if not_modified else {status: schemas},
                    problems=problems,
                    request_headers=request_headers or {},
                    answer_headers=answer_headers or {},
                    upload=upload,
                    download=download,
                    fast=fast,
                    searches=searches or fast,
                    largest_body=largest_body,
                    scopes=self._scopes if scopes is None else scopes,
                    before=before,
                )
            )
            return handler

        return declare


def register(app: Flask, routers: list[Router], services: Services) -> None:
    """Adds the routers' endpoints to the application."""
    for router in routers:
        for endpoint in router.endpoints:
            view = _view(endpoint, services)
            for rule in (endpoint.rule, *endpoint.before):
                app.add_url_rule(
                    API + rule,
                    endpoint=f"{router.name}.{endpoint.name}",
                    view_func=view,
                    methods=[endpoint.method],
                    provide_automatic_options=False,
                )


def _view(endpoint: Endpoint, services: Services) -> Callable[..., Response]:
    def view(**path: str) -> Response:
        return respond(dispatch(endpoint, services, request, path))

    return view


def dispatch(
    endpoint: Endpoint, services: Services, request: Request, path: Mapping[str, str]
) -> ApiResponse:
    """Does one call: who calls, headers, query, body, and then the handler; each once.

    Raises:
        Exception: whatever keeps it from being done; `problems.problem_of` says what to answer.
    """
    request.environ[ABOUT] = path.get("target") or path.get("form") or ""
    caller = services.gate.authorize(
        request, endpoint.access, endpoint.scopes, often=endpoint.searches
    )
    check_headers(endpoint, request.headers)
    api_request = ApiRequest(services, caller, path, request)
    if endpoint.query is None and request.args:
        raise ProblemError(422, "This call takes no query parameters.")
    if endpoint.body is not None:
        api_request._body = read_body(endpoint.body, request)
    answer = endpoint.handler(api_request)
    return answer if isinstance(answer, ApiResponse) else ApiResponse(answer)


def respond(made: ApiResponse) -> Response:
    """The HTTP response of an answer."""
    if made.stream is not None:
        return Response(made.stream, status=made.status, headers=dict(made.headers))
    headers, data = serialized(made)
    response = Response(data, status=made.status, headers=headers)
    if not data:
        response.headers.pop("Content-Type", None)
    for cookie in made.cookies:
        response.headers.add("Set-Cookie", cookie)
    return response


def serialized(response: ApiResponse) -> tuple[dict[str, str], bytes]:
    """The headers and the body of an answer that is sent whole; the body may be empty."""
    data = response.body
    if data is None and response.content is not None:
        data = as_json(response.content)
    headers = {"Cache-Control": "no-store", **response.headers}
    if data is not None:
        headers.setdefault("Content-Type", JSON)
    return headers, data or b""


def as_json(content: Schema) -> bytes:
    """An answer as it is sent."""
    # Documents of earlier releases are answered as they were written down (`documents.as_written`).
    return orjson.dumps(content.model_dump(mode="json", warnings=False))
