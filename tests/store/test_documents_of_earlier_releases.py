"""Conditions that were a field with values become formulas: drafts for good, versions as read."""

import json

from alembic import command
from sqlalchemy import text

from anchorline.core.forms.upgrade import with_word_for_written_fields
from anchorline.store.database import Database
from anchorline.store.forms import FormStore
from anchorline.store.migrate import _config, migrate

OLD = {
    "key": "old", "kind": "web", "title": "Old",
    "fields": [
        {"key": "a", "type": "yes_no", "label": "A"},
        {"key": "b", "label": "B", "show_when": {"field": "a", "values": ["yes"]}},
    ],
}  # fmt: skip
TODAY = OLD | {
    "fields": [OLD["fields"][0], {"key": "b", "label": "B", "shown_when": "a"}],
}


def test_drafts_are_taken_over_and_published_versions_stay_as_they_were(database_url):
    database = Database(database_url)
    forms, config = FormStore(database), _config()
    migrate(database)
    with database.engine.connect() as connection:
        config.attributes["connection"] = connection
        command.downgrade(config, "0008")
    forms.put_draft("old", OLD, None)
    forms.publish("old", "somebody")
    migrate(database)
    draft, entry = forms.draft("old")
    assert draft == TODAY
    assert (entry.draft_differs, entry.revision) == (False, 1)
    assert forms.version("old") == (TODAY, 1)
    with database.transaction() as session:
        kept = session.execute(
            text("SELECT document FROM form_version WHERE form = 'old'")
        ).scalar()
    assert json.loads(kept) == OLD
    assert not forms.put_draft("old", TODAY, entry.revision).draft_differs
    database.close()


def test_the_first_of_several_rules_into_one_field_goes_on_to_keep_it(database_url):
    rules = [
        {"components": ["po_box"], "into": "a"},
        {"components": ["street"], "into": "a"},
        {"components": ["town"], "into": "b"},
    ]
    slot = {"key": "s", "label": "S", "countries": ["GB"], "parts": [], "mapping": rules}
    before = {"key": "two", "kind": "web", "title": "T", "fields": [], "slots": [slot]}
    said = [rules[0], rules[1] | {"if_written": "leave"}, rules[2]]
    database = Database(database_url)
    forms, config = FormStore(database), _config()
    migrate(database)
    with database.engine.connect() as connection:
        config.attributes["connection"] = connection
        command.downgrade(config, "0011")
    forms.put_draft("two", before, None)
    forms.publish("two", "somebody")
    migrate(database)
    assert forms.draft("two")[0]["slots"][0]["mapping"] == said
    assert forms.version("two")[0]["slots"][0]["mapping"] == said
    document = {**before, "slots": [slot | {"mapping": said}]}
    assert with_word_for_written_fields(document) is document
    database.close()
