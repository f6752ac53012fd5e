"""What earlier releases kept goes on: drafts taken over for good, versions as read, keys."""

import json

import pytest
from alembic import command
from sqlalchemy import text

from anchorline.core.forms.upgrade import with_word_for_written_fields
from anchorline.core.keys import SCOPES
from anchorline.store.database import Database
from anchorline.store.forms import FormStore
from anchorline.store.keys import KeyStore
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


@pytest.fixture
def as_before(database_url):
    """Takes the tables back to an earlier release, keeps something there, and brings them here."""
    database = Database(database_url)

    def upgraded(revision, keep):
        migrate(database)
        config = _config()
        with database.engine.connect() as connection:
            config.attributes["connection"] = connection
            command.downgrade(config, revision)
        keep(database)
        migrate(database)
        return database

    yield upgraded
    database.close()


def published(document):
    """Keeps and publishes a form."""

    def keep(database):
        forms = FormStore(database)
        kept = forms.put_draft(document["key"], document, None)
        forms.publish(document["key"], kept.revision, "somebody")

    return keep


def test_drafts_are_taken_over_and_published_versions_stay_as_they_were(as_before):
    database = as_before("0008", published(OLD))
    forms = FormStore(database)
    draft, entry = forms.draft("old")
    assert draft == TODAY
    assert (entry.draft_differs, entry.revision) == (False, 1)
    assert forms.version("old") == (TODAY, 1)
    asking = text("SELECT document FROM form_version WHERE form = 'old'")
    kept = database.run(lambda session: session.execute(asking).scalar())
    assert json.loads(kept) == OLD
    assert not forms.put_draft("old", TODAY, entry.revision).draft_differs


def test_the_first_of_several_rules_into_one_field_goes_on_to_keep_it(as_before):
    rules = [
        {"components": ["po_box"], "into": "a"},
        {"components": ["street"], "into": "a"},
        {"components": ["town"], "into": "b"},
    ]
    slot = {"key": "s", "label": "S", "countries": ["GB"], "parts": [], "mapping": rules}
    before = {"key": "two", "kind": "web", "title": "T", "fields": [], "slots": [slot]}
    said = [rules[0], rules[1] | {"if_written": "leave"}, rules[2]]
    forms = FormStore(as_before("0011", published(before)))
    assert forms.draft("two")[0]["slots"][0]["mapping"] == said
    assert forms.version("two")[0]["slots"][0]["mapping"] == said
    document = {**before, "slots": [slot | {"mapping": said}]}
    assert with_word_for_written_fields(document) is document


def test_keys_that_there_are_go_on_to_do_what_they_did(as_before):
    kept = text(
        "INSERT INTO api_key (id, kind, name, secret_digest, origins, forms, created_at, revoked)"
        " VALUES (:id, :kind, 'P', 'x', :origins, '[]', '2026-01-01', 0)"
    )

    def keep(database):

        def work(session):
            session.execute(kept, {"id": "k1", "kind": "server", "origins": "[]"})
            origins = json.dumps(["https://a.example"])
            session.execute(kept, {"id": "k2", "kind": "browser", "origins": origins})

        database.run(work)

    keys = {key.id: key for key in KeyStore(as_before("0013", keep)).list()}
    # Those that there were then.
    assert keys["k1"].scopes == tuple(name for name in SCOPES if name not in ("desk", "observe"))
    assert (keys["k2"].scopes, keys["k2"].origins) == ((), ("https://a.example",))
    assert (keys["k1"].expires_at, keys["k2"].targets) == (None, ())
