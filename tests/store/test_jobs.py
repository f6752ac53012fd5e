"""Jobs: claimed by one worker at a time, held by a lease, done in order within a dataset."""

import threading
import uuid

import pytest
from sqlalchemy import text

from anchorline.core.gazetteer import Row
from anchorline.core.gazetteer.rows import RowBlock
from anchorline.core.reference import BadRow, Findings
from anchorline.store.database import AlreadyThereError, NotThereError, ReusedKeyError
from anchorline.store.datasets import (
    Dataset,
    DatasetRules,
    DatasetStore,
    EditionEntry,
    superfluous,
)
from anchorline.store.idempotency import IdempotencyKey
from anchorline.store.job_model import LEASE, MOST_ATTEMPTS, LostJobError, NewJob, NoFileError
from anchorline.store.jobs import JobStore
from anchorline.store.load_data import KeptBlock, LoadData
from anchorline.store.purge import purge_expired


@pytest.fixture
def jobs(database):
    """The jobs, with none left over from other tests."""

    def work(session):
        session.execute(text("UPDATE job SET state = 'cancelled', alone = NULL"))

    database.run(work)
    return JobStore(database)


def new(dataset=None, **options):
    return NewJob("load", dataset or f"d{uuid.uuid4().hex[:12]}", "me", "a.csv", options)


def test_a_job_is_done_by_one_worker_and_ends_with_its_message(jobs):
    made = jobs.make(new())
    job, claim = jobs.claim()
    assert (job.id, job.state, job.attempts) == (made.id, "running", 0)
    assert jobs.claim() is None
    jobs.end(claim, "done", "Edition 1 is ready.")
    ended = jobs.get(job.id)
    assert (ended.state, ended.message, ended.phase) == ("done", "Edition 1 is ready.", "")
    with pytest.raises(LostJobError):
        jobs.end(claim, "failed", "again")


def test_addresses_that_were_given_with_a_job_go_when_it_ends(jobs):
    rows = [{"town": "Marl"}]
    made = jobs.make(NewJob("coverage", "", "me", options={"form": "f", "rows": rows}))
    _job, claim = jobs.claim()
    assert jobs.get(made.id).options["rows"] == rows
    jobs.end(claim, "done", "")
    assert jobs.get(made.id).options == {"form": "f"}
    waiting = jobs.make(NewJob("coverage", "", "me", options={"form": "f", "rows": rows}))
    jobs.cancel(waiting.id)
    assert jobs.get(waiting.id).options == {"form": "f"}


