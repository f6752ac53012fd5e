import json
import os
import subprocess
import sys
from functools import partial
from pathlib import Path

import pytest

from anchorline.wire.words import counted

COMMAND = str(Path(sys.executable).with_name("anchorline"))


@pytest.mark.parametrize(
    ("arguments", "shown", "key"),
    [
        (["find", "kiln cres brack"], "Kiln Crescent, Brackwater", "suggestions"),
        (["postcode", "GB", "qv11aa"], "16 Abbey Mews, Brackwater, QV1 1AA", "addresses"),
        (["postcode", "GB", "QV1"], "QV1 1AA", "postcodes"),
        (["show", "demo:GB0000012"], "16 Abbey Mews\nBRACKWATER\nQV1 1AA\n", "lines"),
        (["near", "51.535459", "-2.880898"], "16 Abbey Mews", "addresses"),
        (["forms", "show", "supplier"], "office_postcode", "slots"),
        (["records", "list", "--limit", "3"], "made (UTC)", "records"),
    ],
)
def test_a_command_prints_a_table_for_people_and_json_for_programs(run, arguments, shown, key):
    table = run(*arguments)
    assert table.returncode == 0, table.stderr
    assert shown in table.stdout
    assert "\x1b[" not in table.stdout
    assert json.loads(run(*arguments, "--json").stdout)[key]


def test_lists_and_lines_print_as_json_too(run):
    assert run("forms", "list").stdout.count("version ") >= 4
    assert {f["key"] for f in json.loads(run("forms", "list", "--json").stdout)} >= {"supplier"}
    arguments = ["lines", "DE", "street=Lindenstraße", "number=12", "town=Au", "--international"]
    assert run(*arguments).stdout == "Lindenstraße 12\nAu\nGERMANY\n"
    assert json.loads(run(*arguments, "--json").stdout)[-1] == "GERMANY"


@pytest.mark.parametrize(
    ("arguments", "code", "said"),
    [
        (["find", "zzzzz"], 3, "Nothing found for 'zzzzz'."),
        (["show", "demo:nope"], 3, "There is no address 'demo:nope'."),
        (["near", "0", "-140"], 3, "There is no address within 5,000 m."),
        (["postcode", "US", "abc"], 2, "is not a postcode of United States"),
        (["find", "x", "--country", "QQ"], 2, "no country 'QQ'"),
        (["find", "x", "--country", "UK"], 2, "Did you mean GB?"),
        (["lines", "UK", "town=Marl"], 3, "no country code 'UK'. Did you mean GB?"),
        (["lines", "USA", "town=Marl"], 3, "Did you mean US?"),
        (["lines", "Germany", "town=Marl"], 3, "Did you mean DE?"),
        (["postcode", "UK", "QV1 1AA"], 3, "Did you mean GB?"),
        (["records", "list", "--form", "tuning-vist"], 2, "Did you mean tuning-visit"),
        (["forms", "show", "tuning-vist"], 3, "tuning-vist"),
        (["lines", "GB", "street"], 2, "Write components as NAME=VALUE"),
        (["lines", "GB", "stret=x"], 2, "Did you mean street"),
        (["near", "91", "0"], 2, "91"),
        (["fnd", "x"], 2, "No such command"),
    ],
)
def test_what_goes_wrong_is_said_on_stderr_with_a_code_that_means_it(run, arguments, code, said):
    done = run(*arguments)
    assert done.returncode == code, done.stderr
    assert said in done.stderr
    assert "Traceback" not in done.stderr
    assert "GET /" not in done.stderr, "no path of the web in a terminal"


def test_a_service_that_is_away_and_a_key_that_is_wrong_are_told_apart(run):
    away = run("find", "x", ANCHORLINE_URL="http://127.0.0.1:9")
    assert (away.returncode, "Is the service running" in away.stderr) == (4, True)
    wrong = run("find", "x", ANCHORLINE_KEY="anl_server_a_b")
    assert (wrong.returncode, "This key is not valid" in wrong.stderr) == (5, True)
    nowhere = run("find", "x", ANCHORLINE_URL="", ANCHORLINE_KEY="")
    assert (nowhere.returncode, "anchorline connect" in nowhere.stderr) == (4, True)


