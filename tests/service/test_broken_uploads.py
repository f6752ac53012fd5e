"""A file whose sending breaks off is no file: half a country must never become an edition."""

import socket
import time
from urllib.parse import urlsplit

import pytest

ROWS = b"id,country_code,town\r\n" + b"".join(b"%d,GB,Marl\r\n" % n for n in range(150_000))
HALF = len(ROWS) // 2


def by_length():
    """A body of a stated length, of which half is sent."""
    yield b"Content-Type: text/csv\r\nContent-Length: %d\r\n\r\n" % len(ROWS)
    yield ROWS[:HALF]


def in_a_form():
    """The part of a form, of which half is sent."""
    head = b'--x\r\nContent-Disposition: form-data; name="file"; filename="a.csv"\r\n\r\n'
    whole = head + ROWS + b"\r\n--x--\r\n"
    yield b"Content-Type: multipart/form-data; boundary=x\r\n"
    yield b"Content-Length: %d\r\n\r\n" % len(whole)
    yield whole[:HALF]


def in_chunks():
    """A body in chunks, without the last one."""
    yield b"Content-Type: text/csv\r\nTransfer-Encoding: chunked\r\n\r\n"
    for start in range(0, HALF, 100_000):
        piece = ROWS[start : start + 100_000]
        yield b"%x\r\n%b\r\n" % (len(piece), piece)


def in_a_chunk():
    """A body in chunks, broken off inside one."""
    yield b"Content-Type: text/csv\r\nTransfer-Encoding: chunked\r\n\r\n"
    yield b"%x\r\n%b" % (len(ROWS), ROWS[:HALF])


@pytest.mark.parametrize("body", [by_length, in_a_form, in_chunks, in_a_chunk])
@pytest.mark.parametrize("way", ["close", "stop sending"])
def test_half_a_file_makes_no_edition(stack, api, body, way):
    name = f"broken-{body.__name__}-{way.split()[0]}".replace("_", "-")
    place = urlsplit(stack.url)
    with socket.create_connection((place.hostname, place.port), timeout=60) as sender:
        sender.sendall(
            f"POST /api/v1/datasets/{name}/editions?activate=always HTTP/1.1\r\n"
            f"Host: {place.netloc}\r\n"
            f"Authorization: Bearer {stack.access['server_key']}\r\n".encode()
        )
        for piece in body():
            sender.sendall(piece)
        if way == "stop sending":
            sender.shutdown(socket.SHUT_WR)
            assert b" 202 " not in sender.recv(4096).split(b"\r\n")[0]
        else:
            time.sleep(0.5)  # so much of it is taken in by then
    deadline = time.monotonic() + 20
    while (states := states_of_jobs(api, name)) == ["receiving"]:
        assert time.monotonic() < deadline, "nobody noticed that the sending broke off"
        time.sleep(0.05)
    assert states == []


def states_of_jobs(api, name):
    found = api.get(f"datasets/{name}")
    return [] if found.status_code == 404 else [job["state"] for job in found.json()["jobs"]]
