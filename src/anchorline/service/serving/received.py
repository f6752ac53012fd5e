"""Receiving a request: what is too long, too large or not HTTP is refused after its head.

What is refused here never reaches the application; it is answered with a problem, and its
connection is closed, since the rest of the request may still be on its way.
"""

from __future__ import annotations

from http import HTTPStatus
from time import monotonic
from typing import Any

import orjson
from waitress.parser import HTTPRequestParser

from anchorline.wire.problems import PROBLEM_TYPE, ProblemAnswer

from .limits import LONGEST_LINE, UNKNOWN_SENDERS_BODY, Limits, Refusal

# A chunk's own line, and what may stand behind the last one.
_LONGEST_CHUNK_LINE = 1_024
_NOT_HTTP = "The request is not HTTP as it should be."
_DETAILS = {
    400: _NOT_HTTP,
    431: "The request's headers are too large.",
    501: "The service takes bodies with a Content-Length or in chunks, in no other encoding.",
}


class RefusedRequest:
    """A refusal in the place where waitress keeps a request's error."""

    def __init__(self, status: int, detail: str, headers: dict[str, str] | None = None) -> None:
        self.code, self.detail, self.headers = status, detail, headers or {}

    def to_response(self, _ident: object = None) -> tuple[str, list[tuple[str, str]], bytes]:
        """Status line, headers and body."""
        phrase = HTTPStatus(self.code).phrase
        answer = ProblemAnswer(title=phrase, status=self.code, detail=self.detail)
        headers = {
            "Content-Type": PROBLEM_TYPE,
            "Cache-Control": "no-store",
            "X-Content-Type-Options": "nosniff",
            **self.headers,
        }
        return f"{self.code} {phrase}", list(headers.items()), orjson.dumps(answer.model_dump())


class ReceivedRequest(HTTPRequestParser):  # type: ignore[misc]
    """One request while it is received.

    Attributes:
        began: when its first byte came, on the monotonic clock.
        needs_admission: its head is there and somebody has to say whether its body may come.
    """

    def __init__(self, adjustments: Any, limits: Limits) -> None:
        super().__init__(adjustments)
        self.began = monotonic()
        self.needs_admission = False
        self._limits = limits
        self._most = 0
        self._judged = False

    def received(self, data: bytes) -> int:
        """Takes in some bytes; returns how many were of this request."""
        try:
            count = int(super().received(data))
        except OSError:  # the temporary file of a body
            self.refuse(507, "There is no room for this request's body. Try again later.")
            return len(data)
        if self.error is not None and not isinstance(self.error, RefusedRequest):
            self._in_our_words()
        elif self.headers_finished and not self._judged:
            self._judged = True
            if not self.empty:
                self._judge_head()
        elif self.chunked and not self.completed:
            self._judge_chunks()
        # What comes behind a refusal is never taken for another request.
        return count if self.error is None else len(data)

    def refuse(self, status: int, detail: str, headers: dict[str, str] | None = None) -> None:
        """Ends the request with a refusal; nothing more of it is taken in."""
        self.error = RefusedRequest(status, detail, headers)
        self.version = "1.1"  # also where no version was understood (RFC 9110, 6.2)
        self.expect_continue = self.needs_admission = False
        self.completed = True

    def settle(self, refusal: Refusal | None) -> None:
        """Lets the body in, or refuses it."""
        self.needs_admission = False
        if refusal is not None:
            self.refuse(*refusal)

    def _in_our_words(self) -> None:
        code = int(self.error.code)
        if code == 431 and len(self.header_plus.split(b"\r\n", 1)[0]) > LONGEST_LINE:
            self._refuse_line()
        elif code == 413:
            self._refuse_body()
        else:
            self.refuse(code, _DETAILS.get(code, _NOT_HTTP))

    def _judge_head(self) -> None:
        if len(self.first_line) > LONGEST_LINE:
            self._refuse_line()
        elif any(len(value) > LONGEST_LINE for value in self.headers.values()):
            self.refuse(431, _DETAILS[431])
        elif self.version == "1.1" and "HOST" not in self.headers:
            self.refuse(400, "The request has no Host header.")
        elif self.chunked and "CONTENT_LENGTH" in self.headers:
            self.refuse(400, "Send a Content-Length or chunks, not both.")
        elif self.chunked or self.content_length:
            self._judge_body()

    def _judge_body(self) -> None:
        self._most = self._limits.body(self.command, self.path)
        if self.content_length > self._most:
            self._refuse_body()
        elif self.content_length > UNKNOWN_SENDERS_BODY or (
            self.chunked and self._most > UNKNOWN_SENDERS_BODY
        ):
            if self.content_length > self._limits.room():
                self.refuse(507, "There is no room for a body of this size. Try again later.")
            else:
                self.needs_admission = True

    def _judge_chunks(self) -> None:
        body = self.body_rcv
        if len(body) > self._most:
            self._refuse_body()
        elif max(len(body.control_line), len(body.trailer)) > _LONGEST_CHUNK_LINE:
            self.refuse(400, _NOT_HTTP)

    def _refuse_line(self) -> None:
        self.refuse(414, f"The address with its query is longer than {LONGEST_LINE:,} bytes.")

    def _refuse_body(self) -> None:
        self.refuse(
            413,
            f"The body is larger than the {self._most:,} bytes that this address takes "
            "(the most for any is ANCHORLINE_MAX_BODY; for files of reference data "
            "ANCHORLINE_MAX_UPLOAD).",
        )
