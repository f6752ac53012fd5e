"""Requests that nobody means well: right ones with something wrong in them, and plain noise.

Every request follows from its number and the seed, so that one that does harm can be made again.
"""

from __future__ import annotations

import json
import random
import re
import socket
from dataclasses import dataclass
from urllib.parse import quote

from anchorline.service.app import ROUTERS

ENDPOINTS = [endpoint for router in ROUTERS for endpoint in router.endpoints]
PARTS = {
    "key": "nosuchkey", "target": "checkout", "look": "nosuchlook",
    "address_id": "demo:GB0000012", "country_code": "GB", "postcode": "QV1 1QF", "form": "tuning-visit",
    "slot": "piano", "record": "r1", "dataset": "demo", "number": "1", "job": "j1", "own_layout": "letters",
    "version": "1", "field": "town",
}  # fmt: skip
NASTY = (
    "", " ", "a ", "\x00", "\n", "\r\nX: y", "'", '"', "';--", "%", "%00", "..", "../../etc/passwd", "$(x)",
    "{{7*7}}", "<script>", "\ufeff", "\u202e", "é", "ß", "本町", "🎹" * 40, "a" * 5000, "=1+1", "-1", "0", "1e309",
    "NaN", "99999999999999999999", "null", "true", "[]", "{}", "9999-12-31T23:59:59-12:00", "\ud800",
)  # fmt: skip
VALUES = (
    None, True, False, 0, -1, 1 << 63, 1 << 70, 1e308, "", " ", "a" * 5000, "\x00", "🎹", "é", [], {}, [[]],
    {"a": {}}, [None], ["GB"], {"": ""}, [1] * 300, {"k" * 300: 1},
)  # fmt: skip
QUERIES = ("q", "country", "kinds", "near", "within", "limit", "language", "after", "trace", "sort", "search",
           "form", "latitude", "longitude", "radius_m", "components", "draft", "changes", "base", "bad_share",
           "activate", "name", "international", "zzz")  # fmt: skip
METHODS = ("GET", "POST", "PUT", "DELETE", "PATCH", "HEAD", "OPTIONS", "TRACE", "MADEUP", "get")
HEADERS = ("If-None-Match", "If-Match", "Idempotency-Key", "Origin", "Cookie", "Content-Type", "Authorization",
           "X-CSRF-Token", "Range", "Expect", "Accept-Language", "X-Forwarded-For", "Host", "Transfer-Encoding",
           "Content-Length", "Connection", "Upgrade")  # fmt: skip


@dataclass(frozen=True)
class Noise:
    """One request as bytes."""

    number: int
    data: bytes

    def __str__(self):
        return f"request {self.number}: {self.data[:300]!r}"


def make(seed, number, key):
    """A request by its number."""
    rng = random.Random(f"{seed} {number}")
    kind = rng.random()
    if kind < 0.06:
        return Noise(number, rng.randbytes(rng.randrange(1, 400)) + b"\r\n\r\n")
    data = _call(rng, key)
    if kind < 0.2:
        data = _spoilt(rng, data)
    return Noise(number, data)