def test_of_twelve_that_begin_at_once_about_the_same_one_is_made(jobs):
    made, refused = [], []
    start = threading.Barrier(12)

    def begin():
        start.wait()
        try:
            made.append(jobs.make(NewJob("coverage", "", "me", alone="coverage of f/s")))
        except AlreadyThereError:
            refused.append(1)

    threads = [threading.Thread(target=begin) for _ in range(12)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert (len(made), len(refused)) == (1, 11)
    jobs.make(NewJob("coverage", "", "me", alone="coverage of f/other"))


@pytest.mark.parametrize("how", ["done", "failed", "cancelled", "cancelled before it began"])
def test_however_it_ends_another_one_about_the_same_can_begin(jobs, how):
    new_one = NewJob("coverage", "", "me", alone=f"coverage of {how}")
    made = jobs.make(new_one)
    if how == "cancelled before it began":
        jobs.cancel(made.id)
    else:
        job, claim = jobs.claim()
        assert job.id == made.id
        jobs.end(claim, how, "")
    assert jobs.make(new_one).id != made.id


def test_the_jobs_of_a_dataset_wait_for_each_other_and_others_do_not(jobs, clock):
    first = jobs.make(new("same"))
    clock.forward(seconds=1)
    second = jobs.make(new("same"))
    clock.forward(seconds=1)
    other = jobs.make(new("other"))
    claims = [jobs.claim(), jobs.claim()]
    assert [job.id for job, _ in claims] == [first.id, other.id]
    assert jobs.claim() is None
    jobs.end(claims[0][1], "done", "")
    assert jobs.claim()[0].id == second.id


def test_a_lease_that_runs_out_gives_the_job_to_another_and_shuts_the_first_one_out(jobs, clock):
    jobs.make(new())
    job, dead = jobs.claim()
    assert jobs.renew(dead) is False
    clock.forward(seconds=LEASE.total_seconds() + 1)
    again, alive = jobs.claim()
    assert (again.id, again.attempts) == (job.id, 0), "nobody saw a process die"
    with pytest.raises(LostJobError):
        jobs.renew(dead)
    with pytest.raises(LostJobError):
        jobs.enter_phase(dead, "building")
    jobs.enter_phase(alive, "building", edition=3)
    assert (jobs.get(job.id).phase, jobs.get(job.id).edition) == ("building", 3)
    jobs.end(alive, "done", "")


def test_a_job_at_which_workers_die_is_given_up(jobs):
    made = jobs.make(new())
    for _ in range(MOST_ATTEMPTS):
        jobs.release(jobs.claim()[1])
    assert jobs.claim() is None
    assert (jobs.get(made.id).state, "died 3 times" in jobs.get(made.id).message) == (
        "failed",
        True,
    )


def test_a_worker_that_ends_in_order_costs_no_attempt(jobs):
    jobs.make(new())
    jobs.hand_back(jobs.claim()[1])
    job, claim = jobs.claim()
    assert job.attempts == 0
    jobs.end(claim, "done", "")


def test_the_file_of_a_load_stays_until_it_is_done_or_thrown_away(jobs, database):
    data = LoadData(database)

    def received():
        job = jobs.make(new(), receiving=True)
        data.add_part(job.id, 0, b"a piece")
        assert not job.file_kept
        return jobs.received(job.id, size=7, digest="d").id

    given_up = received()
    for _ in range(MOST_ATTEMPTS):
        jobs.release(jobs.claim()[1])
    assert jobs.claim() is None
    cancelled = received()
    jobs.cancel(cancelled)
    failed = received()
    jobs.end(jobs.claim()[1], "failed", "too many bad rows")
    for job, state in (given_up, "failed"), (cancelled, "cancelled"), (failed, "failed"):
        ended = jobs.get(job)
        assert (ended.state, ended.file_kept) == (state, True)
        assert list(data.parts(job)) == [b"a piece"]
        again = jobs.retry(job, {"bad_share": 0.5})
        assert (again.state, again.attempts, again.ended_at) == ("waiting", 0, None)
        assert again.options["bad_share"] == 0.5
        with pytest.raises(NoFileError, match="The load is waiting"):
            jobs.retry(job, {})
        with pytest.raises(NoFileError, match="cancel it first"):
            jobs.discard_file(job)
        jobs.cancel(job)
        assert jobs.discard_file(job).file_kept is False
        assert list(data.parts(job)) == []
        with pytest.raises(NoFileError, match="not kept any more; send it again"):
            jobs.retry(job, {})
    with pytest.raises(NotThereError):
        jobs.retry("nothing", {})
    rebuild = jobs.make(NewJob("rebuild", "any", "me", edition=1))
    jobs.cancel(rebuild.id)
    with pytest.raises(NoFileError, match="is a rebuild"):
        jobs.retry(rebuild.id, {})


def test_cancelling_ends_a_waiting_job_at_once_and_asks_a_running_one(jobs, database):
    waiting = jobs.make(new(), receiving=True)
    LoadData(database).add_part(waiting.id, 0, b"a piece")
    assert jobs.cancel(waiting.id).state == "cancelled"
    assert list(LoadData(database).parts(waiting.id)) == [], "nothing is kept for it"
    running = jobs.make(new())
    _, claim = jobs.claim()
    assert jobs.cancel(running.id).state == "running"
    assert jobs.renew(claim) is True
    assert jobs.asked_to_end(claim) is True
    jobs.release(claim)
    assert jobs.claim() is None
    assert jobs.get(running.id).state == "cancelled"
    with pytest.raises(NotThereError):
        jobs.cancel("nothing")


def test_many_workers_at_once_never_take_the_same_job_nor_two_of_a_dataset(jobs):
    datasets = [f"busy{i}" for i in range(4)]
    for dataset in datasets * 3:
        jobs.make(new(dataset))
    taken, lock = [], threading.Lock()

    def work():
        for _ in range(30):
            claimed = jobs.claim()
            if claimed is None:
                continue
            job, claim = claimed
            with lock:
                assert job.dataset not in [d for _, d, ended in taken if not ended]
                taken.append(entry := [job.id, job.dataset, False])
            with lock:
                entry[2] = True
                jobs.end(claim, "done", "")

    threads = [threading.Thread(target=work) for _ in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(taken) == len({job for job, _, _ in taken}) == 12


def test_a_key_makes_one_job_of_the_same_file_and_refuses_another(jobs):
    def once(request):
        return IdempotencyKey("server/load/x", f"k-{made.id}", request)

    made = jobs.make(new("keyed"), receiving=True)
    assert jobs.received(made.id, size=3, digest="d", key=once(b"file")).state == "waiting"
    again = jobs.make(new("keyed"), receiving=True)
    with pytest.raises(AlreadyThereError):
        jobs.received(again.id, size=3, digest="d", key=once(b"file"))
    assert jobs.made_by_key(once(b"file")).id == made.id
    with pytest.raises(ReusedKeyError):
        jobs.made_by_key(once(b"another"))
    jobs.withdraw(again.id)
    with pytest.raises(NotThereError):
        jobs.get(again.id)


def test_blocks_come_back_as_they_were_kept_and_count_with_them(jobs, database):
    data = LoadData(database)
    job = jobs.make(new(), receiving=True)
    for position, part in enumerate([b"ab", b"c"]):
        data.add_part(job.id, position, part)
    assert b"".join(data.parts(job.id)) == b"abc"
    jobs.received(job.id, size=3, digest="")
    _, claim = jobs.claim()
    rows = [Row("a", "GB", {"town": "T"}, "en", 1.5, None), Row("b", "FR", {"street": "é"})]
    bad = BadRow(4, "c", "bad-use", "use", "caf\udce9", "c,GB")
    findings = Findings()
    findings.add_bad(bad)
    kept = KeptBlock(RowBlock.of(rows), [2, 3], 4, [bad], findings, [("x", 5)])
    data.add_block(claim, 0, kept, bytes_done=2)
    ((position, back),) = data.blocks(job.id)
    assert (position, list(back.rows.rows()), list(back.lines)) == (0, rows, [2, 3])
    assert back.drops == [("x", 5)]
    assert [b.reason for b in data.bad_rows(job.id)] == ["caf?"]
    assert data.findings(job.id).tallies["bad-use"].count == 1
    now = jobs.get(job.id)
    assert (now.rows_done, now.rows_bad, now.bytes_done) == (4, 1, 2)
    assert data.rows_used(job.id) == 2
    data.drop_rows(job.id)
    assert data.rows_used(job.id) == 0
    assert len(list(data.bad_rows(job.id))) == 1
    jobs.end(claim, "failed", "")
    with pytest.raises(LostJobError):
        data.add_block(claim, 1, kept, bytes_done=3)
    assert data.block_positions(job.id) == [0]


def test_editions_are_numbered_once_activated_and_go_back(jobs, database):
    datasets = DatasetStore(database)
    name = jobs.make(new()).dataset
    numbers = [datasets.give_number(name) for _ in range(3)]
    assert numbers == [1, 2, 3]
    for number in numbers[:2]:
        datasets.put_edition(EditionEntry(name, number, "a.csv", "", 10, 0))
    datasets.activate(name, 1)
    datasets.activate(name, 2)
    assert (datasets.get(name).active, datasets.get(name).previous) == (2, 1)
    datasets.activate(name, 1)
    assert (datasets.get(name).active, datasets.get(name).previous) == (1, 2)
    with pytest.raises(NotThereError):
        datasets.activate(name, 3)
    with pytest.raises(NotThereError, match="is active; it stays"):
        datasets.remove_edition(name, 1)
    datasets.remove_edition(name, 2)
    assert [e.number for e in datasets.editions(name)] == [1]
    assert datasets.get(name).previous is None
    datasets.set_rules(name, DatasetRules(automatic=True, keep=1))
    assert datasets.get(name).rules == DatasetRules(automatic=True, keep=1)


@pytest.mark.parametrize(
    ("active", "previous", "keep", "gone"),
    [(5, 4, 1, [1, 2]), (5, 1, 1, [2, 3]), (1, None, 0, [5, 4, 3, 2]), (None, None, 9, [])],
)
def test_what_is_not_kept_is_the_oldest_beside_active_and_previous(active, previous, keep, gone):
    dataset = Dataset("d", active, previous, DatasetRules(keep=keep))
    assert sorted(superfluous(dataset, [1, 2, 3, 4, 5])) == sorted(gone)


def test_old_jobs_go_with_their_reports_but_for_those_that_editions_are_built_from(
    jobs, database, clock
):
    data = LoadData(database)
    kept, forgotten = jobs.make(new()), None
    _, claim = jobs.claim()
    jobs.end(claim, "done", "")
    DatasetStore(database).put_edition(
        EditionEntry(kept.dataset, 1, "a.csv", "", 1, 0, job=kept.id)
    )
    forgotten = jobs.make(new())
    _, claim = jobs.claim()
    data.add_block(claim, 0, KeptBlock(RowBlock({}, [], [])), bytes_done=0)
    jobs.end(claim, "failed", "")
    unsent = jobs.make(new(), receiving=True)
    clock.forward(days=2)
    purge_expired(database, 14)
    assert jobs.get(forgotten.id)
    with pytest.raises(NotThereError):
        jobs.get(unsent.id)
    clock.forward(days=90)
    purge_expired(database, 14)
    assert jobs.get(kept.id)
    assert data.block_positions(forgotten.id) == []
    with pytest.raises(NotThereError):
        jobs.get(forgotten.id)


def test_making_and_claiming_jobs_of_a_dataset_at_once_never_locks_up(jobs):
    faults = []

    def make():
        try:
            for _ in range(40):
                jobs.make(new("crowded"))
        except Exception as fault:
            faults.append(fault.__cause__ or fault)

    def work():
        try:
            for _ in range(60):
                if claimed := jobs.claim():
                    jobs.end(claimed[1], "done", "")
        except Exception as fault:
            faults.append(fault.__cause__ or fault)

    threads = [threading.Thread(target=target) for target in (make, work) * 3]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert faults == []


def test_the_first_jobs_of_a_new_dataset_may_come_at_once(jobs):
    for turn in range(12):
        name, faults, made = f"fresh{turn}", [], []
        gate = threading.Barrier(4)

        def make(name=name, faults=faults, made=made, gate=gate):
            gate.wait()
            try:
                made.append(jobs.make(new(name)).id)
            except Exception as fault:
                faults.append(fault.__cause__ or fault)

        threads = [threading.Thread(target=make) for _ in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        assert faults == []
        assert len(set(made)) == 4
