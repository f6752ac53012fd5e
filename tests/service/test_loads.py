"""Loading reference data through the service: files in, editions compared, activated, left."""

import gzip
import io
import json
import time
import uuid

import httpx
import pytest

from anchorline.core.gazetteer.arrays import FORMAT_VERSION
from anchorline.core.keys import WantedKey
from anchorline.service.app import create_app, services_of
from anchorline.service.loading.job_process import PROCESS_NAME
from anchorline.service.settings import read_settings
from tests.conftest import processes_of
from tests.waiting import SLOWNESS, wait_until

HEADER = "id,country_code,street,town,postcode,latitude,longitude\r\n"


def rows(count, **changed):
    """A file of made-up rows; `changed` replaces rows by number, None leaves one out."""
    lines = [f"r{i},GB,Gritstone Row {i // 20},Marl,QV1 1AA,52.5,-1.5" for i in range(count)]
    for place, text in changed.items():
        lines[int(place.removeprefix("r"))] = text
    return (HEADER + "\r\n".join(line for line in lines if line is not None) + "\r\n").encode()


@pytest.fixture
def http(scratch_stack):
    with scratch_stack.http() as opened:
        opened.base_url = f"{scratch_stack.url}/api/v1/"
        yield opened


@pytest.fixture
def name():
    """A dataset of the test's own."""
    return f"t{uuid.uuid4().hex[:10]}"


def send(http, name, content, **query):
    answer = http.post(
        f"datasets/{name}/editions", params=query, content=content,
        headers={"Content-Type": "text/csv"},
    )  # fmt: skip
    assert answer.status_code == 202, answer.text
    assert answer.headers["Location"] == f"/api/v1/jobs/{answer.json()['id']}"
    return answer.json()["id"]


def wait(http, job, *, until=("done", "failed", "cancelled"), seconds=60):
    deadline = time.monotonic() + seconds
    while (found := http.get(f"jobs/{job}").json())["state"] not in until:
        assert time.monotonic() < deadline, found
        time.sleep(0.05)
    return found


def load(http, name, content, **query):
    return wait(http, send(http, name, content, **query))


def active_count(http, name):
    """How many addresses of a dataset the finder knows, asked until two seconds have passed."""
    editions = {e["dataset"]: e["addresses"] for e in http.get("overview").json()["editions"]}
    return editions.get(name, 0)


def within_two_seconds(check):
    wait_until(check, 2 * SLOWNESS, "not within two seconds, or what they are here")


def test_each_form_of_file_makes_the_next_edition(http, name):
    row = {"id": "1", "country_code": "GB", "town": "Marl", "floor": 2}
    files = [rows(3), gzip.compress(rows(4)), json.dumps(row).encode()]
    for number, (content, count) in enumerate(zip(files, (3, 4, 1), strict=True), start=1):
        job = load(http, name, content)
        assert (job["state"], job["edition"], job["rows_done"]) == ("done", number, count), job
    editions = http.get(f"datasets/{name}").json()["editions"]
    assert [(e["number"], e["active"], e["rows_used"]) for e in editions] == [
        (3, False, 1), (2, False, 4), (1, False, 3),
    ]  # fmt: skip
    (finding,) = [
        f for f in http.get(f"datasets/{name}/editions/3").json()["findings"]
        if f["name"] == "unknown-column"
    ]  # fmt: skip
    assert finding["samples"][0]["column"] == "floor"


@pytest.mark.parametrize("kind", ["rebuild", "compare"])
def test_work_on_an_edition_is_asked_for_once(http, name, kind):
    load(http, name, rows(3))
    load(http, name, rows(4))
    there = {job["id"] for job in http.get(f"datasets/{name}").json()["jobs"]}

    def ask(number, key):
        return http.post(
            f"datasets/{name}/editions/{number}/{kind}", headers={"Idempotency-Key": key}
        )

    first, again = ask(1, "one"), ask(1, "one")
    assert (first.status_code, again.status_code) == (202, 202), again.text
    assert again.json()["id"] == first.json()["id"] not in there
    others = {ask(1, "two").json()["id"], ask(2, "one").json()["id"]}
    assert len(others - there - {first.json()["id"]}) == 2, "another key, or another edition"
    made = {job["id"] for job in http.get(f"datasets/{name}").json()["jobs"]} - there
    assert made == others | {first.json()["id"]}
    for job in made:
        assert wait(http, job)["state"] == "done"


