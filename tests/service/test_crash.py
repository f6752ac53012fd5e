"""Nothing that was answered with 201 is lost, whatever dies."""

import os
import signal
import threading
import time
from collections import Counter
from pathlib import Path

import httpx

SLOTS = {"piano": {"country_code": "GB"}}
VALUES = {
    "contact": "Crash", "phone": "+44 20 555 0100", "visit": "tuning", "piano_number": "1",
    "piano_street": "Abbey Mews", "piano_town": "Brackwater", "piano_postcode": "QV1 1AA",
}  # fmt: skip


def processes_of(stack):
    """The processes of the stack: the service with its workers, and its database."""
    found = {}
    for entry in Path("/proc").iterdir():
        if not entry.name.isdigit():
            continue
        try:
            command = (entry / "cmdline").read_bytes().replace(b"\0", b" ").decode()
            environment = (entry / "environ").read_bytes()
        except OSError:
            continue
        ours = f"ANCHORLINE_VAR_DIR={stack.folder}\0".encode() in environment
        if f"--datadir={stack.folder}" in command or (ours and "anchorline.service" in command):
            found[int(entry.name)] = command
    return found


def test_a_kill_of_everything_in_the_middle_loses_and_doubles_no_record(scratch_stack):
    answered, refused = {}, []

    def submit(numbers):
        with scratch_stack.http() as http:
            for number in numbers:
                try:
                    answer = http.post(
                        "/api/v1/forms/tuning-visit/records",
                        json={"values": {**VALUES, "note": f"crash {number}"}, "slots": SLOTS},
                        headers={"Idempotency-Key": f"crash-{number}"},
                    )
                except httpx.TransportError:
                    refused.append(number)
                    continue
                if answer.status_code == 201:
                    answered[number] = answer.json()["id"]
                else:
                    refused.append(number)

    threads = [threading.Thread(target=submit, args=(range(n, 100, 4),)) for n in range(4)]
    for thread in threads:
        thread.start()
    while len(answered) < 40:
        time.sleep(0.002)
    for pid in processes_of(scratch_stack):
        os.kill(pid, signal.SIGKILL)
    for thread in threads:
        thread.join()
    assert refused, "the kill came after the last submit; nothing was tried"

    scratch_stack.demo("start")
    with scratch_stack.http() as http:
        kept, after = [], None
        while True:
            query = {"search": "crash", "limit": 200} | ({"after": after} if after else {})
            page = http.get("/api/v1/records", params=query).json()
            kept += [record["id"] for record in page["records"]]
            after = page["after"]
            if after is None:
                break
        counted = Counter(http.get(f"/api/v1/records/{i}").json()["values"]["note"] for i in kept)
        for number, identifier in answered.items():
            assert identifier in kept, f"submit {number} was answered with 201 and is gone"
        assert all(times == 1 for times in counted.values()), counted
        # Those that were refused are sent again with their key, and make one record each.
        for number in refused:
            again = http.post(
                "/api/v1/forms/tuning-visit/records",
                json={"values": {**VALUES, "note": f"crash {number}"}, "slots": SLOTS},
                headers={"Idempotency-Key": f"crash-{number}"},
            )
            assert again.status_code == 201
        assert http.get("/api/v1/records", params={"search": "crash"}).json()["total"] == 100


def test_the_service_brings_its_database_back(scratch_stack):
    killed = scratch_stack.database_pid()
    os.kill(killed, signal.SIGKILL)
    scratch_stack.until_database(other_than=killed)
    assert scratch_stack.database_pid() != killed
    with scratch_stack.http() as http:
        assert http.get("/api/v1/records", params={"search": "crash"}).json()["total"] == 100
