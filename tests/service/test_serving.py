"""Processes that answer on one socket: connections spread, deadlines, limits, and no thread held."""

import json
import os
import socket
import subprocess
import sys
import threading
import time
from collections import Counter
from contextlib import ExitStack, closing, contextmanager, suppress
from http.client import HTTPConnection

import pytest

from tests.waiting import SLOWNESS, wait_until

SERVE = """
import os, socket, sys, time
from anchorline.service.serving.limits import Limits
from anchorline.service.serving.processes import Processes


def app(environ, start):
    if environ["PATH_INFO"] == "/sleep":
        time.sleep(0.3)
    taken = len(environ["wsgi.input"].read())
    size = int(environ["QUERY_STRING"] or 0)
    body = b"x" * size if size else b"%d %d" % (os.getpid(), taken)
    if environ["PATH_INFO"] == "/none":
        start("204 No Content", [])
        return []
    start("200 OK", [("Content-Length", str(len(body)))])
    return [body]


def admit(environ):
    return None if environ.get("HTTP_AUTHORIZATION") == "yes" else (401, "Who are you?", {})


listener = socket.socket(fileno=int(sys.argv[1]))
limits = Limits(
    body=lambda method, path: 1000 if path == "/small" else 10_000_000,
    admit=admit, room=lambda: 5_000_000,
    head_seconds=float(sys.argv[3]), idle_seconds=3.0, stall_seconds=1.0, connections=40, threads=2,
)
Processes(app, listener, limits, int(sys.argv[2])).run()
"""
HOST = b"Host: here\r\n"


@contextmanager
def serving(processes, head_seconds=1.0):
    """Where so many processes answer, with short deadlines."""
    with socket.create_server(("127.0.0.1", 0), backlog=1024) as listener:
        process = subprocess.Popen(
            [
                sys.executable, "-c", SERVE,
                str(listener.fileno()), str(processes), str(head_seconds),
            ],
            pass_fds=[listener.fileno()],
        )  # fmt: skip
        try:
            with closing(HTTPConnection(*listener.getsockname())) as connection:
                ask(connection)  # it is ready, and listens to signals
            yield listener.getsockname()[1], process.pid
        finally:
            process.terminate()
            assert process.wait(15) == 0


@pytest.fixture(scope="module")
def one():
    with serving(1) as (port, _pid):
        yield port


def connect(port):
    return socket.create_connection(("127.0.0.1", port), timeout=60)


def ask(connection, path="/"):
    connection.request("GET", path)
    return connection.getresponse().read()


def read_all(connection):
    answer = b""
    with suppress(ConnectionResetError):
        while piece := connection.recv(65536):
            answer += piece
    return answer


def said(port, *pieces):
    """The whole answer to raw bytes, until the connection ends."""
    with connect(port) as connection:
        for piece in pieces:
            connection.sendall(piece)
        return read_all(connection)


def problem(answer, status):
    head, _, body = answer.partition(b"\r\n\r\n")
    assert head.startswith(b"HTTP/1.1 %d " % status)
    assert b"application/problem+json" in head
    assert b"Connection: close" in head
    assert json.loads(body)["status"] == status
    return json.loads(body)["detail"]


def test_no_process_holds_most_of_the_connections():
    with serving(2) as (port, _pid):
        for _ in range(20):
            with closing(HTTPConnection("127.0.0.1", port)) as connection:
                ask(connection)
        # A process that a busy machine keeps waiting cannot take its share: that passes.
        tries = [held_by_each(port) for _ in range(6)]
    assert all(len(held) == 2 for held in tries), tries
    assert min(max(held.values()) for held in tries) <= 16, tries


def held_by_each(port):
    """How many of 24 connections each process holds."""
    with ExitStack() as opened:
        return Counter(
            ask(opened.enter_context(closing(HTTPConnection("127.0.0.1", port)))).split()[0]
            for _ in range(24)
        )


def test_head_and_body_of_an_answer_come_together(one):
    with connect(one) as connection:
        for _ in range(20):
            connection.sendall(b"GET / HTTP/1.1\r\n" + HOST + b"\r\n")
            head, _, body = connection.recv(65536).partition(b"\r\n\r\n")
            assert head.startswith(b"HTTP/1.1 200 OK")
            assert body.endswith(b" 0"), "the body came later: whoever reads is woken twice"


def test_an_answer_without_a_body_keeps_the_connection_and_states_no_length(one):
    with connect(one) as connection:
        for _ in range(2):
            connection.sendall(b"GET /none HTTP/1.1\r\n" + HOST + b"\r\n")
            answer = connection.recv(65536)
            assert answer.startswith(b"HTTP/1.1 204 No Content\r\n")
            assert b"Content-Length" not in answer
            assert b"close" not in answer