def test_a_file_may_come_as_the_part_of_a_form_and_its_name_is_kept(http, name):
    answer = http.post(
        f"datasets/{name}/editions", files={"file": ("C:\\data\\march.csv", rows(2), "text/csv")}
    )
    assert answer.status_code == 202, answer.text
    assert wait(http, answer.json()["id"])["source_name"] == "march.csv"
    missing = http.post(f"datasets/{name}/editions", files={"other": ("x", b"", "text/csv")})
    assert (missing.status_code, missing.json()["errors"][0]["pointer"]) == (422, "/file")


@pytest.mark.parametrize(
    ("content", "detail"),
    [
        (b"", "The file is empty."),
        (b"id,town\r\n1,x\r\n", "it lacks country_code"),
        (b"PK\x03\x04rest", "a spreadsheet; save it as CSV"),
    ],
)
def test_what_is_no_file_of_rows_is_refused_at_once(http, name, content, detail):
    answer = http.post(
        f"datasets/{name}/editions", content=content, headers={"Content-Type": "text/csv"}
    )
    assert answer.status_code == 422
    assert detail in answer.json()["errors"][0]["detail"]
    assert http.get(f"datasets/{name}").status_code == 404


def test_other_refusals(http, name):
    def post(path, **more):
        headers = {"Content-Type": "text/csv", **more.pop("headers", {})}
        return http.post(path, content=rows(2), headers=headers, **more)

    wrong_type = post(f"datasets/{name}/editions", headers={"Content-Type": "image/png"})
    assert wrong_type.status_code == 415
    for bad_name in ("de:mo", "Demo", "a" * 65):
        assert "cannot name a dataset" in post(f"datasets/{bad_name}/editions").text
    nothing = post(f"datasets/{name}/editions", params={"changes": "true"})
    assert (nothing.status_code, "no edition to change" in nothing.text) == (409, True)
    headers = {"Idempotency-Key": "not one\x01"}
    assert post(f"datasets/{name}/editions", headers=headers).status_code in (400, 422)
    for path in (f"datasets/{name}/editions/1/activate", "jobs/nothing/cancel"):
        assert http.post(path).status_code == 404
    assert http.get("datasets/demo/editions/one").status_code == 404


def test_bad_rows_are_left_out_and_reported_up_to_the_chosen_share(http, name):
    content = rows(20, r3="x,QQ,S,T,,,", r4='=1+1,GB,"S"x,T,,,', r9="r1,GB,Other,Marl,,,")
    failed = load(http, name, content)
    assert (failed["state"], failed["edition"]) == ("failed", None)
    assert "3 of 20 rows cannot be used, at most 5.0% may" in failed["message"]
    report = http.get(f"jobs/{failed['id']}/report")
    assert report.headers["Content-Type"].startswith("text/csv")
    lines = report.text.splitlines()
    assert lines[0] == "line,id,finding,column,reason,row"
    assert {line.split(",")[2] for line in lines[1:]} == {"bad-country", "unreadable", "same-id"}
    done = load(http, name, content, bad_share=0.5)
    assert (done["state"], done["rows_bad"]) == ("done", 3)
    edition = http.get(f"datasets/{name}/editions/{done['edition']}").json()
    assert (edition["rows_used"], edition["rows_bad"]) == (17, 3)
    assert http.get(f"jobs/{done['id']}/report").text == report.text


def test_a_steward_compares_activates_and_goes_back(http, name):
    load(http, name, rows(50), activate="always")
    within_two_seconds(lambda: active_count(http, name) == 50)
    load(http, name, rows(50, r7=None, r8=None, r9="r9,GB,Gritstone Row 0,Peat,QV1 1AA,52.6,-1.5"))
    edition = http.get(f"datasets/{name}/editions/2").json()
    found = edition["comparison"]
    assert [found[k] for k in ("base", "added", "gone", "changed", "moved")] == [1, 0, 2, 1, 1]
    assert found["components"] == {"town": 1}
    assert "2 addresses are gone: 4.0%" in found["against"][0]
    assert active_count(http, name) == 50
    http.post(f"datasets/{name}/editions/2/activate").raise_for_status()
    within_two_seconds(lambda: active_count(http, name) == 48)
    assert http.get(f"addresses/{name}:r7").status_code == 404
    http.post(f"datasets/{name}/editions/1/activate").raise_for_status()
    within_two_seconds(lambda: http.get(f"addresses/{name}:r7").status_code == 200)


