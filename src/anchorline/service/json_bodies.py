"""Bodies in JSON, read and held against the schema that their endpoint declares."""

from __future__ import annotations

from typing import Any

import orjson
from flask import Request
from pydantic import BaseModel, ValidationError

from .problems import ProblemError, from_validation

JSON = "application/json"
MOST_VALUES = 50_000


def read_body(schema: type[BaseModel], request: Request) -> BaseModel:
    """The body of a request, of a schema.

    Raises:
        ProblemError: 415 where it is said to be no JSON, 400 where it is none, 422 where it is not
            of the schema.
    """
    if request.mimetype != JSON:
        given = request.mimetype or "none"
        raise ProblemError(415, f"Send the body as Content-Type: {JSON}; this one is {given}.")
    try:
        value: Any = orjson.loads(request.get_data())
    except orjson.JSONDecodeError as error:
        raise ProblemError(
            400, f"The body is not JSON: {error.msg}, line {error.lineno}, column {error.colno}."
        ) from None
    _require_light(value)
    try:
        return schema.model_validate(value, strict=True)
    except ValidationError as error:
        raise from_validation(error, schema, value) from None


def _require_light(value: Any) -> None:
    """422 for a body of so many parts that only looking at them would cost: no form has them."""
    waiting, count = [value], 0
    while waiting:
        one = waiting.pop()
        if isinstance(one, dict):
            waiting.extend(one.values())
            count += len(one)
        elif isinstance(one, list):
            waiting.extend(one)
            count += len(one)
        if count > MOST_VALUES:
            raise ProblemError(422, f"The body holds more than {MOST_VALUES:,} values.")
