"""`targets …` of programs: applied from a file, worded at once, copied, taken back, their runs."""

FILE = """\
key: cli-ledger
kind: program
title: Ledger
screens:
  - key: contact
    conditions:
      - {kind: title, test: begins, text: "Contact "}
parts:
  - {key: street, label: Street}
addresses:
  - key: home
    label: Home
    mapping:
      - {lines: street, into: street}
    plan:
      table:
        - {part: street, then: nothing}
"""


def test_a_program_is_applied_worded_copied_and_taken_back(run, tmp_path):
    file = tmp_path / "ledger.yaml"
    file.write_text(FILE)
    assert (
        "published as version 1" in run("targets", "apply", str(file), "--publish", "--yes").stdout
    )
    try:
        assert "cli-ledger  Ledger  program" in run("targets", "list").stdout
        worded = run("targets", "wording", "cli-ledger", "--capitals", "--home-country", "GB")
        assert "kept as a draft" in worded.stdout
        assert "capitals: true" in run("targets", "show", "cli-ledger").stdout
        assert run("targets", "wording", "cli-ledger").returncode == 2
        back = run("targets", "take-back", "--all", "--yes")
        assert "cli-ledger: the draft is what is published" in back.stdout
        assert "capitals" not in run("targets", "show", "cli-ledger").stdout
        assert "nothing was changed" in run("targets", "take-back", "cli-ledger").stderr
        assert "kept as a draft" in run("targets", "copy", "cli-ledger", "cli-second").stdout
        assert "No agent has told" in run("targets", "runs", "cli-ledger").stderr
    finally:
        for key in ("cli-ledger", "cli-second"):
            run("targets", "delete", key, "--yes")
    shown = run("targets", "apply", str(file))
    assert "new" in shown.stdout
    file.write_text(FILE.replace("label: Street", "label: Street, max_length: none"))
    wrong = run("targets", "apply", str(file))
    assert wrong.returncode == 2
    assert "/fields/0/max_length" in wrong.stderr
