import csv

from click.testing import CliRunner

from anchorline.core.forms import read_form
from anchorline.core.layouts import LayoutLibrary
from anchorline.core.reference import RowChecker, Source
from anchorline.demo.commands import main
from anchorline.demo.scenario import FORMS, form_document
from anchorline.demo.world import COUNTRIES


def test_rows_are_written_in_the_form_that_the_service_loads(tmp_path, layouts: LayoutLibrary):
    file = tmp_path / "rows.csv"
    arguments = ["rows", "120", "--seed", "3", "--country", "DE", "--country", "JP"]
    assert CliRunner().invoke(main, [*arguments, "--output", str(file)]).exit_code == 0
    checker = RowChecker(layouts)
    checked = [checker.check(batch) for batch in Source([file.read_bytes()]).batches(50)]
    rows = [row for batch in checked for row in batch.block.rows()]
    assert len({row.id for row in rows}) == 120
    assert [row.language for row in rows].count("ja-Latn") == 60
    assert {row.country_code for row in rows} == {"DE", "JP"}
    assert not any(batch.findings.tallies for batch in checked)
    again = CliRunner().invoke(main, arguments).stdout_bytes
    assert again == file.read_bytes()
    assert next(csv.reader([again.decode().splitlines()[0]]))[:2] == ["id", "country_code"]


def test_every_form_of_the_scenario_reads_and_maps_each_part(layouts):
    for key in FORMS:
        form = read_form(form_document(key).model_dump(exclude_none=True), layouts)
        for slot in form.slots:
            assert {part.key for part in slot.parts} <= {
                key for rule in slot.mapping for key in rule.into
            }


def test_starting_twice_says_that_it_runs(stack):
    assert f"The demo is running at {stack.url}." in stack.demo("start")


def test_the_scenario_has_records_of_each_form_and_country(client):
    records = list(client.all_records())
    assert {r.form for r in records} >= set(FORMS)
    countries = {a.country_code for r in records for a in client.record(r.id).slots.values()}
    assert countries >= set(COUNTRIES)
