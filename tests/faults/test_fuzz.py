"""Thousands of requests that nobody means well, none of which may be the service's fault."""

import threading
from collections import Counter

from tests.faults.conftest import ALONE
from tests.faults.fuzz import make, status_of

REQUESTS = 20_000 if ALONE else 2_500
SENDERS = 4
SEED = 2470
# What a server says to a transfer coding that it does not have (RFC 9112, 6.1).
NOT_IMPLEMENTED = 501
AWAY = 503


def test_no_request_is_answered_with_an_error_of_the_service(service, figures):
    answering = service.parts()["one that answers"]
    address, key = ("127.0.0.1", service.port), service.access["server_key"]
    counted, bad, lock = Counter(), [], threading.Lock()

    def send(first):
        for number in range(first, REQUESTS, SENDERS):
            noise = make(SEED, number, key)
            status = status_of(address, noise)
            if status == AWAY and not ALONE:
                # Other tests starved the database for a moment: its clients are told to come again.
                service.wait_until_ready()
                status = status_of(address, noise)
            with lock:
                counted[status] += 1
                if status >= 500 and status != NOT_IMPLEMENTED:
                    bad.append((status, str(noise)))

    threads = [threading.Thread(target=send, args=(n,)) for n in range(SENDERS)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    said = ", ".join(f"{status or 'none'}: {n:,}" for status, n in sorted(counted.items()))
    figures(f"fuzzed, {REQUESTS:,} requests: {len(bad)} x 5xx   ({said})")
    assert bad == [], bad[:5]
    service.wait_until_ready()
    assert service.parts()["one that answers"] == answering, "a process died of it"
    assert counted[200] > 0.05 * REQUESTS, "nothing of it came through"