def test_an_edition_becomes_active_by_itself_only_within_the_limits(http, name):
    rules = {"automatic": True, "gone_share": 0.1, "keep": 1}
    answer = http.put(f"datasets/{name}/rules", json=rules).json()
    assert (answer["rules"]["automatic"], answer["rules"]["moved_share"]) == (True, 0.05)
    assert load(http, name, rows(40))["message"].endswith("It is active.")
    few_gone = load(http, name, rows(38))
    assert few_gone["message"].endswith("It is active.")
    many_gone = load(http, name, rows(10))
    assert "Not made active by itself: 28 addresses are gone: 73.7%" in many_gone["message"]
    dataset = http.get(f"datasets/{name}").json()
    assert (dataset["active_edition"], dataset["previous_edition"]) == (2, 1)
    load(http, name, rows(9))
    kept = [e["number"] for e in http.get(f"datasets/{name}").json()["editions"]]
    assert kept == [4, 2, 1], "active, previous and the newest one stay; edition 3 goes"
    refused = http.delete(f"datasets/{name}/editions/2")
    assert (refused.status_code, "is active" in refused.json()["detail"]) == (409, True)
    assert http.delete(f"datasets/{name}/editions/4").status_code == 204


def test_changes_put_rows_in_and_take_them_out(http, name):
    load(http, name, rows(30), activate="always")
    changes = (
        b"id,country_code,action,street,town\r\nr1,GB,put,New Lane,Marl\r\n"
        b"r2,GB,drop,,\r\nn1,GB,put,Newer Lane,Marl\r\nnope,GB,drop,,\r\n"
    )
    whole = load(http, name, changes)
    assert (whole["state"], "load it as changes" in whole["message"]) == ("failed", True)
    lines = b'{"id": "r2", "country_code": "GB", "action": "drop"}\n'
    as_json = load(http, name, lines)
    assert (as_json["state"], "load it as changes" in as_json["message"]) == ("failed", True)
    done = load(http, name, changes, changes=True, bad_share=0.3)
    assert done["state"] == "done", done
    edition = http.get(f"datasets/{name}/editions/{done['edition']}").json()
    assert (edition["changes_to"], edition["rows_used"], edition["rows_bad"]) == (1, 30, 1)
    found = edition["comparison"]
    assert [found[k] for k in ("added", "gone", "changed")] == [1, 1, 1]
    assert "nothing-to-drop" in {f["name"] for f in edition["findings"]}
    assert http.get(f"jobs/{done['id']}/report").text.count("nothing-to-drop") == 1
    refused = http.post(
        f"datasets/{name}/editions", params={"changes": True, "base": 99}, content=changes,
        headers={"Content-Type": "text/csv"},
    )  # fmt: skip
    assert refused.status_code == 404


def test_changes_sent_one_after_another_build_on_each_other(http, name):
    head = b"id,country_code,action,street\r\n"
    jobs = [send(http, name, rows(10))]
    jobs += [
        send(http, name, head + b"n%d,GB,put,New Lane\r\n" % n, changes=True) for n in range(2)
    ]
    assert [wait(http, job)["state"] for job in jobs] == ["done"] * 3
    editions = http.get(f"datasets/{name}").json()["editions"]
    assert [(e["rows_used"], e["changes_to"]) for e in editions] == [(12, 2), (11, 1), (10, None)]


def test_the_same_key_and_file_make_one_load(http, name):
    headers = {"Content-Type": "text/csv", "Idempotency-Key": f"k-{name}"}
    path = f"datasets/{name}/editions"
    jobs = [http.post(path, content=rows(3), headers=headers).json()["id"] for _ in range(2)]
    assert jobs[0] == jobs[1]
    assert http.post(path, content=rows(4), headers=headers).status_code == 409
    wait(http, jobs[0])
    assert len(http.get(f"datasets/{name}").json()["editions"]) == 1


def test_an_index_is_built_anew_from_the_kept_rows(http, name, scratch_stack):
    load(http, name, rows(25), activate="always")
    folder = scratch_stack.folder / "gazetteer" / name / "1"
    (folder / "manifest.json").unlink()
    refused = http.post(f"datasets/{name}/editions/1/activate")
    assert (refused.status_code, "rebuild" in refused.json()["detail"]) == (409, True)
    job = wait(http, http.post(f"datasets/{name}/editions/1/rebuild").json()["id"])
    assert job["message"].startswith("The index of edition 1 is built anew")
    assert http.post(f"datasets/{name}/editions/1/activate").status_code == 200
    within_two_seconds(lambda: active_count(http, name) == 25)


