"""Problem answers (RFC 9457)."""

from __future__ import annotations

from pydantic import Field

from .base import Schema, example

PROBLEM_TYPE = "application/problem+json"


class ProblemPlace(Schema):
    """One thing that is wrong with a request."""

    pointer: str = Field(
        description="JSON pointer (RFC 6901) into the body; `?name` for a query parameter"
    )
    detail: str
    at: int | None = Field(
        default=None, description="Where in a text it is wrong, in characters from 0"
    )
    length: int | None = Field(default=None, description="How many characters are meant")
    kind: str | None = Field(
        default=None, description="Names the sentence, for whoever says it in another language"
    )
    given: dict[str, str | float] | None = Field(
        default=None, description="What is filled into the sentence, by name"
    )


class ProblemAnswer(Schema):
    """What went wrong, and what to do."""

    model_config = example(
        {
            "type": "about:blank",
            "title": "Unprocessable Entity",
            "status": 422,
            "detail": "The request has 1 problem; see errors.",
            "errors": [
                {
                    "pointer": "/components/stret",
                    "detail": "There is no component 'stret'. Did you mean street?",
                }
            ],
        }
    )
    type: str = "about:blank"
    title: str
    status: int
    detail: str
    errors: list[ProblemPlace] = []