def test_connecting_keeps_the_settings_for_the_owner_alone(run, stack, tmp_path):
    done = run("connect", str(stack.folder / "demo" / "access.json"))
    assert "6,000 addresses" in done.stdout
    path = tmp_path / "anchorline" / "settings.toml"
    assert path.stat().st_mode & 0o777 == 0o600
    assert run("find", "kiln", ANCHORLINE_URL="", ANCHORLINE_KEY="").returncode == 0
    path.write_text("url = nonsense")
    broken = run("find", "kiln")
    assert (broken.returncode, "anchorline connect" in broken.stderr) == (2, True)


def test_connecting_with_another_file_is_refused(run, tmp_path):
    file = tmp_path / "x.json"
    file.write_text("{}")
    done = run("connect", str(file))
    assert (done.returncode, '"server_key"' in done.stderr) == (2, True)


@pytest.mark.parametrize("command", ["find", "postcode", "show", "near", "lines", "connect", "forms show",
                                     "records list", "serve"])  # fmt: skip
def test_help_has_an_example_that_names_the_command(run, command):
    done = run(*command.split(), "--help")
    assert done.returncode == 0
    assert f"anchorline {command}" in done.stdout


def test_find_says_what_it_read_and_with_trace_how(run):
    done = run("find", "klin cresent")
    assert done.returncode == 0
    assert "Kiln Crescent, Brackwater" in done.stdout
    assert "Read 'klin' as 'kiln'." in done.stderr
    traced = run("find", "99 abbey mews", "--trace")
    assert "Not found in these: '99'." in traced.stderr
    assert "without number" in traced.stdout
    assert "name covered" in traced.stdout


def test_a_steward_loads_reads_the_report_activates_and_goes_back(run, scratch_stack, tmp_path):
    run = partial(
        run,
        ANCHORLINE_URL=scratch_stack.url,
        ANCHORLINE_KEY=scratch_stack.access["server_key"],
    )
    header = "id,country_code,street,town,postcode\n"
    lines = [f"{i},GB,Gritstone Row,Marl,QV1 1AA\n" for i in range(20)]
    (tmp_path / "one.csv").write_text(header + "".join(lines))
    (tmp_path / "two.csv").write_text(header + "".join(lines[1:]) + "x,QQ,Row,Marl,\n")
    first = run("data", "load", "cli-test", str(tmp_path / "one.csv"), "--activate", "always")
    assert first.stdout == "Edition 1 is ready: 20 addresses. It is active.\n", first.stderr
    assert "20 rows in" in first.stderr
    stopped = run("data", "load", "cli-test", str(tmp_path / "two.csv"), "--bad-share", "0")
    assert (stopped.returncode, stopped.stdout) == (1, "")
    assert "Failed: 1 of 20 rows cannot be used, at most 0.0% may." in stopped.stderr
    second = run("data", "load", "cli-test", str(tmp_path / "two.csv"), "--json")
    job = json.loads(second.stdout)
    assert (job["state"], job["rows_bad"]) == ("done", 1)
    report = run("data", "report", "cli-test").stdout
    assert "The country is not known" in report
    assert "Against edition 1: 0 added, 1 gone, 0 changed" in report
    assert "Over the limit: 1 address is gone: 5.0%, at most 2.0% may." in report
    rows = run("data", "report", "cli-test", "2", "--rows").stdout.splitlines()
    assert (rows[0], rows[1][:4]) == ("line,id,finding,column,reason,row", "21,x")
    asked = run("data", "activate", "cli-test", "2")
    assert (asked.returncode, asked.stdout) == (2, "")
    assert "Over the limit: 1 address is gone" in asked.stderr
    assert "say --yes" in asked.stderr
    made = run("data", "activate", "cli-test", "2", "--yes")
    assert "Edition 2 of cli-test is active." in made.stdout
    assert "Edition 1 of cli-test is active." in run("data", "activate", "cli-test", "1").stdout
    listed = run("data", "editions", "cli-test").stdout
    assert [line.split()[:2] for line in listed.splitlines()[1:]] == [["2", "19"], ["1", "active"]]
    kept = json.loads(run("data", "rules", "cli-test", "--keep", "1", "--json").stdout)
    assert (kept["keep"], kept["bad_share"]) == (1, 0.05)
    assert "built anew" in run("data", "rebuild", "cli-test", "2").stdout
    assert "is gone" in run("data", "remove", "cli-test", "2", "--yes").stdout
    assert run("data", "report", "cli-test", "2").returncode == 3
    refused = run("data", "remove", "cli-test", "1", "--yes")
    assert (refused.returncode, "is active" in refused.stderr) == (1, True)
    assert "cli-test" in run("data", "list").stdout
    kept = run("data", "remove", "cli-test", source="cli-tst\n")
    assert (kept.returncode, "Nothing was taken away." in kept.stderr) == (1, True)
    gone = run("data", "remove", "cli-test", source="cli-test\n")
    assert "This takes away cli-test with 1 edition. 20 addresses will not be found" in gone.stdout
    assert "Dataset cli-test is gone." in gone.stdout
    assert "cli-test" not in run("data", "list").stdout
    assert run("data", "remove", "cli-test", "--yes").returncode == 3