def test_a_process_that_is_killed_is_followed_by_another():
    with serving(2) as (port, _pid):
        with closing(HTTPConnection("127.0.0.1", port)) as connection:
            killed = int(ask(connection).split()[0])
        os.kill(killed, 9)
        seen = set()

        def two_others():
            with closing(HTTPConnection("127.0.0.1", port)) as connection:
                seen.add(int(ask(connection).split()[0]))
            return len(seen - {killed}) == 2

        wait_until(two_others)


def test_what_is_under_way_is_answered_before_the_end():
    with serving(1) as (port, pid), connect(port) as connection:
        connection.sendall(b"GET / HTTP/1.1\r\n" + HOST + b"\r\n")
        connection.recv(65536)
        connection.sendall(b"GET /sleep HTTP/1.1\r\n" + HOST + b"\r\n")
        time.sleep(0.1)
        os.kill(pid, 15)
        assert connection.recv(65536).startswith(b"HTTP/1.1 200 OK")


SLOW = {
    "nothing": b"",
    "half a head": b"GET / HTTP/1.1\r\nHo",
    "a body of which nothing comes": b"POST / HTTP/1.1\r\nContent-Length: 9\r\n" + HOST + b"\r\n",
    "a GET with a body that does not come": b"GET / HTTP/1.1\r\nContent-Length: 9\r\n" + HOST + b"\r\n",
    "a chunk of which nothing comes":
        b"POST /small HTTP/1.1\r\nTransfer-Encoding: chunked\r\n" + HOST + b"\r\n9\r\n",
}  # fmt: skip


@pytest.mark.parametrize("sent", SLOW.values(), ids=SLOW)
def test_whoever_does_not_send_holds_no_thread_and_is_let_go(one, sent):
    with ExitStack() as opened:
        slow = [opened.enter_context(connect(one)) for _ in range(16)]
        for connection in slow:
            connection.sendall(sent)
        began = time.monotonic()
        with closing(HTTPConnection("127.0.0.1", one)) as quick:
            for _ in range(20):
                ask(quick)
        assert time.monotonic() - began < 1.0 * SLOWNESS
        answers = [read_all(connection) for connection in slow]
    if not sent:
        assert set(answers) == {b""}
    else:
        assert all(problem(answer, 408) for answer in answers)


@pytest.mark.parametrize("at", ["head", "body"])
def test_a_byte_now_and_then_does_not_begin_the_deadline_anew(one, at):
    with connect(one) as connection:
        if at == "body":
            connection.sendall(b"POST / HTTP/1.1\r\nContent-Length: 900\r\n" + HOST + b"\r\n")
        else:
            connection.sendall(b"GET / HTTP/1.1\r\nX: ")
        began = time.monotonic()
        with suppress(ConnectionError):
            while time.monotonic() - began < 4 * SLOWNESS:
                connection.sendall(b"x")
                time.sleep(0.2)
        assert time.monotonic() - began < 4 * SLOWNESS, "it was still listened to"


def test_a_slow_body_that_keeps_the_pace_comes_whole(one):
    with connect(one) as connection:
        connection.sendall(b"POST / HTTP/1.1\r\nContent-Length: 9000\r\n" + HOST + b"\r\n")
        for _ in range(9):
            connection.sendall(b"x" * 1000)
            time.sleep(0.4)
        assert connection.recv(65536).endswith(b" 9000")


def test_whoever_does_not_take_an_answer_is_let_go(one):
    with connect(one) as connection:
        connection.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 4096)
        connection.sendall(b"GET /?9000000 HTTP/1.1\r\n" + HOST + b"\r\n")
        began = time.monotonic()
        with suppress(ConnectionError):
            while time.monotonic() - began < 4 * SLOWNESS:
                connection.sendall(b"x")
                time.sleep(0.2)
        assert 1 < time.monotonic() - began < 4 * SLOWNESS


def test_an_idle_connection_is_kept_for_a_while_and_then_let_go(one):
    with closing(HTTPConnection("127.0.0.1", one)) as connection:
        ask(connection)
        time.sleep(1.5)
        ask(connection)
        began = time.monotonic()
        assert connection.sock.recv(1) == b""
        assert time.monotonic() - began > 2


def test_one_connection_too_many_ends_the_one_that_has_waited_longest():
    with serving(1, head_seconds=60) as (port, _pid), ExitStack() as opened:
        first = opened.enter_context(connect(port))
        first.sendall(b"GET / HT")
        time.sleep(0.05)
        others = [opened.enter_context(connect(port)) for _ in range(40)]
        assert read_all(first) == b""
        others[-1].sendall(b"GET / HTTP/1.1\r\n" + HOST + b"\r\n")
        assert others[-1].recv(65536).startswith(b"HTTP/1.1 200")


