"""`keys …`: made, listed, rotated and ended from a terminal."""

import json
import re


def test_a_key_is_made_listed_rotated_and_ended(run):
    made = run(
        "keys", "make", "server", "Order system", "--scope", "find", "--expires", "2099-01-01"
    )
    assert made.returncode == 0, made.stderr
    assert "shown once" in made.stderr
    kind, identifier, secret = re.fullmatch(r"anl_(\w+?)_(\w+)_([\w-]+)\n", made.stdout).groups()
    assert kind == "server"
    own = {"ANCHORLINE_KEY": made.stdout.strip()}
    assert run("find", "kiln", **own).returncode == 0
    refused = run("records", "list", **own)
    assert (refused.returncode, "scope records" in refused.stderr) == (5, True)
    listed = run("keys", "list").stdout
    (line,) = [line for line in listed.splitlines() if identifier in line]
    assert re.search(r"server +in use until 2099-01-01 00:00 +\d{4}-", line), "it was used"
    assert re.search(r"find +Order system", line)
    assert secret not in listed
    rotated = run("keys", "rotate", identifier, "--overlap-hours", "2")
    assert rotated.stdout.startswith(f"anl_server_{identifier}_")
    assert re.search(r"goes on until .* UTC", rotated.stderr)
    ended = json.loads(run("keys", "end", identifier, "--json").stdout)
    assert ended["state"] == "ended"
    assert run("keys", "rotate", identifier).returncode == 1
    assert run("keys", "end", "nosuchkey").returncode == 3


def test_what_could_not_work_is_refused_with_what_would(run):
    wrong = run("keys", "make", "server", "Order system")
    assert (wrong.returncode, wrong.stdout) == (2, "")
    assert "one or more of find, desk, forms, records, data, administer" in wrong.stderr
    origin = run("keys", "make", "browser", "Shop", "--origin", "shop.example", "--form", "venue")
    assert "is no web origin" in origin.stderr
