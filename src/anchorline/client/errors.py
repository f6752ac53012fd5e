"""What can go wrong when a service is called.

AnchorlineError
├── WrongArgumentError      what was handed over cannot be sent; nothing was sent
├── UnreachableError        nothing answers at the address
├── UnexpectedAnswerError   something answers there that is no Anchorline service of this release
└── ProblemError            the service answered with a problem
    ├── InvalidError        400, 413, 415, 422: the request is wrong; see `errors`
    ├── RefusedError        401, 403: the key is missing, wrong, or not enough
    ├── NotFoundError       404
    ├── ConflictError       409, 412, 428: it was changed, or used, in the meantime
    ├── TooManyError        429
    └── ServiceFailedError  5xx
"""

from __future__ import annotations

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from anchorline.wire.problems import ProblemAnswer, ProblemPlace


class AnchorlineError(Exception):
    """Root of the client's errors."""


class WrongArgumentError(AnchorlineError, ValueError):
    """What was handed over cannot be sent; the message says what and where."""


class UnreachableError(AnchorlineError):
    """Nothing answers."""


class UnexpectedAnswerError(AnchorlineError):
    """Something answers there that is no Anchorline service of this release."""


class ProblemError(AnchorlineError):
    """The service refused; the message is the problem's detail, with its places."""

    def __init__(self, problem: ProblemAnswer) -> None:
        self.problem = problem
        places = [f"{p.pointer}: {p.detail}" for p in problem.errors]
        super().__init__("\n  ".join([problem.detail, *places]))

    @property
    def status(self) -> int:
        """HTTP status."""
        return self.problem.status

    @property
    def errors(self) -> list[ProblemPlace]:
        """The places in the request, with what is wrong at each."""
        return self.problem.errors


class InvalidError(ProblemError):
    """The request is wrong."""


class RefusedError(ProblemError):
    """The key is missing, wrong, or not enough."""


class NotFoundError(ProblemError):
    """There is nothing there."""


class ConflictError(ProblemError):
    """It was changed, or used, in the meantime."""


class TooManyError(ProblemError):
    """Too many calls; wait."""


class ServiceFailedError(ProblemError):
    """The service failed."""


_BY_STATUS: dict[int, type[ProblemError]] = {
    401: RefusedError,
    403: RefusedError,
    404: NotFoundError,
    409: ConflictError,
    412: ConflictError,
    428: ConflictError,
    429: TooManyError,
}


def error_of(problem: ProblemAnswer) -> ProblemError:
    """The exception for a problem."""
    if problem.status >= 500:
        return ServiceFailedError(problem)
    return _BY_STATUS.get(problem.status, InvalidError)(problem)
