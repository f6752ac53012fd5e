"""People who type, as keep-alive connections that send prepared requests and time the answers.

A client library would cost more than the service does; this one only reads heads and bodies.
"""

from __future__ import annotations

import asyncio
import random
import time
from collections.abc import Sequence
from dataclasses import dataclass, field
from urllib.parse import quote, urlsplit

import numpy as np

BETWEEN_KEYS_S = 0.2


@dataclass
class Times:
    """Milliseconds of answers, and how many were not 200."""

    milliseconds: list[float] = field(default_factory=list)
    failed: int = 0
    seconds: float = 0.0

    def at(self, percentile: float) -> float:
        """A percentile in milliseconds."""
        return float(np.percentile(self.milliseconds, percentile))

    @property
    def a_second(self) -> float:
        """Answers a second."""
        return len(self.milliseconds) / self.seconds

    def add(self, more: Times) -> None:
        """Takes in what another turn measured."""
        self.milliseconds += more.milliseconds
        self.failed += more.failed
        self.seconds += more.seconds

    def __str__(self) -> str:
        return (
            f"p50 {self.at(50):6.2f}  p95 {self.at(95):6.2f}  p99 {self.at(99):6.2f} ms  "
            f"{self.a_second:7.0f} a second  {self.failed} failed"
        )


def requests_of(url: str, key: str, lines: Sequence[str]) -> list[list[bytes]]:
    """For each line of text, the requests of its keys, from the second on."""
    host = urlsplit(url).netloc
    return [
        [
            (
                f"GET /api/v1/suggest?q={quote(line[:end])} HTTP/1.1\r\nHost: {host}\r\n"
                f"Authorization: Bearer {key}\r\n\r\n"
            ).encode()
            for end in range(2, len(line) + 1)
        ]
        for line in lines
    ]


def type_away(
    url: str,
    typed: Sequence[Sequence[bytes]],
    *,
    people: int,
    seconds: float,
    pause: float,
    turn: int = 0,
) -> Times:
    """Lets people type for some seconds.

    Args:
        typed: requests of lines; each person takes one line after another.
        pause: seconds between two keys; 0 for the next key as soon as the answer is there.
        turn: in another turn they type other lines.
    """
    return asyncio.run(_all(url, typed, people, seconds, pause, turn))


async def _all(
    url: str,
    typed: Sequence[Sequence[bytes]],
    people: int,
    seconds: float,
    pause: float,
    turn: int,
) -> Times:
    times = Times(seconds=seconds)
    end = time.perf_counter() + seconds
    await asyncio.gather(
        *(_person(url, typed, 10_000 * turn + n, end, pause, times) for n in range(people))
    )
    return times


async def _person(
    url: str, typed: Sequence[Sequence[bytes]], number: int, end: float, pause: float, times: Times
) -> None:
    place = urlsplit(url)
    rng = random.Random(number)
    reader, writer = await asyncio.open_connection(place.hostname, place.port)
    due = time.perf_counter() + pause * rng.random()
    try:
        while True:
            for request in typed[rng.randrange(len(typed))]:
                await asyncio.sleep(max(0.0, due - time.perf_counter()) if pause else 0)
                began = time.perf_counter()
                if began > end:
                    return
                writer.write(request)
                status, closed = await _answer(reader)
                times.milliseconds.append(1000 * (time.perf_counter() - began))
                times.failed += status != 200
                if closed:
                    writer.close()
                    reader, writer = await asyncio.open_connection(place.hostname, place.port)
                due = max(due + pause, time.perf_counter())
    finally:
        writer.close()


async def _answer(reader: asyncio.StreamReader) -> tuple[int, bool]:
    """The status of an answer that is read whole, and whether the connection ends with it."""
    head = (await reader.readuntil(b"\r\n\r\n")).lower()
    length = next(
        int(line.split(b":")[1]) for line in head.split(b"\r\n") if line.startswith(b"content-len")
    )
    await reader.readexactly(length)
    return int(head.split(b" ", 2)[1]), b"\r\nconnection: close" in head
