"""`targets …`: kept from files, shown as they were written, published, restored, deleted."""

FILE = """\
key: cli-shop
kind: page
title: Shop
origins: [https://shop.example]
inputs:
- key: street
  find: [{name: s}]
addresses:
- key: delivery
  label: Delivery
  countries: [GB]
  finder: {at: street}
  mapping: [{lines: street, into: street}]
"""


def test_a_target_is_applied_shown_published_gone_back_from_and_deleted(run, tmp_path):
    file = tmp_path / "shop.yaml"
    file.write_text(FILE)
    kept = run("targets", "apply", str(file), "--yes")
    assert kept.stdout == (
        "Shop (cli-shop, new)\n  Nothing of it is published yet.\ncli-shop is kept as a draft.\n"
    ), kept.stderr
    assert "cli-shop  Shop   page  not yet" in run("targets", "list").stdout
    same = run("targets", "apply", str(file))
    assert "Nothing is different" in same.stderr
    asked = run("targets", "apply", str(file), "--publish", source="n\n")
    assert asked.returncode == 1
    assert "version 1" in run("targets", "publish", "cli-shop", "--yes").stdout
    same = run("targets", "publish", "cli-shop")
    assert (same.returncode, "Nothing is different" in same.stderr) == (0, True)
    shown = run("targets", "show", "cli-shop")
    again = tmp_path / "again.yaml"
    again.write_text(shown.stdout)
    assert "fields:" in shown.stdout, "a file of an earlier release is kept as today's"
    assert "Nothing is different" in run("targets", "apply", str(again)).stderr
    assert "No page has reported" in run("targets", "faults", "cli-shop").stderr
    file.write_text(FILE.replace("{at: street}", "{at: stret}"))
    faulty = run("targets", "apply", str(file), "--yes")
    assert (
        "/addresses/0/finder/at: There is no field 'stret'. Did you mean street?" in faulty.stderr
    )
    refused = run("targets", "publish", "cli-shop", "--yes")
    assert (refused.returncode, "Did you mean street" in refused.stderr) == (2, True)
    assert run("targets", "restore", "cli-shop", "0").stdout == "cli-shop is out of force.\n"
    assert run("targets", "delete", "cli-shop", "--yes").stdout == "cli-shop is deleted.\n"
    assert run("targets", "show", "cli-shop").returncode == 3
