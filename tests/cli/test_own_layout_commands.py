"""`anchorline layouts own|diff|apply|publish|restore|remove`, driven as processes."""

import json

import pytest

LETTERS = """\
key: northern-letters
title: Letters to the north
countries: [NO, SE]
ask:
  - {component: town, label: {en: Place of delivery}}
  - {extra: delivery_note, label: {en: Delivery note}, after: town}
lines:
  - {add: delivery_note, after: organisation}
"""
KEY = "northern-letters"


@pytest.fixture
def file(tmp_path, run):
    path = tmp_path / "letters.yaml"
    path.write_text(LETTERS)
    yield path
    run("layouts", "remove", KEY, "--yes")


def test_a_file_is_applied_after_asking_published_and_gone_back_from(run, file):
    refused = run("layouts", "apply", str(file), source="n\n")
    assert refused.returncode != 0
    assert "  Norway: town is called “Place of delivery” in English" in refused.stdout
    assert KEY not in run("layouts", "own").stdout
    assert "kept as a draft" in run("layouts", "apply", str(file), "--yes").stdout
    assert "not yet" in run("layouts", "own").stdout
    assert "Place of delivery" not in run("layouts", "show", "NO").stdout
    assert "is published as version" in run("layouts", "publish", KEY, "--yes").stdout
    shown = run("layouts", "show", "SE", "--form", "instrument").stdout
    assert "Place of delivery" in shown
    assert f"Letters to the north ({KEY}, version " in shown
    assert "everywhere), before the shipped layout" in shown
    assert KEY in run("layouts", "list", "norway").stdout
    written = run("lines", "NO", "delivery_note=Ring", "organisation=Vale")
    assert written.stdout == "Vale\nRing\n"
    assert run("layouts", "restore", KEY, "0").stdout == f"{KEY} is out of force.\n"
    assert "Place of delivery" not in run("layouts", "show", "NO").stdout


def test_only_what_becomes_different_is_shown(run, file):
    run("layouts", "apply", str(file), "--yes", "--publish")
    again = run("layouts", "apply", str(file), "--yes")
    assert "Nothing is different" in again.stderr
    file.write_text(LETTERS.replace("Place of delivery", "Post place"))
    changed = run("layouts", "apply", str(file), "--yes").stdout.splitlines()
    said = "town is called “Post place” in English instead of “Place of delivery”."
    assert changed[1:-1] == [f"  Norway: {said}", f"  Sweden: {said}"]


def test_what_is_kept_can_be_written_to_a_file_and_applied_again(run, file):
    run("layouts", "apply", str(file), "--yes", "--publish")
    kept = run("layouts", "own", KEY)
    assert "in force" in kept.stderr
    file.write_text(kept.stdout)
    assert "Nothing is different" in run("layouts", "apply", str(file)).stderr
    assert json.loads(run("layouts", "own", KEY, "--json").stdout)["document"]["key"] == KEY


def test_a_difference_says_what_stands_against_publishing(run, file):
    assert run("layouts", "diff", str(file)).returncode == 0
    file.write_text(LETTERS.replace("label: {en: Place of delivery}", "hidden: true"))
    refused = run("layouts", "diff", str(file))
    assert refused.returncode == 1
    assert "/ask/0/hidden: Norway or Sweden requires town" in refused.stderr
    run("layouts", "apply", str(file), "--yes")
    of_kept = run("layouts", "diff", KEY)
    assert of_kept.returncode == 1
    assert "  Norway: Town is no longer asked for." in of_kept.stdout.replace("City", "Town")


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("key: [", "line 2, column 1"),
        ("- a", "must hold names with values"),
        (LETTERS.replace("countries", "contries"), "/contries: 'contries' is not known here. Did"),
        (LETTERS.replace("title: Letters to the north\n", ""), "/title: This is needed."),
        (LETTERS.replace("[NO, SE]", "[NO, XX]"), "no country code 'XX'"),
        (LETTERS.replace("add: delivery_note", "add: delivery_not"), "no component"),
    ],
)
def test_a_file_that_cannot_be_used_says_where_and_why(run, file, text, said):
    file.write_text(text)
    refused = run("layouts", "apply", str(file), "--yes", "--publish")
    assert refused.returncode != 0, refused.stdout
    assert said in refused.stderr
    assert "Traceback" not in refused.stderr
