"""The steps of the operators' page to back up and restore, done as they stand there."""

import os
import re
import subprocess
import sys
import tempfile
import time
from pathlib import Path

import httpx
import pytest

from tests.conftest import PROJECT, free_port
from tests.waiting import wait_until

PAGE = (PROJECT / "docs" / "operators.md").read_text()
ASKED = (
    "/api/v1/suggest?q=kiln%20cres", "/api/v1/addresses/demo:GB0000001", "/api/v1/records?sort=oldest",
    "/api/v1/forms", "/api/v1/forms/tuning-visit", "/api/v1/layouts/JP", "/api/v1/datasets/demo",
)  # fmt: skip


def steps(name):
    (block,) = re.findall(rf"<!-- tried: {name} -->\n```sh\n(.*?)```", PAGE, re.DOTALL)
    return block


def do(name, environment):
    done = subprocess.run(
        ["bash", "-eo", "pipefail", "-c", steps(name)],
        env=environment, capture_output=True, text=True, timeout=400,
    )  # fmt: skip
    assert done.returncode in (0, 143), done.stdout + done.stderr


def answers(url, key):
    with httpx.Client(base_url=url, trust_env=False, timeout=60) as http:
        http.headers["Authorization"] = f"Bearer {key}"
        return {path: without_times(http.get(path).json()) for path in ASKED}


def is_ready(url):
    try:
        return httpx.get(f"{url}/readyz", trust_env=False, timeout=200).status_code == 200
    except httpx.TransportError:
        return False


def without_times(answer):
    """An edition's index is built anew, so its size and jobs are its own."""
    for name in ("jobs", "disk_bytes"):
        answer.pop(name, None)
    for edition in answer.get("editions", []):
        edition.pop("index_bytes", None)
    return answer


@pytest.fixture
def elsewhere():
    folder = Path(tempfile.mkdtemp(prefix="anchorline-restored-", dir="/tmp"))
    folder.chmod(0o755)
    yield folder
    subprocess.run(["rm", "-rf", str(folder)], check=True)


def test_a_restored_copy_answers_the_same(stack, elsewhere):
    path = f"{Path(sys.executable).parent}:{os.environ['PATH']}"
    backup = {"BACKUP": str(elsewhere / "backup"), "PATH": path}
    # An address that was served while the database was away, and is not counted yet.
    waiting = stack.folder / "uses" / "waiting"
    kept = waiting.read_bytes() if waiting.exists() else b""
    do("back up", stack.environment | backup)
    there = list((elsewhere / "backup").rglob("*"))
    assert {one.name for one in there} >= {"database.sql.gz", "service-secret", "uses"}
    assert [one for one in (elsewhere / "backup", *there) if one.stat().st_mode & 0o077] == []
    assert (elsewhere / "backup" / "uses" / "reserve").stat().st_size
    assert not kept or (elsewhere / "backup" / "uses" / "waiting").read_bytes() == kept
    restored = stack.environment | backup | {
        "ANCHORLINE_VAR_DIR": str(elsewhere / "var"),
        "ANCHORLINE_PORT": str(free_port()),
        "ANCHORLINE_DATABASE_PORT": str(free_port()),
    }  # fmt: skip
    do("restore", restored)
    assert (elsewhere / "var" / "uses" / "reserve").exists()
    process = subprocess.Popen(
        [sys.executable, "-m", "anchorline.service", "run", "--worker"],
        env=restored, stderr=subprocess.DEVNULL,
    )  # fmt: skip
    try:
        url = f"http://127.0.0.1:{restored['ANCHORLINE_PORT']}"
        wait_until(lambda: is_ready(url), 120, "the index was not built anew")
        time.sleep(1.2)  # until all processes have opened it
        key = stack.access["server_key"]
        assert answers(url, key) == answers(stack.url, key)
        page = httpx.get(f"{stack.url}/f/tuning-visit", trust_env=False, timeout=60).text
        token = page.split('access="')[1].split('"')[0]
        asked = {"Authorization": f"Bearer {token}"}
        open_form = httpx.get(
            f"{url}/api/v1/forms/tuning-visit", headers=asked, trust_env=False, timeout=60
        )
        assert open_form.status_code == 200, "a page that was open before goes on"
    finally:
        process.terminate()
        process.wait(40)