def test_comparing_again_holds_against_what_is_active_now(http, name):
    for count in (10, 11, 12):
        load(http, name, rows(count), activate="always" if count == 10 else "never")
    http.post(f"datasets/{name}/editions/2/activate").raise_for_status()
    wait(http, http.post(f"datasets/{name}/editions/3/compare").json()["id"])
    assert http.get(f"datasets/{name}/editions/3").json()["comparison"]["base"] == 2


def test_a_load_that_failed_is_tried_again_from_its_file(http, name):
    job = send(http, name, rows(10, r3="r3,XX,Nowhere,Marl,,,"), bad_share=0)
    failed = wait(http, job)
    assert failed["state"] == "failed"
    assert failed["file_bytes"] == len(rows(10, r3="r3,XX,Nowhere,Marl,,,"))
    assert http.get(f"jobs/{job}/report").text.count("\r\n") == 2, "the report stays as well"
    http.post(f"jobs/{job}/retry").raise_for_status()
    assert wait(http, job)["state"] == "failed", (
        "ten rows with a bad one: more than the rules allow"
    )
    again = http.post(f"jobs/{job}/retry", params={"bad_share": 0.2})
    assert (again.status_code, again.json()["id"]) == (202, job)
    done = wait(http, job)
    assert (done["state"], done["rows_done"], done["rows_bad"]) == ("done", 10, 1)
    # The rows are kept, the file is not: it goes right after the job has ended.
    gone = lambda: http.get(f"jobs/{job}").json()["file_bytes"] is None  # noqa: E731
    wait_until(gone, 30, "the file is still kept")
    refused = http.post(f"jobs/{job}/retry")
    assert (refused.status_code, refused.json()["detail"]) == (
        409, "The load's file is not kept any more; send it again.",
    )  # fmt: skip


def test_the_file_of_a_failed_load_is_thrown_away_by_somebody_only(http, name):
    job = send(http, name, rows(10, r3="r3,XX,Nowhere,Marl,,,"), bad_share=0)
    wait(http, job)
    assert http.delete(f"jobs/{job}/file").json()["file_bytes"] is None
    assert http.delete(f"jobs/{job}/file").status_code == 409
    assert http.post(f"jobs/{job}/retry").status_code == 409
    assert http.post("jobs/nothing/retry").status_code == 404


def _workers_and_jobs(stack):
    """The processes of workers, which the supervisor started, and of jobs, which workers did."""
    supervisor = int((stack.folder / "demo" / "service.pid").read_text())
    found = [(p, parent) for p, command, parent in processes_of(supervisor) if "work" in command]
    return (
        [p for p, parent in found if parent == supervisor],
        [p for p, parent in found if parent != supervisor],
    )


def test_a_load_whose_process_is_killed_goes_on_where_it_was(scratch_stack, http, name):
    job = send(http, name, rows(60_000))
    wait_until(lambda: 20_000 <= http.get(f"jobs/{job}").json()["rows_done"] < 60_000, every=0.01)
    _, (process,) = _workers_and_jobs(scratch_stack)
    assert process.name() == PROCESS_NAME.decode()
    process.kill()
    assert http.get(f"datasets/{name}").json()["editions"] == [], "nothing is half there"
    done = wait(http, job)
    assert (done["state"], done["rows_done"], done["edition"]) == ("done", 60_000, 1)
    edition = http.get(f"datasets/{name}/editions/1").json()
    assert (edition["rows_used"], edition["rows_bad"]) == (60_000, 0)


def test_a_running_load_can_be_cancelled_and_changes_nothing(http, name):
    job = send(http, name, rows(80_000))
    wait(http, job, until=("running",))
    assert http.post(f"jobs/{job}/cancel").json()["state"] in ("running", "cancelled")
    ended = wait(http, job)
    assert (ended["state"], ended["message"]) == ("cancelled", "Cancelled; nothing was changed.")
    assert ended["file_bytes"] == len(rows(80_000))
    assert http.get(f"datasets/{name}").json()["editions"] == []


def test_activation_under_load_fails_no_request(scratch_stack, http, name):
    load(http, name, rows(40), activate="always")
    load(http, name, rows(41))
    statuses = []
    with scratch_stack.http() as typing:
        for turn in range(40):
            if turn % 10 == 5:
                http.post(f"datasets/{name}/editions/{1 + turn // 10 % 2}/activate")
            for text in ("gritst", "gritstone row", "marl"):
                try:
                    answer = typing.get("/api/v1/suggest", params={"q": text})
                except httpx.TransportError as error:
                    statuses.append(str(error))
                else:
                    statuses.append(answer.status_code)
            time.sleep(0.05)
    assert set(statuses) == {200}


