"""The life of documents in the store, the same for every kind that there is."""

from datetime import timedelta

import pytest
from sqlalchemy import event

from anchorline.application.documents import KINDS, OWN_LAYOUTS
from anchorline.store.cursors import BadCursorError
from anchorline.store.database import NotThereError, StaleError
from anchorline.store.document_editors import GONE_AFTER, DocumentEditors
from anchorline.store.document_model import Seen
from anchorline.store.documents import DocumentStore


def document(key, title="T"):
    return {"key": key, "kind": "web", "title": title, "countries": ["FR"]}


@pytest.fixture(params=list(KINDS))
def documents(request, database):
    return DocumentStore(database, KINDS[request.param].stored)


@pytest.fixture
def own(database):
    return DocumentStore(database, OWN_LAYOUTS.stored)


def kept(documents, key, title="T"):
    """A document that is made anew."""
    if key in set(documents.keys()):
        documents.remove(key, None)
    return documents.put_draft(key, document(key, title), None)


def test_a_draft_is_published_as_numbered_versions_that_never_change(documents):
    first = kept(documents, "versions", "One")
    with pytest.raises(NotThereError, match="not been published"):
        documents.version("versions")
    assert documents.publish("versions", first.revision, "ada").published_version == 1
    assert documents.publish("versions", first.revision, "ada").published_version == 1
    changed = documents.put_draft("versions", document("versions", "Two"), first.revision)
    assert changed.draft_differs
    with pytest.raises(StaleError):  # this is not the draft that was checked
        documents.publish("versions", first.revision, "ada")
    assert documents.publish("versions", changed.revision, "bob").published_version == 2
    assert documents.version("versions", 1).document["title"] == "One"
    now = documents.version("versions")
    assert (now.document["title"], now.number, now.published_by) == ("Two", 2, "bob")
    assert [(one.number, one.document["title"]) for one in documents.versions("versions", 9)] == [
        (2, "Two"),
        (1, "One"),
    ]
    assert [one.number for one in documents.versions("versions", 9, before=2)] == [1]
    assert [one.number for one in documents.versions("versions", 1)] == [2]


def test_a_draft_changed_by_somebody_else_is_not_overwritten(documents):
    first = kept(documents, "stale")
    documents.put_draft("stale", document("stale", "Other"), first.revision)
    for revision in (first.revision, None):
        with pytest.raises(StaleError):
            documents.put_draft("stale", document("stale", "Mine"), revision)
    assert documents.draft("stale")[0]["title"] == "Other"


def test_one_that_was_deleted_is_not_made_anew_by_a_change_to_it(documents):
    first = kept(documents, "gone-meanwhile")
    documents.remove("gone-meanwhile", None)
    with pytest.raises(NotThereError):
        documents.put_draft("gone-meanwhile", document("gone-meanwhile"), first.revision)
    assert "gone-meanwhile" not in set(documents.keys())


def test_a_draft_that_was_as_published_follows_what_is_restored(documents):
    first = kept(documents, "back", "One")
    documents.publish("back", first.revision, "ada")
    second = documents.put_draft("back", document("back", "Two"), first.revision)
    documents.publish("back", second.revision, "ada")
    back = documents.restore("back", 1, None)
    assert (back.published_version, back.draft_differs, back.title) == (1, False, "One")
    mine = documents.put_draft("back", document("back", "Mine"), back.revision)
    forth = documents.restore("back", 2, None)
    assert (forth.draft_differs, documents.draft("back")[0]["title"]) == (True, "Mine")
    assert forth.revision == mine.revision, "the draft stayed as it was"
    none = documents.restore("back", None, None)
    assert (none.published_version, none.draft_differs) == (None, True)
    with pytest.raises(NotThereError, match="has no version 7"):
        documents.restore("back", 7, None)


def test_what_is_taken_back_is_what_is_published(documents):
    first = kept(documents, "taken", "One")
    with pytest.raises(NotThereError, match="not been published"):
        documents.take_back("taken", None)
    documents.publish("taken", first.revision, "ada")
    documents.put_draft("taken", document("taken", "Two"), first.revision)
    taken = documents.take_back("taken", None)
    assert (taken.draft_differs, taken.title) == (False, "One")
    assert documents.draft("taken")[0]["title"] == "One"


def test_whoever_looked_at_another_state_changes_nothing(documents):
    first = kept(documents, "looked-at", "One")
    seen = Seen.of(first)
    published = documents.publish("looked-at", first.revision, "ada")
    for change in (
        lambda: documents.restore("looked-at", 1, seen),
        lambda: documents.take_back("looked-at", seen),
        lambda: documents.remove("looked-at", seen),
    ):
        with pytest.raises(StaleError) as raised:
            change()
        assert raised.value.current == published.tag
    assert documents.restore("looked-at", None, Seen.of(published)).published_version is None


