"""The life of documents of all kinds: kept as drafts, published, gone back to, copied, deleted."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import NamedTuple

from anchorline.core.document_changes import Change, finished
from anchorline.core.errors import Problem
from anchorline.store.database import NotThereError, StaleError
from anchorline.store.document_editors import Editor
from anchorline.store.document_model import Document, Entry, Seen
from anchorline.store.idempotency import IdempotencyKey

from ..errors import ConflictError, InvalidError
from ..once import once
from ..services import Services
from .kind import DocumentKind, Reference
from .kinds import KINDS

SENTENCES_OF_A_VERSION = 5


class Difference(NamedTuple):
    """What publishing would change, and what there is to say of it.

    Attributes:
        changes: each with its sentence, finished, and how many keep what it removes.
        is_new: nothing is published to compare with.
    """

    changes: Sequence[tuple[Change, str, int | None]]
    problems: Sequence[Problem]
    warnings: Sequence[Problem]
    unreadable: int
    is_new: bool


@dataclass(frozen=True, slots=True)
class PublishedVersion:
    """A version in the list of all.

    Attributes:
        uses: how much was made with it; None where nothing is made with documents of the kind.
        changes: what it changed, in sentences; the first few.
        more_changes: how many further ones there are.
    """

    number: int
    published_at: datetime
    published_by: str
    in_force: bool
    uses: int | None
    changes: Sequence[str]
    more_changes: int


def keep_draft(
    services: Services,
    kind: DocumentKind,
    key: str,
    document: Document,
    revision: int | None,
    *,
    unfinished: bool = False,
) -> Entry:
    """Keeps a draft; makes the document where it is new.

    Args:
        revision: the one that the change was made to; None to make a new document.
        unfinished: keep it although something in it is wrong.

    Raises:
        InvalidError: something in it is wrong, or it has another key.
        StaleError: the draft has another revision by now, or the document is not new.
    """
    if document["key"] != key:
        raise InvalidError([Problem("/key", f"The key is {key!r} in the address.")])
    if not unfinished:
        _require_none(kind.readable(services, document))
    return kind.store(services).put_draft(key, document, revision)


def publish(
    services: Services, kind: DocumentKind, key: str, revision: int | None, by: str
) -> Entry:
    """Publishes the draft as the next version; the same version where nothing differs.

    Args:
        revision: of the draft that was looked at; None for whichever there is.

    Raises:
        NotThereError: there is no such document.
        StaleError: the draft has another revision by now.
        InvalidError: something stands against it.
    """
    store = kind.store(services)
    document, entry = store.draft(key)
    if revision is not None and revision != entry.revision:
        raise StaleError(entry.tag)
    _require_none(kind.checked(services, document).problems)
    return store.publish(key, entry.revision, by, kind.base(services, document))


def restore(
    services: Services, kind: DocumentKind, key: str, number: int | None, seen: Seen | None
) -> Entry:
    """Publishes an earlier version again, checked anew; with None, none is published any more.

    Raises:
        NotThereError: there is no such document, or no such version of it.
        StaleError: it is in another state by now than the one that was looked at.
        InvalidError: something stands against it today.
    """
    store = kind.store(services)
    if number is not None:
        _require_none(kind.checked(services, store.version(key, number).document).problems)
    return store.restore(key, number, seen)


def copy(
    services: Services,
    kind: DocumentKind,
    key: str,
    new_key: str,
    title: str | None,
    once_by: IdempotencyKey | None,
) -> tuple[Document, Entry]:
    """Makes a new document of a document's draft.

    Args:
        title: of the new one; the same by default.
        once_by: by which a repeated request is known.

    Raises:
        NotThereError: there is no such document.
        ConflictError: there is one with the new key already.
    """
    store = kind.store(services)
    document, _entry = store.draft(key)
    made = document | {"key": new_key, "title": title or document["title"]}

    def make() -> str:
        try:
            store.put_draft(new_key, made, None)
        except StaleError:
            there = f"There is a {kind.stored.noun} {new_key!r} already; choose another key."
            raise ConflictError(there) from None
        return new_key

    return store.draft(once(services, once_by, make))


def delete(services: Services, kind: DocumentKind, key: str, seen: Seen | None) -> None:
    """Deletes a document with all that goes with it.

    Raises:
        NotThereError: there is no such document.
        StaleError: it is in another state by now than the one that was looked at.
        ConflictError: it is needed for something.
    """
    store = kind.store(services)

    def work(_session: object) -> None:
        store.hold(key, seen)
        needed = kind.in_use(services, key) or _named_by_others(services, kind, key)
        if needed:
            raise ConflictError(needed)
        kind.forget(services, key)
        store.remove(key, None, keeps_versions=kind.keeps_versions)

    services.database.run(work)


def difference(
    services: Services,
    kind: DocumentKind,
    key: str,
    *,
    document: Document | None = None,
    since: int | None = None,
    until: int | None = None,
) -> Difference:
    """What publishing would change, in sentences, and what stands against it; keeps nothing.

    Args:
        document: instead of the draft; it need not have been kept.
        since: a version, instead of the published one.
        until: a version, instead of the draft.
    """
    store = kind.store(services)
    if document is not None and until is not None:
        raise InvalidError([Problem("/until", "Give a document or a version, not both.")])
    if document is not None and document["key"] != key:
        raise InvalidError([Problem("/document/key", f"The key is {key!r} in the address.")])
    if document is not None:
        new = document
    else:
        new = store.draft(key)[0] if until is None else store.version(key, until).document
    checked = kind.checked(services, new)
    old = _published(services, kind, key, since)
    changes = (
        kind.changes_when_new(services, new) if old is None else kind.changes(services, old, new)
    )
    counts = kind.keeping(services, key, [one.keeps for one in changes if one.keeps])
    told = [(one, counts.get(one.keeps or "")) for one in changes]
    return Difference(
        [(one, finished(one, count), count) for one, count in told],
        checked.problems,
        checked.warnings,
        checked.unreadable,
        is_new=old is None,
    )


def versions(
    services: Services, kind: DocumentKind, key: str, limit: int, before: int | None = None
) -> Sequence[PublishedVersion]:
    """Published versions, the newest first: who, when, what.

    Args:
        before: only those with a smaller number.
    """
    store = kind.store(services)
    in_force = store.draft(key)[1].published_version
    uses = kind.uses(services, key)
    # One more than is listed, for what the last of them changed.
    found = store.versions(key, limit + 1, before)
    listed = []
    for version, earlier in zip(found[:limit], [*found[1:], None], strict=False):
        changes = kind.changes(services, earlier.document, version.document) if earlier else []
        sentences = [finished(change, None) for change in changes]
        listed.append(
            PublishedVersion(
                version.number,
                version.published_at,
                version.published_by,
                version.number == in_force,
                None if uses is None else uses.get(version.number, 0),
                sentences[:SENTENCES_OF_A_VERSION],
                max(0, len(sentences) - SENTENCES_OF_A_VERSION),
            )
        )
    return listed


def note_editor(
    services: Services, kind: DocumentKind, key: str, page: str, name: str, *, leaves: bool
) -> tuple[Sequence[Editor], Entry]:
    """Notes that a page has the draft open, or that it was closed; who else has, and its state."""
    entry = kind.store(services).draft(key)[1]
    if leaves:
        services.editors.left(kind.name, key, page)
        return [], entry
    return services.editors.seen(kind.name, key, page, name), entry


def _published(
    services: Services, kind: DocumentKind, key: str, since: int | None
) -> Document | None:
    """What was before; None where nothing is published, or there is no such document yet."""
    store = kind.store(services)
    if since is not None:
        return store.version(key, since).document
    try:
        return store.version(key).document
    except NotThereError:
        return None


def _named_by_others(services: Services, kind: DocumentKind, key: str) -> str | None:
    """That published documents name a document; None where none does."""
    named = Reference(kind.name, key)
    for other in KINDS.values():
        naming = [
            version.document["title"]
            for version in other.store(services).published()
            if named in other.refers_to(version.document)
            if (other.name, version.key) != (kind.name, key)
        ]
        if naming:
            listed = ", ".join(f"“{title}”" for title in naming[:3])
            return (
                f"The {kind.stored.noun} {key!r} is named by the published "
                f"{other.plural.replace('_', ' ')} {listed}. Take it out of them first."
            )
    return None


def _require_none(problems: Sequence[Problem]) -> None:
    if problems:
        raise InvalidError(problems)
