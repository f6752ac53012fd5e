"""Limits on clients: how long they may take, and how much they may send."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

# Bytes of a request line and of one header; many servers in front have the same.
LONGEST_LINE = 8190
LONGEST_HEAD = 16_384
# What a body may have before anybody looked who sends it.
UNKNOWN_SENDERS_BODY = 65_536
# Bytes of a body or an answer that are kept in memory; more goes into a temporary file.
IN_MEMORY = 65_536

# The status and words of a refusal, and its further headers.
Refusal = tuple[int, str, dict[str, str]]
# Looks at a request's head as WSGI has it; None lets its body in.
Admission = Callable[[dict[str, object]], Refusal | None]


def nobody_is_refused(_environ: dict[str, object]) -> Refusal | None:
    """Lets every body in."""
    return None


@dataclass(frozen=True, slots=True)
class Limits:
    """Limits of one process.

    Attributes:
        body: the largest body in bytes, by method and path.
        admit: asked about requests whose body is larger than UNKNOWN_SENDERS_BODY.
        room: bytes that temporary files may still take.
        head_seconds: from the first byte of a request to the end of its head; as long a new
            connection may be silent.
        idle_seconds: between two requests of a connection.
        stall_seconds: without a byte of a body, or of an answer that is taken.
        least_pace: bytes a second that a body must come with on the whole, after stall_seconds.
        connections: held at once; one more ends the one that has waited longest.
        threads: requests worked on at once.
    """

    body: Callable[[str, str], int]
    admit: Admission = nobody_is_refused
    room: Callable[[], int] = lambda: 1 << 62
    head_seconds: float = 10.0
    idle_seconds: float = 15.0
    stall_seconds: float = 10.0
    least_pace: int = 1_000
    connections: int = 2_000
    threads: int = 4
