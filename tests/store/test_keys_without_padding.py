"""No key matches another one that only has blanks at its end."""

import pytest
from alembic import command
from sqlalchemy import text

from anchorline.application.documents import FORMS
from anchorline.store.database import Database, NotThereError
from anchorline.store.datasets import DatasetRules, DatasetStore
from anchorline.store.documents import DocumentStore
from anchorline.store.migrate import _config


def padded_columns(database):
    """Columns of short texts that take `race` and `race ` for the same, and are in any index."""

    def work(session):
        return session.execute(
            text(
                "SELECT CONCAT(c.table_name, '.', c.column_name) FROM information_schema.columns c "
                "JOIN information_schema.statistics s ON s.table_schema = c.table_schema "
                "AND s.table_name = c.table_name AND s.column_name = c.column_name "
                "WHERE c.table_schema = DATABASE() AND c.collation_name NOT LIKE '%nopad%' "
                "AND c.table_name <> 'alembic_version' AND c.column_name NOT IN ('label', 'title')"
            )
        ).scalars().all()  # fmt: skip

    return database.run(work)


def test_no_indexed_key_is_compared_with_padding(database):
    assert padded_columns(database) == []


def test_a_dataset_is_not_found_by_its_name_with_a_blank_behind_it(database):
    datasets = DatasetStore(database)
    datasets.set_rules("race", DatasetRules())
    assert datasets.get("race").name == "race"
    for other in ("race ", "race  ", " race", "race\t"):
        with pytest.raises(NotThereError):
            datasets.get(other)


def test_a_form_is_not_found_by_its_key_with_a_blank_behind_it(database):
    forms = DocumentStore(database, FORMS.stored)
    forms.put_draft("pad", {"title": "Pad", "kind": "web"}, None)
    assert forms.draft("pad")[1].key == "pad"
    with pytest.raises(NotThereError):
        forms.draft("pad ")


def test_going_back_and_forth_over_the_change_keeps_rows_and_rules(database_url):
    database = Database(database_url)
    config = _config()

    def definition(table):

        def work(session):
            return session.execute(text(f"SHOW CREATE TABLE {table}")).one()[1]

        return database.run(work)

    names = ("dataset", "edition", "job", "record", "record_address", "document", "api_key", "user")
    before = {name: definition(name) for name in names}
    with database.engine.connect() as connection:
        config.attributes["connection"] = connection
        command.downgrade(config, "0004")
        assert padded_columns(database) != []
        command.upgrade(config, "head")
    assert {name: definition(name) for name in names} == before
    database.close()