@pytest.mark.parametrize(
    ("head", "status", "detail"),
    [
        (b"GET /" + b"x" * 8200 + b" HTTP/1.1\r\nHost: h", 414, "longer than 8,190 bytes"),
        (b"GET /" + b"x" * 20_000 + b" HTTP/1.1\r\nHost: h", 414, "longer than 8,190 bytes"),
        (b"GET / HTTP/1.1\r\nHost: h\r\nX: " + b"y" * 8191, 431, "headers are too large"),
        (b"GET / HTTP/1.1\r\nHost: h\r\n" + b"X: y\r\n" * 4000 + b"Z: z", 431, "too large"),
        (b"GET / HTTP/1.1", 400, "no Host"),
        (b"nonsense", 400, "not HTTP"),
        (b"GET / HTTP/1.1\r\nHost: h\r\nbad header", 400, "not HTTP"),
        (b"POST / HTTP/1.1\r\nHost: h\r\nContent-Length: -1", 400, "not HTTP"),
        (b"POST / HTTP/1.1\r\nHost: h\r\nContent-Length: 1\r\nTransfer-Encoding: chunked", 400, "not both"),
        (b"POST / HTTP/1.1\r\nHost: h\r\nTransfer-Encoding: gzip", 501, "in no other encoding"),
        (b"POST /small HTTP/1.1\r\nHost: h\r\nContent-Length: 1001", 413, "larger than the 1,000"),
        (b"POST / HTTP/1.1\r\nHost: h\r\nContent-Length: 70000", 401, "Who are you?"),
        (b"POST / HTTP/1.1\r\nHost: h\r\nTransfer-Encoding: chunked", 401, "Who are you?"),
        (b"POST / HTTP/1.1\r\nHost: h\r\nContent-Length: 6000000", 507, "no room"),
    ],
)  # fmt: skip
def test_what_is_not_let_in_is_refused_at_its_head(one, head, status, detail):
    assert detail in problem(said(one, head + b"\r\n\r\n"), status)


@pytest.mark.parametrize("length", [999, 1000])
def test_a_body_up_to_the_limit_is_let_in(one, length):
    head = b"POST /small HTTP/1.1\r\nConnection: close\r\nContent-Length: %d\r\n" % length
    assert said(one, head + HOST + b"\r\n" + b"x" * length).endswith(b" %d" % length)


def test_a_body_in_chunks_is_cut_off_at_the_limit(one):
    head = b"POST /small HTTP/1.1\r\nTransfer-Encoding: chunked\r\n" + HOST + b"\r\n"
    detail = problem(said(one, head, *[b"64\r\n" + b"x" * 100 + b"\r\n"] * 12), 413)
    assert "larger than the 1,000 bytes" in detail


@pytest.mark.parametrize("size", [b"zz\r\n", b"-1\r\n", b"1;" + b"x" * 2000])
def test_a_chunk_of_no_size_is_refused(one, size):
    head = b"POST /small HTTP/1.1\r\nTransfer-Encoding: chunked\r\n" + HOST + b"\r\n"
    assert "not HTTP" in problem(said(one, head + size), 400)


def test_a_refusal_reaches_whoever_is_still_sending(one):
    head = b"POST /small HTTP/1.1\r\nContent-Length: 3000000\r\n" + HOST + b"\r\n"
    with connect(one) as connection:
        sender = threading.Thread(target=send_quietly, args=(connection, head + b"x" * 3_000_000))
        sender.start()
        problem(read_all(connection), 413)
        sender.join()


def send_quietly(connection, data):
    with suppress(ConnectionError):
        connection.sendall(data)


def test_what_comes_behind_a_refusal_is_not_taken_for_a_request(one):
    hidden = b"GET / HTTP/1.1\r\n" + HOST + b"\r\n"
    head = b"POST /small HTTP/1.1\r\nContent-Length: 5000\r\n" + HOST + b"\r\n"
    assert said(one, head + hidden).count(b"HTTP/1.1 ") == 1


def test_a_large_body_comes_in_once_its_head_was_let_in(one):
    head = b"POST / HTTP/1.1\r\nConnection: close\r\nAuthorization: yes\r\n" + HOST
    body = b"x" * 3_000_000
    assert said(one, head + b"Content-Length: 3000000\r\n\r\n", body).endswith(b" 3000000")
    with connect(one) as connection:
        connection.sendall(head + b"Expect: 100-continue\r\nContent-Length: 3000000\r\n\r\n")
        assert connection.recv(65536) == b"HTTP/1.1 100 Continue\r\n\r\n"
        connection.sendall(body)
        assert read_all(connection).endswith(b" 3000000")


def test_nobody_is_asked_for_a_body_that_is_refused(one):
    head = b"POST / HTTP/1.1\r\nExpect: 100-continue\r\nContent-Length: 3000000\r\n" + HOST
    assert b"100 Continue" not in said(one, head + b"\r\n")


def test_requests_sent_at_once_are_answered_in_their_order(one):
    request = b"GET /?%d HTTP/1.1\r\n" + HOST + b"\r\n"
    last = b"GET /?3 HTTP/1.1\r\nConnection: close\r\n" + HOST + b"\r\n"
    answer = said(one, request % 1 + request % 2 + last)
    assert [piece.count(b"x") for piece in answer.split(b"\r\n\r\n")[1:]] == [1, 2, 3]
