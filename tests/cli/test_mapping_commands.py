"""`mapping …`: exit codes that can stand in a deployment, and what people read."""

import json
import re

import pytest

FORM = """\
key: proved
kind: record
title: Proved
fields: [{key: line, label: Line, max_length: 30}]
slots:
- key: at
  label: At
  countries: [GB, NL]
  parts: [{key: at_town, component: town}]
  mapping:
  - {components: [town], into: at_town}
  - {components: [number, street], into: line, changes: [upper]}
  examples:
  - name: Mill
    components: {number: '12', street: Mill Lane, town: Marl, country_code: GB}
    values: {line: 12 MILL LANE, at_town: Marl}
"""


@pytest.fixture
def keep(run, tmp_path):
    """Keeps the form as a draft, with something in it replaced."""

    def kept(old="", new=""):
        file = tmp_path / "proved.yaml"
        file.write_text(FORM.replace(old, new) if old else FORM)
        done = run("forms", "apply", str(file), "--yes")
        assert done.returncode == 0, done.stderr

    yield kept
    run("forms", "delete", "proved", "--yes")


def test_lint_ends_with_one_for_a_problem_and_names_place_and_remedy(run, keep):
    keep()
    fine = run("mapping", "lint", "proved")
    assert fine.returncode == 0
    assert re.search(r"0 problems, \d warnings?; 300 addresses looked at", fine.stderr)
    assert run("mapping", "lint", "proved", "--strict").returncode == 1
    keep("into: line, changes: [upper]}", "into: at_town}")
    refused = run("mapping", "lint", "proved")
    assert refused.returncode == 1
    assert "problem  /slots/0/mapping/1/if_written" in refused.stdout
    assert "Rule 1 writes “Town”, too." in refused.stdout
    found = json.loads(run("mapping", "lint", "proved", "--json").stdout)
    assert found["problems"][0]["offers"] == ["append", "instead", "leave"]
    assert run("forms", "publish", "proved", "--yes").returncode != 0


def test_examples_end_with_one_where_one_fails(run, keep):
    keep()
    assert run("mapping", "examples", "proved").stdout == "holds  at: Mill\n"
    keep(", changes: [upper]", "")
    failed = run("mapping", "examples", "proved")
    assert failed.returncode == 1
    assert failed.stdout == (
        "fails  at: Mill\n  line: '12 MILL LANE' is expected, '12 Mill Lane' stands there\n"
    )


def test_trying_shows_what_stands_in_each_field_and_why(run, keep):
    keep()
    tried = run("mapping", "try", "proved", "at", "--part", "street=Mill Lane", "--part",
                "number=7", "--country", "GB")  # fmt: skip
    assert "7 MILL LANE" in tried.stdout
    assert re.search(r"wrote +number, street +line +wrote 7 MILL LANE", tried.stdout)
    usual = run("mapping", "try", "proved", "at").stdout
    assert re.search(r"^GB  ", usual, re.M)
    assert re.search(r"^NL  ", usual, re.M)
    wrong = run("mapping", "try", "proved", "at", "--part", "street")
    assert (wrong.returncode, "COMPONENT=TEXT" in wrong.stderr) == (2, True)
    unknown = run("mapping", "try", "proved", "at", "--part", "strete=x", "--country", "GB")
    assert "Did you mean street" in unknown.stderr


def test_coverage_ends_with_one_where_something_is_lost_and_compares_runs(run, keep, tmp_path):
    keep()
    fine = run("mapping", "coverage", "proved", "at", "--per-country", "40")
    assert fine.returncode == 0, fine.stderr
    assert re.search(r"^Line +\d+ +\d+ +0 +0 +0", fine.stdout, re.M)
    assert "80 addresses in" in fine.stderr
    assert "No rule takes postcode: GB 40, NL 40" in fine.stderr
    keep("changes: [upper]", "changes: [{shorten: 3}]")
    lost = run("mapping", "coverage", "proved", "at", "--per-country", "40")
    assert lost.returncode == 1
    assert re.search(r"Against the run before: .*\+\d+ lost", lost.stderr)
    file = tmp_path / "customers.csv"
    file.write_text("street,town,country_code\nMill Lane,Marl,GB\nHoofdstraat,Veld,BE\n")
    rows = run("mapping", "coverage", "proved", "at", "--file", str(file), "--json")
    assert json.loads(rows.stdout)["addresses"] == {"GB": 1}
    told = run("mapping", "coverage", "proved", "at", "--file", str(file))
    assert "lost: Mill Lane, Marl (row 1)" in told.stdout
    assert "1 row left out" in told.stderr
    assert "Against the run before: +0 shortened" in told.stderr, "of the same rows"
    both = run("mapping", "coverage", "proved", "at", "--file", str(file), "--records")
    assert (both.returncode, "not both" in both.stderr) == (2, True)
    file.write_bytes(b"\xff\xfe")
    unread = run("mapping", "coverage", "proved", "at", "--file", str(file))
    assert (unread.returncode, "CSV in UTF-8" in unread.stderr) == (2, True)


def test_changes_are_listed_for_whoever_writes_files(run):
    listed = run("mapping", "changes").stdout
    assert re.search(r"^pad +to, with, side ", listed, re.M)
    assert run("mapping", "lint", "nowhere").returncode == 3
