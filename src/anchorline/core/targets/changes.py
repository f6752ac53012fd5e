"""What changes between two documents of a target, in sentences for whoever publishes.

Fields, addresses and their rules change as a form's fields and slots do; the rest is what only
targets have: where they hold, how fields are found and reached, screens, how they are written.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from ..document_changes import Change, Document, settings_changed
from ..forms.changes import changes_between
from .receivers import as_form, document_pointer

_SETTINGS = {
    "origins": "The sites of its pages",
    "paths": "The paths of its pages",
    "style": "The style of the finder",
    "wording": "How everything is written in this program",
}
_OF_FIELD = {
    "type": "is another kind of field",
    "several_lines": "takes another number of lines",
    "find": "is found otherwise",
    "writes": "is chosen from its list otherwise",
    "pieces": "is split otherwise",
    "name": "is expected under another name",
    "further": "is reached otherwise",
    "empty": "is emptied otherwise",
    "where": "stands elsewhere",
}
_OF_WRITING = {
    "steps": "its own steps",
    "by": "the way of writing",
    "check": "what is read back",
}
_OTHER_OF_WRITING = "keys, pace or window"


def target_changes(old: Document, new: Document) -> list[Change]:
    """What changes from one document of a target to another."""
    return [
        *settings_changed(old, new, _SETTINGS),
        *_screens(old, new),
        *_as_of_a_form(old, new),
        *_fields(old, new),
        *_addresses(old, new),
    ]


def _as_of_a_form(old: Document, new: Document) -> Iterator[Change]:
    for one in changes_between(as_form(old), as_form(new)):
        yield replace(one, pointer=document_pointer(one.pointer), keeps=None)


def _screens(old: Document, new: Document) -> Iterator[Change]:
    before, now = _by_key(old.get("screens")), _by_key(new.get("screens"))
    for key, (at, screen) in before.items():
        if key not in now:
            yield Change("removed", f"/screens/{at}", f"The screen {_name(screen)} is removed")
    for key, (at, screen) in now.items():
        pointer = f"/screens/{at}"
        if key not in before:
            yield Change("added", pointer, f"The screen {_name(screen)} is new.")
            continue
        _at, earlier = before[key]
        if _name(earlier) != _name(screen):
            detail = f"The screen {_name(earlier)} is now called {_name(screen)}."
            yield Change("changed", f"{pointer}/label", detail)
        for setting in ("conditions", "needs"):
            if earlier.get(setting) != screen.get(setting):
                detail = f"The screen {_name(screen)} is recognised otherwise."
                yield Change("changed", f"{pointer}/{setting}", detail)
                break


def _fields(old: Document, new: Document) -> Iterator[Change]:
    for _key, earlier, at, entry in _in_both(old.get("fields"), new.get("fields")):
        for setting, detail in _OF_FIELD.items():
            if earlier.get(setting) != entry.get(setting):
                yield Change("changed", f"/fields/{at}/{setting}", f"{_name(entry)} {detail}.")


def _addresses(old: Document, new: Document) -> Iterator[Change]:
    for _key, earlier, at, entry in _in_both(old.get("addresses"), new.get("addresses")):
        pointer = f"/addresses/{at}"
        if earlier.get("finder") != entry.get("finder"):
            detail = f"The finder of the address {_name(entry)} sits elsewhere, or says otherwise."
            yield Change("changed", f"{pointer}/finder", detail)
        was, is_now = earlier.get("writing") or {}, entry.get("writing") or {}
        differing = [name for name in {**was, **is_now} if was.get(name) != is_now.get(name)]
        said = dict.fromkeys(_OF_WRITING.get(name, _OTHER_OF_WRITING) for name in differing)
        if said:
            detail = f"The address {_name(entry)} is written otherwise: {', '.join(said)}."
            yield Change("changed", f"{pointer}/writing", detail)


def _in_both(
    old: Sequence[Document] | None, new: Sequence[Document] | None
) -> Iterator[tuple[str, Document, int, Document]]:
    before = _by_key(old)
    for key, (at, entry) in _by_key(new).items():
        if key in before:
            yield key, before[key][1], at, entry


def _by_key(entries: Sequence[Document] | None) -> dict[str, tuple[int, Document]]:
    return {entry["key"]: (at, entry) for at, entry in enumerate(entries or ())}


def _name(entry: Document) -> str:
    return f"“{entry.get('label') or entry['key']}”"
