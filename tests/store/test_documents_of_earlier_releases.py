"""What earlier releases kept goes on: documents as they are read today, keys."""

import json

import pytest
from alembic import command
from sqlalchemy import text

from anchorline.application.documents import FORMS, OWN_LAYOUTS, TARGETS
from anchorline.core.forms.upgrade import with_word_for_written_fields
from anchorline.core.keys import SCOPES
from anchorline.store.database import Database
from anchorline.store.documents import DocumentStore
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


def published(document, kind="form"):
    """Keeps and publishes a document, as an earlier release did."""

    def keep(database):
        more, given = (", kind", ", 'web'") if kind == "form" else ("", "")
        base, of_base = (", base", """, '{"FR": 1}'""") if kind == "own_layout" else ("", "")
        one = {"key": document["key"], "title": document["title"], "text": json.dumps(document)}

        def work(session):
            session.execute(
                text(
                    f"INSERT INTO {kind} (`key`, title, draft, revision, draft_differs, "
                    f"published_version, changed_at{more}) "
                    f"VALUES (:key, :title, :text, 3, 0, 2, '2026-01-01'{given})"
                ),
                one,
            )
            session.execute(
                text(
                    f"INSERT INTO {kind}_version ({kind}, number, document, published_at, "
                    f"published_by{base}) VALUES (:key, 2, :text, '2026-01-01', 'ada'{of_base})"
                ),
                one,
            )

        database.run(work)

    return keep


def kept_as(database, table):
    """What stands in the database, as it was written down."""
    column = "draft" if table == "document" else "document"
    asking = text(f"SELECT {column} FROM {table} WHERE kind = 'form'")
    return [json.loads(one) for one in database.run(lambda session: session.scalars(asking).all())]


def test_forms_are_read_as_todays_and_stay_as_they_were(as_before):
    database = as_before("0008", published(OLD))
    forms = DocumentStore(database, FORMS.stored)
    draft, entry = forms.draft("old")
    assert draft == TODAY
    assert (entry.draft_differs, entry.revision, entry.about) == (False, 3, {"kind": "web"})
    version = forms.version("old")
    assert (version.document, version.number, version.published_by) == (TODAY, 2, "ada")
    assert OLD in kept_as(database, "document")
    assert OLD in kept_as(database, "document_version")
    assert not forms.put_draft("old", TODAY, entry.revision).draft_differs
    assert OLD in kept_as(database, "document_version")


RULES = [
    {"components": ["po_box"], "into": "a"},
    {"components": ["street"], "into": "a"},
    {"components": ["town"], "into": "b"},
]
SAID = [RULES[0], RULES[1] | {"if_written": "leave"}, RULES[2]]


def with_rules(key):
    slot = {"key": "s", "label": "S", "countries": ["GB"], "parts": [], "mapping": RULES}
    return {"key": key, "kind": "web", "title": "T", "fields": [], "slots": [slot]}


def test_the_first_of_several_rules_into_one_field_goes_on_to_keep_it(as_before):
    forms = DocumentStore(as_before("0011", published(with_rules("two"))), FORMS.stored)
    assert forms.draft("two")[0]["slots"][0]["mapping"] == SAID
    assert forms.version("two").document["slots"][0]["mapping"] == SAID
    document = with_rules("two")
    document["slots"][0]["mapping"] = SAID
    assert with_word_for_written_fields(document) is document


def test_rules_that_were_written_down_later_mean_what_they_say(as_before):
    """A database that came over the former 0012, which had rewritten what was there."""

    def keep(database):
        for table in ("form", "form_version"):
            drop = text(f"ALTER TABLE {table} DROP COLUMN format")
            database.run(lambda session, drop=drop: session.execute(drop))
        published(with_rules("later"))(database)

    forms = DocumentStore(as_before("0021", keep), FORMS.stored)
    assert forms.draft("later")[0]["slots"][0]["mapping"] == RULES
    assert forms.version("later").document["slots"][0]["mapping"] == RULES


@pytest.mark.parametrize("kind", [OWN_LAYOUTS, TARGETS])
def test_documents_of_all_kinds_come_along(as_before, kind):
    title = f"Kept {kind.name}"
    document = {"key": "kept", "title": title, "countries": ["FR"], "forms": ["a"]}
    documents = DocumentStore(as_before("0021", published(document, kind.name)), kind.stored)
    assert documents.draft("kept")[0] == document
    assert documents.version("kept").document == document
    about = documents.page(9, search=title).entries[0].about
    if kind is OWN_LAYOUTS:
        assert about == {"countries": ["FR"], "forms": ["a"]}
        assert documents.version("kept").base == {"FR": 1}
    else:
        assert about == {"kind": "page"}
    documents.remove("kept", None)


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
