import pytest

from anchorline.store.database import NotThereError, StaleError
from anchorline.store.own_layouts import OwnLayoutStore


def document(key, title="Letters"):
    return {"key": key, "title": title, "countries": ["FR"]}


@pytest.fixture
def layouts(database):
    return OwnLayoutStore(database)


def test_publishing_going_back_and_forth_changes_the_stamp_and_what_is_published(layouts):
    key = "to-and-fro"
    stamps = [layouts.stamp()]
    first = layouts.put_draft(key, document(key, "One"), None)
    assert layouts.stamp() == stamps[0]  # a draft holds nowhere
    layouts.publish(key, first.revision, {"FR": 1}, "ada")
    stamps.append(layouts.stamp())
    second = layouts.put_draft(key, document(key, "Two"), first.revision)
    assert second.draft_differs
    assert layouts.publish(key, second.revision, {"FR": 1}, "ada").published_version == 2
    stamps.append(layouts.stamp())
    assert layouts.restore(key, 1).draft_differs
    stamps.append(layouts.stamp())
    assert [(v.key, v.number) for v in layouts.published() if v.key == key] == [(key, 1)]
    assert layouts.restore(key, None).published_version is None
    stamps.append(layouts.stamp())
    assert [v for v in layouts.published() if v.key == key] == []
    assert [dict(stamp).get(key) for stamp in stamps] == [None, 1, 2, 1, None]
    assert [(v.number, v.document["title"]) for v in layouts.versions(key)] == [
        (2, "Two"),
        (1, "One"),
    ]


def test_publishing_again_makes_a_version_only_where_something_is_new(layouts):
    kept = layouts.put_draft("again", document("again"), None)
    assert layouts.publish("again", kept.revision, {"FR": 1}, "ada").published_version == 1
    assert layouts.publish("again", kept.revision, {"FR": 1}, "ada").published_version == 1
    assert layouts.publish("again", kept.revision, {"FR": 2}, "ada").published_version == 2


def test_what_was_not_reviewed_is_not_published(layouts):
    kept = layouts.put_draft("unseen", document("unseen"), None)
    layouts.put_draft("unseen", document("unseen", "Other"), kept.revision)
    with pytest.raises(StaleError):
        layouts.publish("unseen", kept.revision, {}, "ada")


def test_a_name_that_is_used_again_goes_on_with_its_numbers(layouts):
    kept = layouts.put_draft("gone", document("gone"), None)
    layouts.publish("gone", kept.revision, {}, "ada")
    before = layouts.stamp()
    layouts.remove("gone")
    assert layouts.stamp() != before
    with pytest.raises(NotThereError, match="no own layout 'gone'"):
        layouts.versions("gone")
    kept = layouts.put_draft("gone", document("gone"), None)
    assert layouts.publish("gone", kept.revision, {}, "ada").published_version == 2


def test_there_is_no_going_back_to_a_version_that_never_was(layouts):
    layouts.put_draft("never", document("never"), None)
    with pytest.raises(NotThereError, match="has no version 7"):
        layouts.restore("never", 7)
