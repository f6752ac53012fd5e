"""Started as root, what answers and what loads is somebody else."""

import os
from pathlib import Path

import psutil
import pytest

from anchorline.service.running.account import ServiceAccount
from anchorline.service.running.run_error import RunError
from anchorline.service.settings import read_settings
from tests.service.test_crash import processes_of
from tests.waiting import wait_until

AS_ROOT = pytest.mark.skipif(os.geteuid() != 0, reason="only root steps down")


@AS_ROOT
def test_only_the_supervisor_stays_root(stack):
    accounts = {}
    for pid, command in processes_of(stack).items():
        accounts.setdefault(psutil.Process(pid).username(), []).append(command)
    assert len(accounts.pop("root")) == 1
    assert all("mariadbd" in command for command in accounts.pop("mysql"))
    assert set(accounts) == {"anchorline"}
    ready = [command for command in accounts["anchorline"] if "--wait" in command]
    assert len(ready) <= 1, "one that stands ready, some seconds after the start"
    there = len(accounts["anchorline"]) - len(ready)
    assert there == 4, "the parent, two that answer, the worker"


@AS_ROOT
def test_what_gets_ready_is_in_nobodys_way_and_what_answers_comes_first(stack):
    def niceness(ready):
        commands = processes_of(stack).items()
        return {
            psutil.Process(pid).nice()
            for pid, command in commands
            if " answer" in command and ("--wait" in command) == ready
        }

    wait_until(lambda: niceness(True) == {19}, why="nothing stands ready")
    assert niceness(False) == {0}


@AS_ROOT
def test_it_may_change_nothing_but_its_own_files(stack):
    pid = next(p for p, command in processes_of(stack).items() if command.endswith("answer "))
    status = Path(f"/proc/{pid}/status").read_text()
    capabilities = int(status.split("CapEff:")[1].split()[0], 16)
    read_search = 1 << 2
    assert capabilities & ~read_search == 0
    assert status.split("NoNewPrivs:")[1].split()[0] == "1"


@AS_ROOT
def test_an_account_that_is_not_there_is_said_with_the_remedy():
    with pytest.raises(RunError, match="useradd --system --no-create-home nobody-here"):
        ServiceAccount(read_settings({"ANCHORLINE_ACCOUNT": "nobody-here"}))


@AS_ROOT
def test_staying_root_must_be_asked_for():
    account = ServiceAccount(read_settings({"ANCHORLINE_ACCOUNT": "root"}))
    assert not account.steps_down
    assert "--reuid" not in " ".join(account.command("true"))