def test_records_keep_an_address_that_a_newer_edition_lacks(http, name):
    load(http, name, rows(5), activate="always")
    within_two_seconds(lambda: http.get(f"addresses/{name}:r1").status_code == 200)
    filled = http.post("forms/venue/slots/venue/fill", json={"address_id": f"{name}:r1"}).json()
    slots = {"venue": {"address_id": f"{name}:r1", "country_code": "GB"}}
    values = {key: value for key, value in filled["values"].items() if value}
    body = {"values": {**values, "venue_place": "Marl Hall"}, "slots": slots}
    made = http.post("forms/venue/records", json=body)
    assert made.status_code == 201, made.text
    load(http, name, rows(5, r1=None), activate="always")
    within_two_seconds(lambda: http.get(f"addresses/{name}:r1").status_code == 404)
    kept = http.get(f"records/{made.json()['id']}").json()["slots"]["venue"]
    assert (kept["address_id"], kept["edition"]) == (f"{name}:r1", f"{name}@1")
    assert kept["lines"] == ["Marl Hall", "Gritstone Row 0", "MARL", "QV1 1AA"]
    assert kept["facts"]["latitude"] == 52.5


def test_two_loads_at_once_do_not_disturb_each_other(http, name):
    names = [f"{name}a", f"{name}b"]
    jobs = [send(http, dataset, rows(20_000 + 1000 * n)) for n, dataset in enumerate(names)]
    seen_together = False
    while any(http.get(f"jobs/{job}").json()["state"] in ("waiting", "running") for job in jobs):
        states = [http.get(f"jobs/{job}").json()["state"] for job in jobs]
        seen_together = seen_together or states == ["running", "running"]
        time.sleep(0.02)
    assert seen_together
    for number, dataset in enumerate(names):
        (edition,) = http.get(f"datasets/{dataset}").json()["editions"]
        assert (edition["rows_used"], edition["rows_bad"]) == (20_000 + 1000 * number, 0)


def test_a_worker_that_is_killed_is_started_again_and_its_load_goes_on(http, name, scratch_stack):
    job = send(http, name, rows(40_000))
    wait(http, job, until=("running",))
    _kill_worker(scratch_stack)
    done = wait(http, job)
    assert (done["state"], done["rows_done"]) == ("done", 40_000)


@pytest.mark.parametrize("lost", ["older", "gone"])
def test_a_worker_builds_the_index_of_an_active_edition_that_cannot_be_opened(
    http, name, scratch_stack, lost
):
    load(http, name, rows(30), activate="always")
    manifest = scratch_stack.folder / "gazetteer" / name / "1" / "manifest.json"
    if lost == "older":
        manifest.write_text(json.dumps(json.loads(manifest.read_text()) | {"format": 1}))
    else:
        manifest.unlink()
    _kill_worker(scratch_stack)

    def rebuilds():
        return [j for j in http.get(f"datasets/{name}").json()["jobs"] if j["kind"] == "rebuild"]

    wait_until(rebuilds)
    assert wait(http, rebuilds()[0]["id"])["state"] == "done"
    assert json.loads(manifest.read_text())["format"] == FORMAT_VERSION
    within_two_seconds(lambda: active_count(http, name) == 30)


def _kill_worker(stack):
    (worker,), _ = _workers_and_jobs(stack)
    worker.kill()


def test_a_file_larger_than_the_service_takes_is_refused_and_leaves_nothing(database, tmp_path):
    settings = read_settings({"ANCHORLINE_MAX_UPLOAD": "2048", "ANCHORLINE_VAR_DIR": str(tmp_path)})
    app = create_app(settings, database)
    key = services_of(app).keys.create(WantedKey("server", "upload test", ("data",))).whole
    for content in ({"data": rows(200)}, {"data": {"file": (io.BytesIO(rows(200)), "a.csv")}}):
        answer = app.test_client().post(
            "/api/v1/datasets/too-large/editions", headers={"Authorization": f"Bearer {key}"},
            content_type="text/csv" if isinstance(content["data"], bytes) else None, **content,
        )  # fmt: skip
        assert (answer.status_code, "ANCHORLINE_MAX_UPLOAD" in answer.text) == (413, True)
    jobs = services_of(app).jobs.list("too-large")
    assert [job.state for job in jobs] == []
