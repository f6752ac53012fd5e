"""Problem answers: the one place where an error becomes an RFC 9457 body."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from http import HTTPStatus
from typing import Any

import orjson
from flask import Flask, Response
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from anchorline.application.errors import (
    ConflictError,
    ForbiddenError,
    InvalidError,
    RefusedError,
    TooManyError,
)
from anchorline.core.address import escape_pointer
from anchorline.core.errors import (
    MOST_LISTED,
    DocumentError,
    Problem,
    UnknownNameError,
)
from anchorline.core.said import Said
from anchorline.store.cursors import BadCursorError
from anchorline.store.database import (
    AlreadyThereError,
    ContendedError,
    DatabaseUnavailableError,
    NotThereError,
    ReusedKeyError,
    StaleError,
    StorageFullError,
)
from anchorline.wire.faults import fault_detail
from anchorline.wire.problems import PROBLEM_TYPE, ProblemAnswer, ProblemPlace

from .logs import logger

_log = logger("problems")
# No name that there is is longer than that; a sentence may list some.
_LONGEST_STEP = 80
_LONGEST_DETAIL = 2000


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


def invalid(problems: Sequence[Problem], count: int | None = None) -> ProblemError:
    """422 with places, of which the first are listed.

    Args:
        count: how many there are, where not all are given.
    """
    count = len(problems) if count is None else count
    said = "1 problem" if count == 1 else f"{count:,} problems"
    see = "see errors" if count <= MOST_LISTED else f"errors has the first {MOST_LISTED}"
    return ProblemError(422, f"The request has {said}; {see}.", problems[:MOST_LISTED])


def places(problems: Iterable[Problem]) -> list[ProblemPlace]:
    """Problems as they are answered."""
    return [
        ProblemPlace(
            pointer="/".join(map(_cut, problem.pointer.split("/"))),
            detail=_cut(problem.detail, _LONGEST_DETAIL),
            at=problem.at,
            length=problem.length,
            **kind_of(problem.detail),
        )
        for problem in problems
    ]


def _cut(text: str, most: int = _LONGEST_STEP) -> str:
    """A text as it is answered: what somebody has sent is not sent back at any length."""
    return text if len(text) <= most else text[:most] + "…"


def kind_of(detail: str) -> dict[str, Any]:
    """What a sentence is called, and what is filled into it, where it has a kind."""
    if not isinstance(detail, Said):
        return {}
    return {"kind": detail.kind, "given": dict(detail.given) or None}


def invalid_header(detail: str) -> ProblemError:
    """422 for a header that is not as it has to be."""
    return ProblemError(422, detail)


def not_found(detail: str) -> ProblemError:
    """404."""
    return ProblemError(404, detail)


def problem_response(error: ProblemError) -> Response:
    """The answer for a problem."""
    answer = ProblemAnswer(
        title=HTTPStatus(error.status).phrase,
        status=error.status,
        detail=_cut(error.detail, _LONGEST_DETAIL),
        errors=places(error.errors),
    )
    response = Response(
        orjson.dumps(answer.model_dump(exclude_none=True)),
        status=error.status,
        content_type=PROBLEM_TYPE,
    )
    response.headers.update(error.headers)
    response.headers["Cache-Control"] = "no-store"
    return response


def from_validation(
    error: ValidationError, schema: type[BaseModel], given: object, prefix: str = "/"
) -> ProblemError:
    """422 for a body or query that does not have its schema, with the nearest known names.

    Args:
        given: what was validated; pointers are of places in it.
    """
    problems = []
    for fault in error.errors(include_url=False, include_input=False)[:MOST_LISTED]:
        place = _place_in(given, fault["loc"], is_missing=fault["type"] == "missing")
        pointer = prefix + "/".join(map(escape_pointer, place)) if place else prefix.rstrip("/")
        problems.append(Problem(pointer, fault_detail(fault, schema)))
    return invalid(problems, error.error_count())


def _place_in(given: object, location: Sequence[int | str], *, is_missing: bool) -> list[str]:
    """The steps of a validator's location that lead through what was given.

    The others name validators and variants of unions. Of what is missing the last step is no place
    in it yet.
    """
    place: list[str] = []
    here = given
    for step in location:
        leads = (isinstance(here, dict) and step in here) or (
            isinstance(here, list) and isinstance(step, int) and 0 <= step < len(here)
        )
        if leads:
            place.append(str(step))
            here = here[step]  # type: ignore[index]
    if is_missing:
        place.append(str(location[-1]))
    return place


def problem_of(error: Exception) -> ProblemError:
    """The problem that any error is answered with."""
    for kind, problem in _PROBLEMS:
        if isinstance(error, kind):
            return problem(error)
    _log.error("unexpected failure", exc_info=error)
    return ProblemError(
        500,
        "Something went wrong on our side; it has been logged. Try again, and tell your "
        "administrator if it stays.",
    )


def install_problem_handlers(app: Flask) -> None:
    """Makes every error of the application a problem answer."""

    @app.errorhandler(Exception)
    def _any(error: Exception) -> Response:
        return problem_response(problem_of(error))


def _of_problems(error: DocumentError | InvalidError) -> ProblemError:
    return invalid(error.problems)


def _of_stale(error: StaleError) -> ProblemError:
    return ProblemError(
        412,
        "Somebody else has changed this in the meantime. Get it anew and make your change again.",
        headers={"ETag": f'"{error.current}"'},
    )


def _of_reused_key(_error: ReusedKeyError) -> ProblemError:
    return ProblemError(409, "This Idempotency-Key was used for another request; take a new one.")


def _refused_with(status: int) -> Callable[[Exception], ProblemError]:
    return lambda error: ProblemError(status, str(error))


def _of_absent_database(error: DatabaseUnavailableError) -> ProblemError:
    _log.error("database unavailable", error=str(error))
    return ProblemError(
        503,
        "The database does not answer. Send the same again in a moment; with the same "
        "Idempotency-Key nothing is made twice.",
        headers={"Retry-After": "2"},
    )


def _of_contention(_error: ContendedError) -> ProblemError:
    return ProblemError(
        503,
        "Others kept changing the same thing, so nothing was changed. Send the same again in a "
        "moment.",
        headers={"Retry-After": "1"},
    )


def _of_full_disk(_error: StorageFullError) -> ProblemError:
    _log.error("no room left on the disk")
    return ProblemError(
        507,
        "There is no room left to keep anything; nothing was changed. Tell your administrator, "
        "and try again when there is space.",
        headers={"Retry-After": "30"},
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


# The first that fits; an error and those derived from it go the derived one first.
_PROBLEMS: tuple[tuple[type[Exception], Callable[[Any], ProblemError]], ...] = (
    (ProblemError, lambda error: error),
    (UnknownNameError, lambda error: ProblemError(422, str(error))),
    (BadCursorError, lambda error: invalid([Problem("?after", str(error))])),
    (DocumentError, _of_problems),
    (InvalidError, _of_problems),
    (ForbiddenError, _refused_with(403)),
    (ConflictError, _refused_with(409)),
    (TooManyError, _refused_with(429)),
    (RefusedError, _refused_with(422)),
    (NotThereError, _refused_with(404)),
    (AlreadyThereError, lambda _error: ProblemError(409, "This is there already; get it anew.")),
    (StaleError, _of_stale),
    (ReusedKeyError, _of_reused_key),
    (ContendedError, _of_contention),
    (DatabaseUnavailableError, _of_absent_database),
    (StorageFullError, _of_full_disk),
    (HTTPException, _from_http),
)
