"""`activity`, `observe` and `usage`: what is called and fetched, seen from a terminal."""

import json
import re

from anchorline.cli.activity import _limit
from anchorline.wire.usage import SubjectUsage
from tests.waiting import wait_until


def test_a_key_gets_an_allowance_and_what_it_fetched_is_told(run, client):
    made = client.keys.make("server", "Order system", scopes=["find"])
    key = made.key.id
    told = run("keys", "allow", key, "2", "--warn-at", "50")
    assert "may fetch 2 addresses a month" in told.stderr
    found = client.suggest("16 abbey mews").suggestions[0].id
    assert run("show", found, ANCHORLINE_KEY=made.secret).returncode == 0
    (line,) = [line for line in run("usage").stdout.splitlines() if key in line]
    assert re.search(r"Order system +1 +2 +near its limit", line)
    as_json = json.loads(run("usage", "--json").stdout)
    assert [one["count"] for one in as_json["subjects"] if one["subject"] == key] == [1]
    assert run("usage", "--month", "2027-13").returncode == 2
    wrong = run("keys", "allow", key, "many")
    assert (wrong.returncode, "write 1000, or any" in wrong.stderr) == (2, True)
    assert "any number" in run("keys", "allow", key, "any").stderr
    client.keys.end(key)


def test_calls_are_listed_filtered_and_printed_as_json_lines(run, client):
    made = client.keys.make("server", "Watched", scopes=["find"])
    key = made.key.id
    run("find", "secret lane", ANCHORLINE_KEY=made.secret)
    run("records", "list", ANCHORLINE_KEY=made.secret)
    wait_until(lambda: len(client.activity.list(subject=key).calls) == 2)
    first, second = run("activity", "--key", key).stdout.splitlines()
    assert re.search(r"200 +[\d.]+ ms +finding.suggest +Watched$", first)
    assert re.search(r"403 +[\d.]+ ms +records.list_records +Watched$", second)
    (line,) = run("activity", "--key", key, "--outcome", "refused", "--json").stdout.splitlines()
    assert json.loads(line)["endpoint"] == "records.list_records"
    none = run("activity", "--key", key, "--outcome", "failed")
    assert "There are no such calls in the last 14 days." in none.stderr
    client.keys.end(key)


def test_a_key_is_observed_for_a_time(run, client):
    made = client.keys.make("server", "Observed", scopes=["find"])
    key = made.key.id
    assert "is observed until" in run("observe", "key", key, "--hours", "1").stderr

    def seen():
        run("find", "secret lane", ANCHORLINE_KEY=made.secret)
        return "secret" in run("activity", "--key", key).stdout

    wait_until(seen, every=0.5)
    assert "is not observed any more" in run("observe", "key", key, "--hours", "0").stderr
    nobody = run("observe", "target", "chekout")
    assert (nobody.returncode, nobody.stdout) == (2, "")
    client.keys.end(key)


def test_a_limit_is_shown_with_that_of_a_day():
    usage = SubjectUsage(
        subject="page f", name="f", count=1, limit=10_000, day_limit=1_000, warn_share=0.8,
        state="within", days=[],
    )  # fmt: skip
    assert _limit(usage) == "10,000, 1,000 a day"
    assert _limit(usage.model_copy(update={"limit": None, "day_limit": None})) == "none"
