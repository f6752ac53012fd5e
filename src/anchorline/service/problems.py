"""Problem answers: the one place where anything that goes wrong becomes an RFC 9457 body."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from http import HTTPStatus
from typing import get_args

import orjson
from flask import Flask, Response
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from anchorline.core.address import escape_pointer
from anchorline.core.errors import DocumentError, Problem, UnknownNameError, nearest_names
from anchorline.store.database import DatabaseUnavailableError, NotThereError
from anchorline.wire.problems import ProblemAnswer, ProblemPlace

from .logs import logger

PROBLEM_TYPE = "application/problem+json"
_log = logger("problems")


class ProblemError(Exception):
    """A request that is refused.

    Args:
        status: HTTP status, 400 to 599.
        detail: what is wrong and what to do.
        errors: places in the request.
        headers: of the answer.
    """

    def __init__(
        self,
        status: int,
        detail: str,
        errors: Iterable[Problem] = (),
        headers: dict[str, str] | None = None,
    ) -> None:
        super().__init__(detail)
        self.status, self.detail = status, detail
        self.errors = list(errors)
        self.headers = headers or {}


def invalid(problems: Sequence[Problem]) -> ProblemError:
    """422 with places."""
    count = len(problems)
    said = "1 problem" if count == 1 else f"{count} problems"
    return ProblemError(422, f"The request has {said}; see errors.", problems)


def not_found(detail: str) -> ProblemError:
    """404."""
    return ProblemError(404, detail)


def problem_response(error: ProblemError) -> Response:
    """The answer for a problem."""
    answer = ProblemAnswer(
        title=HTTPStatus(error.status).phrase,
        status=error.status,
        detail=error.detail,
        errors=[ProblemPlace(pointer=p.pointer, detail=p.detail) for p in error.errors],
    )
    response = Response(
        orjson.dumps(answer.model_dump()), status=error.status, content_type=PROBLEM_TYPE
    )
    response.headers.update(error.headers)
    response.headers["Cache-Control"] = "no-store"
    return response


def from_validation(
    error: ValidationError, shape: type[BaseModel], prefix: str = "/"
) -> ProblemError:
    """422 for a body or query that does not have its shape, with the nearest known names."""
    names = _field_names(shape)
    problems = []
    for fault in error.errors(include_url=False):
        # Parts of a union's place that name the variant are not part of the pointer.
        place = [str(p) for p in fault["loc"] if not str(p)[:1].isupper()]
        pointer = prefix + "/".join(map(escape_pointer, place)) if place else prefix.rstrip("/")
        problems.append(Problem(pointer, _sentence(fault, names)))
    return invalid(problems)


def _sentence(fault: object, names: set[str]) -> str:
    kind, context = fault["type"], fault.get("ctx", {})  # type: ignore[index,attr-defined]
    if kind == "extra_forbidden":
        name = str(fault["loc"][-1])  # type: ignore[index]
        nearest = nearest_names(name, names)
        hint = f" Did you mean {' or '.join(nearest)}?" if nearest else ""
        return f"{name!r} is not known here.{hint}"
    if kind == "missing":
        return "This is needed."
    if kind == "string_too_long":
        return f"At most {context['max_length']} characters."
    if kind == "value_error":
        return str(context["error"])
    return f"{fault['msg']}."  # type: ignore[index]


def _field_names(shape: type[BaseModel]) -> set[str]:
    """Names of the fields of a shape and of the shapes inside it."""
    names: set[str] = set()
    waiting: list[object] = [shape]
    seen: set[object] = set()
    while waiting:
        one = waiting.pop()
        if isinstance(one, type) and issubclass(one, BaseModel):
            if one in seen:
                continue
            seen.add(one)
            names.update(one.model_fields)
            waiting.extend(field.annotation for field in one.model_fields.values())
        else:
            waiting.extend(get_args(one))
    return names


def install_problem_handlers(app: Flask) -> None:
    """Makes every error of the application a problem answer."""

    def on(error: type[Exception]) -> Callable[[Callable[[Exception], Response]], None]:
        return lambda handler: app.register_error_handler(error, handler)

    @on(ProblemError)
    def _problem(error: Exception) -> Response:
        assert isinstance(error, ProblemError)
        return problem_response(error)

    @on(UnknownNameError)
    def _unknown_name(error: Exception) -> Response:
        return problem_response(ProblemError(422, str(error)))

    @on(DocumentError)
    def _document(error: Exception) -> Response:
        assert isinstance(error, DocumentError)
        return problem_response(invalid(error.problems))

    @on(NotThereError)
    def _not_there(error: Exception) -> Response:
        return problem_response(not_found(str(error)))

    @on(DatabaseUnavailableError)
    def _database(error: Exception) -> Response:
        _log.error("database unavailable", error=str(error.__cause__))
        return problem_response(
            ProblemError(
                503,
                "The database does not answer; nothing was changed. Try again in a moment.",
                headers={"Retry-After": "2"},
            )
        )

    @on(HTTPException)
    def _http(error: Exception) -> Response:
        assert isinstance(error, HTTPException)
        return problem_response(_from_http(error))

    @on(Exception)
    def _unexpected(error: Exception) -> Response:
        _log.error("unexpected failure", exc_info=error)
        return problem_response(
            ProblemError(
                500,
                "Something went wrong on our side; it has been logged. Try again, and tell your "
                "administrator if it stays.",
            )
        )


def _from_http(error: HTTPException) -> ProblemError:
    status = error.code or 500
    headers = {}
    allowed = getattr(error, "valid_methods", None)
    if allowed:
        headers["Allow"] = ", ".join(sorted(allowed))
    details = {
        404: "There is nothing at this address. The API is described at /api/v1/openapi.json.",
        405: f"This address takes {headers.get('Allow', 'other methods')} only.",
        413: "The request is larger than the service takes (ANCHORLINE_MAX_BODY; for files of "
        "reference data ANCHORLINE_MAX_UPLOAD).",
    }
    return ProblemError(status, details.get(status, error.description or error.name), (), headers)