def _call(rng, key):
    endpoint = rng.choice(ENDPOINTS)
    method = endpoint.method if rng.random() < 0.9 else rng.choice(METHODS)

    def part(match):
        name = match.group(1)
        text = PARTS[name] if rng.random() < 0.6 else rng.choice(NASTY)
        return quote(text.encode("utf-8", "surrogatepass"), safe="" if rng.random() < 0.8 else "/")

    path = "/api/v1" + re.sub(r"<(?:path:)?(\w+)>", part, endpoint.rule)
    names = list(endpoint.query.model_fields) if endpoint.query is not None else []
    chosen = [rng.choice(names or QUERIES) for _ in range(rng.choice((0, 0, 1, 2, 4)))]
    chosen += [rng.choice(QUERIES)] if rng.random() < 0.1 else []
    query = "&".join(
        f"{name}={quote(rng.choice((*NASTY, 'GB', 'kiln', '3', '51.5,-2.8')).encode('utf-8', 'surrogatepass'))}"
        for name in chosen
    )
    headers = {"Host": "fuzz", "Authorization": f"Bearer {key}", "Connection": "close"}
    body = b""
    if endpoint.upload:
        body, headers["Content-Type"] = (
            _file(rng),
            rng.choice(("text/csv", "multipart/form-data; boundary=x", "x")),
        )
    elif endpoint.body is not None and rng.random() < 0.95:
        body, headers["Content-Type"] = _body(rng, endpoint.body), "application/json"
    if body:
        headers["Content-Length"] = str(len(body))
    for _ in range(rng.choice((0, 0, 0, 1, 2))):
        text = rng.choice(NASTY).replace("\r", "").replace("\n", "").replace("\x00", "")
        headers[rng.choice(HEADERS[:12])] = text.encode("utf-8", "replace").decode("latin-1")
    lines = [f"{method} {path}{'?' + query if query else ''} HTTP/1.1"]
    lines += [f"{name}: {value}" for name, value in headers.items()]
    return "\r\n".join(lines).encode("latin-1", "replace") + b"\r\n\r\n" + body


def _body(rng, schema):
    examples = (schema.model_config.get("json_schema_extra") or {}).get("examples") or [{}]
    value = json.loads(json.dumps(rng.choice(examples), default=str))
    for _ in range(rng.choice((0, 1, 1, 2, 5))):
        value = _changed(rng, value)
    text = json.dumps(value, ensure_ascii=rng.random() < 0.5)
    return text.encode("utf-8", "replace")


def _changed(rng, value):
    """The same value with one part of it replaced, added, doubled or gone."""
    if isinstance(value, dict) and value and rng.random() < 0.85:
        name = rng.choice(list(value))
        how = rng.random()
        if how < 0.15:
            return {n: v for n, v in value.items() if n != name}
        if how < 0.3:
            return {**value, rng.choice((*NASTY[:20], "zzz")): rng.choice(VALUES)}
        return {**value, name: _changed(rng, value[name])}
    if isinstance(value, list) and value and rng.random() < 0.8:
        place = rng.randrange(len(value))
        changed = _changed(rng, value[place])
        return [*value[:place], changed, *value[place + (rng.random() < 0.8) :]]
    return rng.choice(VALUES)


def _file(rng):
    rows = [
        ",".join(
            rng.choice(("id", "country_code", "town", "latitude", *NASTY[:8])) for _ in range(4)
        )
    ]
    rows += [
        ",".join(rng.choice(("1", "GB", "Marl", *NASTY[:30])) for _ in range(4)) for _ in range(5)
    ]
    return "\r\n".join(rows).encode("utf-8", "replace")


def _spoilt(rng, data):
    """The same bytes with some changed, taken out, doubled or cut off."""
    spoilt = bytearray(data)
    for _ in range(rng.choice((1, 1, 3, 10))):
        place = rng.randrange(len(spoilt))
        how = rng.random()
        if how < 0.5:
            spoilt[place] = rng.randrange(256)
        elif how < 0.7:
            del spoilt[place : place + rng.randrange(1, 20)]
        elif how < 0.9:
            spoilt[place:place] = spoilt[place : place + rng.randrange(1, 40)]
        else:
            spoilt[place:place] = rng.choice(
                (b"\r\n", b"Transfer-Encoding: chunked\r\n", b"Content-Length: 5\r\n")
            )
        if not spoilt:
            return b"\r\n\r\n"
    return bytes(spoilt)


def status_of(address, noise):
    """The status that a request is answered with; 0 where none came."""
    with socket.create_connection(address, timeout=20) as connection:
        try:
            connection.sendall(noise.data)
            connection.shutdown(socket.SHUT_WR)
            head = b""
            while b"\r\n" not in head and len(head) < 100:
                piece = connection.recv(4096)
                if not piece:
                    break
                head += piece
        except (ConnectionError, TimeoutError):
            return 0
    match = re.match(rb"HTTP/1\.[01] (\d{3}) ", head)
    return int(match.group(1)) if match else 0
