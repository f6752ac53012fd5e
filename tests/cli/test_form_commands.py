"""`forms …`: forms as files, what becomes different, versions."""

import pytest

from anchorline.demo.scenario import FORMS

YAML = """\
key: from-file
kind: web
title: From a file
fields:
- {key: name, label: Name, required: true}
- {key: fax, label: Fax}
"""
READY = ("booking", "customer", "delivery", "supplier", "venue")


@pytest.fixture
def file(tmp_path):
    path = tmp_path / "from-file.yaml"
    path.write_text(YAML)
    return path


def test_a_file_is_applied_after_asking_published_and_gone_back_from(run, file):
    refused = run("forms", "apply", str(file), source="n\n")
    assert refused.returncode != 0
    assert "From a file (from-file, new)" in refused.stdout
    assert "from-file" not in run("forms", "list").stdout
    assert "kept as a draft" in run("forms", "apply", str(file), "--yes").stdout
    assert "Nothing of it is published yet." in run("forms", "diff", "from-file").stdout
    assert run("forms", "publish", "from-file", "--yes").stdout.endswith("as version 1.\n")
    file.write_text(YAML.replace("label: Name", "label: Your name"))
    shown = run("forms", "diff", str(file))
    assert (shown.stdout, shown.returncode) == ("  “Name” is now called “Your name”.\n", 0)
    applied = run("forms", "apply", str(file), "--publish", source="y\n").stdout
    assert "  “Name” is now called “Your name”." in applied
    assert "is published as version 2." in applied
    again = run("forms", "apply", str(file), "--publish")
    assert "Nothing is different; nothing was changed." in again.stderr
    versions = run("forms", "versions", "from-file").stdout
    assert "Version 2: " in versions
    assert "  “Name” is now called “Your name”." in versions
    assert ", in force" in versions.splitlines()[0]
    assert run("forms", "restore", "from-file", "1").stdout == "Version 1 of from-file holds.\n"
    assert "label: Name" in run("forms", "show", "from-file", "--yaml").stdout
    assert run("forms", "go-back", "from-file", "0").stdout == "from-file is out of force.\n"
    assert "not yet" in run("forms", "list").stdout
    assert run("forms", "delete", "from-file", "--yes").stdout == "from-file is deleted.\n"


def test_what_stands_against_a_file_is_said_before_anything_is_kept(run, file):
    file.write_text(YAML + "- {key: c, type: choice, label: C, shown_when: nme}\n")
    refused = run("forms", "apply", str(file), "--yes")
    assert refused.returncode == 1
    assert "/fields/2/options: A choice needs at least one option." in refused.stderr
    assert "/fields/2/shown_when" in refused.stderr
    assert "from-file" not in run("forms", "list").stdout
    file.write_text("key: from-file\nfields: 3\n")
    assert "title" in run("forms", "apply", str(file)).stderr


@pytest.mark.parametrize("key", FORMS)
def test_what_show_writes_and_apply_keeps_is_the_same_for_the_demos_forms(run, tmp_path, key):
    written = run("forms", "show", key, "--yaml").stdout
    path = tmp_path / "shown.yaml"
    path.write_text(written)
    applied = run("forms", "apply", str(path), "--publish", "--yes")
    assert "Nothing is different" in applied.stderr
    assert run("forms", "show", key, "--yaml").stdout == written


@pytest.mark.parametrize("name", READY)
def test_what_show_writes_and_apply_keeps_is_the_same_for_ready_made_forms(run, tmp_path, name):
    key = f"made-{name}"
    begun = run("forms", "new", key, "--like", name).stdout
    path = tmp_path / "begun.yaml"
    path.write_text(begun)
    assert run("forms", "apply", str(path), "--yes").returncode == 0
    assert run("forms", "show", key, "--draft", "--yaml").stdout == begun
    path.write_text(begun)
    assert "Nothing is different" in run("forms", "apply", str(path), "--yes").stderr
    assert run("forms", "delete", key, "--yes").returncode == 0


def test_a_new_form_begins_empty_ready_made_or_with_a_table(run, tmp_path):
    assert "booking" in run("forms", "new").stdout
    empty = run("forms", "new", "call", "--title", "Call me", "--kind", "web").stdout
    assert empty == "key: call\nkind: web\ntitle: Call me\n"
    table = tmp_path / "customers.csv"
    table.write_text("Name,Street,Postcode,Town\nAda,Abbey Mews,QV1 1AA,Brackwater\n")
    made = run("forms", "new", "customers", "--table", str(table))
    assert "- {slot: address}" in made.stdout
    assert "Street: street of the address address." in made.stderr
    unknown = run("forms", "new", "x", "--like", "bookings")
    assert unknown.returncode == 2
    assert "There is no ready-made form 'bookings'" in unknown.stderr
    assert run("forms", "new", "x", "--like", "booking", "--table", str(table)).returncode == 2


def test_a_form_is_copied_with_its_mapping(run, client):
    assert "kept as a draft" in run("forms", "copy", "venue", "hall", "--title", "Hall").stdout
    copied, original = (client.forms.draft(key)[0].document for key in ("hall", "venue"))
    assert (copied.title, copied.slots, copied.fields) == ("Hall", original.slots, original.fields)
    assert run("forms", "copy", "venue", "hall").returncode != 0, "nothing is written over"
    assert run("forms", "delete", "hall", "--yes").returncode == 0


def test_a_form_that_is_not_published_is_shown_as_a_draft_alone(run, file):
    run("forms", "apply", str(file), "--yes")
    assert "has not been published" in run("forms", "show", "from-file").stderr
    assert "draft)" in run("forms", "show", "from-file", "--draft").stdout
    assert "has not been published yet" in run("forms", "versions", "from-file").stderr
    run("forms", "delete", "from-file", "--yes")
