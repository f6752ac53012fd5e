"""The worker holds the leases of its jobs, whatever their processes get of the machine."""

import os
import time
import uuid

import pytest
from sqlalchemy import text

from anchorline.service.context import make_services
from anchorline.service.loading.priority import NICENESS
from anchorline.service.loading.worker import DATABASE_AWAY, Worker
from anchorline.service.settings import read_settings
from anchorline.store.job_model import LEASE, MOST_ATTEMPTS, NewJob
from anchorline.store.jobs import JobStore
from tests.waiting import wait_until


def sleeps(_services, _claim):
    time.sleep(60)
    return 0


def ends_with(status):
    return lambda _services, _claim: status


def fails(_services, _claim):
    raise ValueError("no one's fault")


@pytest.fixture
def worker_of(database, tmp_path):
    """Makes workers whose jobs do what the test wants."""
    given = {"ANCHORLINE_VAR_DIR": str(tmp_path), "ANCHORLINE_LOADS": "8"}
    services, made = make_services(read_settings(given), database), []

    def work(session):
        session.execute(text("UPDATE job SET state = 'cancelled'"))  # those of other tests

    database.run(work)

    def make(work, **more):
        settings = read_settings({**given, **more})
        made.append(Worker(settings, services, work=work, renew_every=0))
        return made[-1]

    yield make
    for worker in made:
        worker.end_all()


@pytest.fixture
def job(database, worker_of):
    return JobStore(database).make(NewJob("load", f"d{uuid.uuid4().hex[:9]}", "me")).id


def ended(process):
    """A process's exit status, waited for."""
    wait_until(lambda: process.poll() is not None, every=0.01)
    return process.returncode


def look_until(worker, jobs, job, wanted):
    def look():
        worker.look()
        return wanted(jobs.get(job))

    wait_until(look, every=0.02)


def test_a_job_whose_process_gets_no_time_is_neither_given_up_nor_done_twice(
    worker_of, job, database, clock
):
    worker, jobs = worker_of(sleeps), JobStore(database)
    worker.look()
    (process,) = worker._running
    for _ in range(20):
        clock.forward(seconds=LEASE.total_seconds() - 1)
        worker.look()
        assert jobs.claim() is None, "another worker would do it as well"
    assert list(worker._running) == [process]
    assert (jobs.get(job).state, jobs.get(job).attempts) == ("running", 0)


def test_after_the_database_was_away_the_worker_goes_on_holding_its_job(
    worker_of, job, database, clock
):
    worker, jobs = worker_of(sleeps), JobStore(database)
    worker.look()
    clock.forward(seconds=LEASE.total_seconds() * 3)
    worker.look()
    assert len(worker._running) == 1, "its own job looked orphaned to it"
    assert jobs.claim() is None


def test_a_process_whose_job_another_worker_has_by_now_is_ended(worker_of, job, database, clock):
    worker, jobs = worker_of(sleeps), JobStore(database)
    worker.look()
    (process,) = worker._running
    clock.forward(seconds=LEASE.total_seconds() + 1)
    assert jobs.claim()[0].id == job
    worker.look()
    assert ended(process) != 0
    worker.look()
    assert not worker._running
    assert jobs.get(job).attempts == 0


def test_only_processes_that_really_died_count_until_the_job_is_given_up(worker_of, job, database):
    jobs = JobStore(database)
    look_until(worker_of(ends_with(9)), jobs, job, lambda found: found.state == "failed")
    assert jobs.get(job).attempts == MOST_ATTEMPTS
    assert f"died {MOST_ATTEMPTS} times" in jobs.get(job).message


def test_a_process_that_ends_because_the_database_was_away_costs_no_attempt(
    worker_of, job, database
):
    worker, jobs = worker_of(ends_with(DATABASE_AWAY)), JobStore(database)
    worker.look()
    (process,) = worker._running
    ended(process)
    worker.look()
    assert (jobs.get(job).state, jobs.get(job).attempts) == ("running", 0), "started again"


@pytest.mark.parametrize(
    ("setting", "niceness"), [("", NICENESS), ("low", NICENESS), ("normal", 0)]
)
def test_jobs_step_back_behind_people_who_type_unless_the_settings_say_otherwise(
    worker_of, job, setting, niceness
):
    worker = worker_of(sleeps, ANCHORLINE_LOAD_PRIORITY=setting)
    worker.look()
    (process,) = worker._running
    wait_until(lambda: os.getsid(process.pid) == process.pid)
    wait_until(lambda: os.getpriority(os.PRIO_PROCESS, process.pid) == niceness)


def test_a_job_whose_work_raises_counts_as_one_that_died(worker_of, job, database):
    jobs = JobStore(database)
    look_until(worker_of(fails), jobs, job, lambda found: found.state == "failed")
    assert jobs.get(job).attempts == MOST_ATTEMPTS


def test_a_job_has_connections_of_its_own(worker_of, job, database):
    """Two processes that talk over one connection would read each other's answers."""

    def asks(services, claim):
        for _ in range(50):
            services.jobs.renew(claim)
        return DATABASE_AWAY

    worker, jobs = worker_of(asks), JobStore(database)
    worker.look()
    (process,) = worker._running
    while process.poll() is None:
        assert jobs.get(job).state == "running"
    assert process.returncode == DATABASE_AWAY