def test_versions_of_a_deleted_one_stay_only_where_they_are_named(documents):
    for key, keeps in (("named", True), ("not-named", False)):
        first = kept(documents, key)
        documents.publish(key, first.revision, "ada")
        documents.remove(key, None, keeps_versions=keeps)
        with pytest.raises(NotThereError, match=f"no {documents.kind.noun} '{key}'"):
            documents.versions(key, 9)
        again = documents.put_draft(key, document(key), None)
        number = documents.publish(key, again.revision, "ada").published_version
        assert number == (2 if keeps else 1)
        documents.remove(key, None)


def test_lists_come_page_by_page_in_the_order_in_which_people_read(documents):
    titles = ["Zebra", "äpfel", "Apples", "Two", "Two", "100 %_", "o"]
    for n, title in enumerate(titles):
        kept(documents, f"paged-{n}", title)
    whole = [one for one in documents.page(500).entries if one.key.startswith("paged-")]
    read = [(one.title, one.key) for one in whole]
    assert [title for title, _key in read] == [
        "100 %_", "äpfel", "Apples", "o", "Two", "Two", "Zebra",
    ]  # fmt: skip
    for limit in (1, 2, 3):
        found, after = [], None
        while True:
            page = documents.page(limit, after=after)
            assert len(page.entries) <= limit
            found += [one.key for one in page.entries if one.key.startswith("paged-")]
            if page.after is None:
                break
            after = page.after
        assert found == [key for _title, key in read], limit
    assert {one.key for one in documents.page(9, search="zeb paged").entries} == {"paged-0"}
    assert {one.key for one in documents.page(9, search="%_").entries} == {"paged-5"}
    for cursor in ("", "nonsense", "WyJkb2N1bWVudHMiLDEsMl0="):
        with pytest.raises(BadCursorError):
            documents.page(1, after=cursor)


def test_a_list_reads_no_draft(documents, database):
    kept(documents, "large", "Large")
    statements = []

    def listen(_connection, _cursor, statement, *_rest):
        statements.append(statement)

    event.listen(database.engine, "before_cursor_execute", listen)
    documents.page(10)
    documents.keys()
    documents.counts()
    event.remove(database.engine, "before_cursor_execute", listen)
    assert statements
    assert not [one for one in statements if "document.draft," in one or "document.draft " in one]


def test_counts_titles_and_keys_are_of_one_kind(documents):
    first = kept(documents, "counted", "Counted")
    before = documents.counts()
    documents.publish("counted", first.revision, "ada")
    assert documents.counts() == (before[0], before[1] + 1, before[2] - 1)
    assert documents.titles()["counted"] == "Counted"
    assert documents.published_numbers()["counted"] == 1
    assert [one.key for one in documents.published(["counted", "not-there"])] == ["counted"]
    assert [one for one in documents.drafts() if one["key"] == "counted"] == [
        document("counted", "Counted")
    ]


def test_what_is_replaced_since_when_is_known_of_each_version(documents, clock):
    first = kept(documents, "replaced", "One")
    documents.publish("replaced", first.revision, "ada")
    assert documents.replaced_at("replaced", 1) is None
    clock.forward(hours=1)
    second = documents.put_draft("replaced", document("replaced", "Two"), first.revision)
    documents.publish("replaced", second.revision, "ada")
    assert documents.replaced_at("replaced", 1) == clock()
    assert documents.replaced_at("replaced", 2) is None


def test_the_digest_of_what_is_published_changes_with_it(documents):
    first = kept(documents, "digested", "One")
    with pytest.raises(NotThereError, match="not been published"):
        documents.published_digest("digested")
    documents.publish("digested", first.revision, "ada")
    one = documents.published_digest("digested")
    documents.put_draft("digested", document("digested", "Two"), first.revision)
    assert documents.published_digest("digested") == one
    documents.publish("digested", first.revision + 1, "ada")
    two = documents.published_digest("digested")
    assert (one[1], two[1], one[0] != two[0]) == (1, 2, True)


def test_publishing_again_makes_a_version_where_what_it_rests_on_is_new(own):
    first = kept(own, "again")
    for base, number in (({"FR": 1}, 1), ({"FR": 1}, 1), ({"FR": 2}, 2)):
        assert own.publish("again", first.revision, "ada", base).published_version == number
    assert own.version("again", 1).base == {"FR": 1}


def test_who_has_a_draft_open_is_told_until_they_are_gone(documents, database, clock):
    editors, kind = DocumentEditors(database), documents.kind.name
    assert editors.seen(kind, "edited", "page1a", "ada") == []
    [other] = editors.seen(kind, "edited", "page2b", "bob")
    assert (other.name, other.since) == ("ada", clock())
    assert editors.seen("another", "edited", "page3c", "kim") == [], "of that kind there is nobody"
    clock.forward(seconds=30)
    assert [one.name for one in editors.seen(kind, "edited", "page1a", "ada")] == ["bob"]
    clock.time += GONE_AFTER - timedelta(seconds=29)
    assert editors.seen(kind, "edited", "page1a", "ada") == []
    editors.left(kind, "edited", "page1a")
    assert editors.seen(kind, "edited", "page2b", "bob") == []
    for page in ("page2b", "page1a"):
        editors.left(kind, "edited", page)
