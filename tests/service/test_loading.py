"""Loading reference data by the operator's command."""

import gzip
import json
import subprocess
import sys

import pytest

ROWS = "id,country_code,street,town,strret\r\n1,GB,Gritstone Row,Marl,x\r\n2,GB,Slate Row,Marl,\r\n"


@pytest.fixture
def load(scratch_stack):
    def load(*arguments):
        return subprocess.run(
            [sys.executable, "-m", "anchorline.service", "load", *map(str, arguments)],
            env=scratch_stack.environment, capture_output=True, text=True, timeout=60,
        )  # fmt: skip

    return load


def test_each_form_of_file_makes_the_next_edition_and_names_what_it_ignores(load, tmp_path):
    (tmp_path / "a.csv").write_text(ROWS, encoding="utf-8-sig")
    (tmp_path / "a.csv.gz").write_bytes(gzip.compress(ROWS.encode()))
    row = {"id": "1", "country_code": "GB", "town": "Marl", "latitude": 52.5, "longitude": -1}
    (tmp_path / "a.jsonl").write_text(json.dumps(row | {"floor": 2}) + "\n")
    for number, (name, count, ignored) in enumerate(
        [("a.csv", 2, "strret"), ("a.csv.gz", 2, "strret"), ("a.jsonl", 1, "floor")], start=1
    ):
        done = load("forms-of-file", tmp_path / name)
        assert done.stdout.splitlines() == [
            f"forms-of-file: edition {number} is active, {count} addresses, 0 rows left out",
            f"Columns that are not known, ignored: {ignored}",
        ], done.stderr


@pytest.mark.parametrize(
    ("name", "content", "detail"),
    [
        ("missing.csv", None, "No such file"),
        ("a.csv", b"id,town\r\n1,x\r\n", "it lacks country_code"),
        ("b.csv", b"id,country_code\r\n\xff\xfe,GB\r\n", "utf-8"),
        ("c.csv.gz", b"not gzip at all", "Not a gzipped file"),
        ("d.csv.gz", gzip.compress(ROWS.encode())[:-12], "cannot be loaded"),
        ("e.csv", b"id,country_code,town\r\n", "0 of 0 rows cannot be used"),
        ("f.csv", b"", "it lacks id and country_code"),
    ],
)
def test_a_file_that_cannot_be_loaded_says_why_and_changes_nothing(
    load, scratch_stack, tmp_path, name, content, detail
):
    if content is not None:
        (tmp_path / name).write_bytes(content)
    done = load("broken", tmp_path / name)
    assert (done.returncode, detail in done.stderr) == (1, True), done.stderr
    assert "Traceback" not in done.stderr
    with scratch_stack.http() as http:
        datasets = {e["dataset"] for e in http.get("/api/v1/stand").json()["editions"]}
    assert "broken" not in datasets


@pytest.mark.parametrize("name", ["de:mo", "", "Demo", "../x", "a" * 65])
def test_a_name_that_cannot_stand_in_ids_is_refused(load, tmp_path, name):
    (tmp_path / "a.csv").write_text(ROWS)
    done = load(name, tmp_path / "a.csv")
    assert (done.returncode, "cannot name a dataset" in done.stderr) == (1, True)


def test_bad_rows_up_to_the_chosen_share_are_left_out(load, tmp_path):
    (tmp_path / "a.csv").write_text(ROWS + "3,QQ,S,T,\r\n")
    assert load("shares", tmp_path / "a.csv").returncode == 1
    done = load("shares", tmp_path / "a.csv", "--bad-share", "0.5")
    assert "2 addresses, 1 rows left out" in done.stdout
    wrong = load("shares", tmp_path / "a.csv", "--bad-share", "5")
    assert (wrong.returncode, "5 is not between 0 and 1" in wrong.stderr) == (2, True)