def test_a_file_without_rows_and_one_with_misspelt_columns_are_said(run, scratch_stack, tmp_path):
    run = partial(
        run,
        ANCHORLINE_URL=scratch_stack.url,
        ANCHORLINE_KEY=scratch_stack.access["server_key"],
    )
    (tmp_path / "bare.csv").write_text("id,country_code,street,town\n")
    bare = run("data", "load", "cli-bare", str(tmp_path / "bare.csv"))
    assert (bare.returncode, bare.stdout) == (1, "")
    assert "The file holds no rows: there is nothing below its first line." in bare.stderr
    rows = "id,country_code,stret,town\na,GB,Row,Marl\nb,UK,Row,Marl\n"
    (tmp_path / "odd.csv").write_text(rows)
    odd = run("data", "load", "cli-odd", str(tmp_path / "odd.csv"), "--bad-share", "0")
    assert odd.returncode == 1
    command = odd.stderr.split("See which rows and why: anchorline ")[1].splitlines()[0]
    why = run(*command.split())
    assert "no layout for country 'UK'" in why.stdout
    loaded = run("data", "load", "cli-odd", str(tmp_path / "odd.csv"), "--bad-share", "1")
    assert "Edition 1 is ready: 1 address." in loaded.stdout
    report = run("data", "report", "cli-odd")
    assert "stret: is street meant?" in report.stdout
    assert "See whether its name is misspelt." in report.stderr
    for name in ("cli-bare", "cli-odd"):
        assert run("data", "remove", name, "--yes").returncode == 0


def test_words_need_no_quotes_and_ids_are_never_broken(run):
    done = run("find", "12", "kiln", "cres", "--country", "GB", COLUMNS="60")
    assert done.returncode == 0, done.stderr
    shown = [
        row["id"] for row in json.loads(run("find", "12 kiln cres", "--json").stdout)["suggestions"]
    ]
    assert any(identifier in done.stdout for identifier in shown)


def test_one_of_a_thing_is_one(run):
    assert counted(1, "record") == "1 record"
    assert counted(0, "record") == "0 records"
    assert counted(2000, "address", "addresses") == "2,000 addresses"
    none = run("records", "list", "--search", "zzqqxx")
    assert none.stderr.strip() == "0 of 0 records"


def test_a_pipe_that_is_closed_early_is_no_error(stack, run):
    command = f"{COMMAND} records list --limit 200 | head -1"
    done = subprocess.run(
        ["bash", "-c", f"set -o pipefail; for i in 1 2 3; do {command}; done"],
        env={**os.environ, "ANCHORLINE_URL": stack.url, "ANCHORLINE_KEY": stack.access["server_key"]},
        capture_output=True, text=True, timeout=200,
    )  # fmt: skip
    assert done.returncode == 0
    assert "Traceback" not in done.stderr
    assert "Broken pipe" not in done.stderr
