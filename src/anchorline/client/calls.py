"""What all groups of calls share: a request's answer in its shape."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TypeVar
from urllib.parse import quote

from pydantic import BaseModel

from .transport import Transport

_Answer = TypeVar("_Answer", bound=BaseModel)


class Calls:
    """A group of calls over one transport. All methods raise the errors of `errors`."""

    def __init__(self, transport: Transport) -> None:
        self._transport = transport

    def _get(
        self, path: str, shape: type[_Answer], query: Mapping[str, object] | None = None
    ) -> _Answer:
        return shape.model_validate_json(self._transport.send("GET", path, query=query).content)

    def _post(self, path: str, shape: type[_Answer], body: BaseModel | None = None) -> _Answer:
        """For calls that do no harm when they are sent again."""
        answer = self._transport.send("POST", path, body=body, repeatable=True)
        return shape.model_validate_json(answer.content)


def part(text: str) -> str:
    """One part of a path, escaped."""
    return quote(text, safe="")
