"""What all groups of calls share: a request's answer in its schema."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import TypeVar
from urllib.parse import quote

import httpx
from pydantic import BaseModel, ValidationError

from anchorline.wire.base import PageSchema
from anchorline.wire.faults import fault_detail

from .errors import UnexpectedAnswerError, WrongArgumentError
from .transport import Transport

_Answer = TypeVar("_Answer", bound=BaseModel)
_Page = TypeVar("_Page", bound=PageSchema)
MOST_A_PAGE = 500


class Calls:
    """A group of calls over one transport. All methods raise the errors of `errors`."""

    def __init__(self, transport: Transport) -> None:
        self._transport = transport

    def _get(
        self, path: str, schema: type[_Answer], query: Mapping[str, object] | None = None
    ) -> _Answer:
        return read_answer(schema, self._transport.send("GET", path, query=query))

    def _every(
        self,
        path: str,
        schema: type[_Page],
        query: Mapping[str, object] | None = None,
    ) -> Iterator[_Page]:
        """All pages of a list, each as large as it may be."""
        after: str | None = None
        while True:
            page = self._get(path, schema, {**(query or {}), "limit": MOST_A_PAGE, "after": after})
            yield page
            after = page.after
            if after is None:
                return

    def _post(self, path: str, schema: type[_Answer], body: BaseModel | None = None) -> _Answer:
        """For calls that do no harm when they are sent again."""
        answer = self._transport.send("POST", path, body=body, repeatable=True)
        return read_answer(schema, answer)


def read_answer(schema: type[_Answer], answer: httpx.Response) -> _Answer:
    """An answer in its schema.

    Raises:
        UnexpectedAnswerError: it has another one.
    """
    try:
        return schema.model_validate_json(answer.content)
    except ValidationError as error:
        kind = answer.headers.get("Content-Type", "something without a type")
        at = f"{answer.url.scheme}://{answer.url.netloc.decode()}"
        raise UnexpectedAnswerError(
            f"{at} answered {answer.status_code} with {kind}, which is no {schema.__name__}. "
            "Is it an Anchorline service of this release?"
        ) from error


def request_body(schema: type[_Answer], **values: object) -> _Answer:
    """A request's body.

    Raises:
        WrongArgumentError: a value is not what the service takes; says which and why.
    """
    try:
        return schema.model_validate(values)
    except ValidationError as error:
        faults = [
            f"{'.'.join(map(str, fault['loc'])) or schema.__name__}: {fault_detail(fault, schema)}"
            for fault in error.errors(include_url=False)
        ]
        raise WrongArgumentError("; ".join(faults)) from error


def part(text: str) -> str:
    """One part of a path, escaped; WrongArgumentError where it cannot be sent."""
    try:
        return quote(text, safe="")
    except UnicodeError as error:
        raise WrongArgumentError(f"A text cannot be sent: {error}") from error
