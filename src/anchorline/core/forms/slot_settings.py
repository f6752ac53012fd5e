"""What an administrator can say of a slot beside its fields: how it looks, what is offered in it,
what it does.

Each setting stands in `SETTINGS` with its title and the words of its values; sentences of changes
and the console's lists are made from these.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from ..faults import Faults

Document = Mapping[str, Any]
APPEARANCES = ("box_and_parts", "one_box", "parts_only")
SHOWN_AS = ("parts", "lines")
MAP_PLACES = ("below", "beside")
# Types of fields whose text a map can follow.
FOLLOWED = ("text", "long_text", "hidden")


@dataclass(frozen=True, slots=True)
class Near:
    """What suggestions are preferred near to: a point, another slot's address, or the person.

    Attributes:
        latitude, longitude: degrees (WGS 84), both or neither.
        slot: the key of another slot.
        person: whether it is the place that the person let the page know.
    """

    latitude: float | None = None
    longitude: float | None = None
    slot: str | None = None
    person: bool = False


@dataclass(frozen=True, slots=True)
class SlotMap:
    """A map of a slot.

    Attributes:
        place: one of MAP_PLACES.
        follows: the key of a field whose text is searched, or of another slot; None: it follows
            the address of its own slot.
    """

    place: str = "below"
    follows: str | None = None


@dataclass(frozen=True, slots=True)
class SlotSettings:
    """How a slot looks, what is offered in it, what it does.

    Attributes:
        appearance: one of APPEARANCES.
        shown_as: how a filled address is shown, one of SHOWN_AS.
        shows_empty: whether optional parts that a fill left empty stay in sight; else they fold
            behind one line.
        keeps_order: whether parts stand as the form has them, not as the country's layout.
        locked: whether parts cannot be changed after a pick until that is asked for.
        same_as: the key of the slot that it can be filled from and follows then.
        location: whether there is a button for the place where the person is.
        keeps_position: whether that place is kept with the record.
        near: what is preferred near to; None for nothing.
        language: of what is found, BCP 47; empty for what was typed.
        datasets: names of those that are searched; empty for all.
        practice_word: what is typed behind it is looked for among practice addresses; empty for
            none.
        map: None for no map.
    """

    appearance: str = "box_and_parts"
    shown_as: str = "parts"
    shows_empty: bool = False
    keeps_order: bool = False
    locked: bool = False
    same_as: str | None = None
    location: bool = False
    keeps_position: bool = False
    near: Near | None = None
    language: str = ""
    datasets: tuple[str, ...] = ()
    practice_word: str = ""
    map: SlotMap | None = None


@dataclass(frozen=True, slots=True)
class Setting:
    """One setting, for people.

    Attributes:
        title: what it is called, as the subject of a sentence.
        says: a value in words, with a way to name an item by its key.
    """

    title: str
    says: Callable[[Any, Callable[[str], str]], str]


def _switch(_value: Any, _named: Callable[[str], str]) -> str:
    return "yes" if _value else "no"


def _near(value: Any, named: Callable[[str], str]) -> str:
    if not value:
        return "nothing"
    if value.get("slot"):
        return f"the address {named(value['slot'])}"
    if value.get("person"):
        return "the place where the person is"
    return f"the point {value.get('latitude')}, {value.get('longitude')}"


def _map(value: Any, named: Callable[[str], str]) -> str:
    if not value:
        return "no map"
    follows = value.get("follows")
    tail = f", following {named(follows)}" if follows else ""
    return f"{value.get('place') or 'below'} the address{tail}"


_WORD = re.compile(r"[^\W\d_]{3,30}")
_APPEARANCE_WORDS = {
    "box_and_parts": "a box, and the parts below it",
    "one_box": "one box, with the parts behind it",
    "parts_only": "the parts alone",
}
SETTINGS: dict[str, Setting] = {
    "appearance": Setting(
        "What one meets first", lambda v, _: _APPEARANCE_WORDS.get(v or APPEARANCES[0], str(v))
    ),
    "shown_as": Setting(
        "What is seen of a filled address",
        lambda v, _: "its lines" if v == "lines" else "its parts",
    ),
    "shows_empty": Setting("Whether optional parts stay in sight when they are empty", _switch),
    "keeps_order": Setting(
        "The order of the parts", lambda v, _: "that of the form" if v else "that of the country"
    ),
    "locked": Setting("Whether parts are locked after a pick", _switch),
    "same_as": Setting(
        "The address that it can be the same as", lambda v, named: named(v) if v else "none"
    ),
    "location": Setting("Whether the person's location can be used", _switch),
    "keeps_position": Setting("Whether that location is kept", _switch),
    "near": Setting("What is preferred near to", _near),
    "language": Setting("The language of what is found", lambda v, _: v or "as typed"),
    "datasets": Setting("The datasets that are searched", lambda v, _: ", ".join(v or ()) or "all"),
    "practice_word": Setting(
        "The word before which practice addresses are found", lambda v, _: f"“{v}”" if v else "none"
    ),
    "map": Setting("The map", _map),
}


def read_settings(entry: Document, pointer: str, faults: Faults) -> SlotSettings:
    """The settings of a slot's entry; what is wrong with it goes to `faults`."""
    appearance = entry.get("appearance") or APPEARANCES[0]
    faults.one_of("appearance of an address", appearance, APPEARANCES, f"{pointer}/appearance")
    shown_as = entry.get("shown_as") or ("lines" if appearance == "one_box" else SHOWN_AS[0])
    faults.one_of("way to show a filled address", shown_as, SHOWN_AS, f"{pointer}/shown_as")
    if appearance == "parts_only" and entry.get("location"):
        detail = "Leave it out, or show a box: without one nothing is found to choose from."
        faults.say(f"{pointer}/location", detail)
    if entry.get("keeps_position") and not entry.get("location"):
        faults.say(f"{pointer}/keeps_position", "Leave it out: the location is not asked for.")
    word = (entry.get("practice_word") or "").strip()
    if word and not _WORD.fullmatch(word):
        detail = "Write one word of three letters or more, which no address begins with."
        faults.say(f"{pointer}/practice_word", detail)
    return SlotSettings(
        appearance=appearance,
        shown_as=shown_as,
        shows_empty=bool(entry.get("shows_empty")),
        keeps_order=bool(entry.get("keeps_order")),
        locked=bool(entry.get("locked")),
        same_as=entry.get("same_as") or None,
        location=bool(entry.get("location")),
        keeps_position=bool(entry.get("keeps_position")),
        near=_read_near(entry.get("near"), f"{pointer}/near", faults),
        language=entry.get("language") or "",
        datasets=tuple(entry.get("datasets") or ()),
        practice_word=word,
        map=_read_map(entry.get("map"), f"{pointer}/map", faults),
    )


def _read_near(entry: Document | None, pointer: str, faults: Faults) -> Near | None:
    if not entry:
        return None
    near = Near(
        entry.get("latitude"), entry.get("longitude"), entry.get("slot"), bool(entry.get("person"))
    )
    is_point = near.latitude is not None and near.longitude is not None
    is_half = (near.latitude is None) != (near.longitude is None)
    if is_half or sum((is_point, near.slot is not None, near.person)) != 1:
        detail = "Say one of these: a latitude and a longitude, a slot, or person: true."
        faults.say(pointer, detail)
        return None
    return near


def _read_map(entry: Document | None, pointer: str, faults: Faults) -> SlotMap | None:
    if entry is None:
        return None
    place = entry.get("place") or MAP_PLACES[0]
    faults.one_of("place of a map", place, MAP_PLACES, f"{pointer}/place")
    return SlotMap(place, entry.get("follows") or None)


def check_references(
    slots: Iterator[tuple[str, str, SlotSettings]],
    texts: Mapping[str, str],
    faults: Faults,
) -> None:
    """Holds what slots say of each other, and of fields, against what is on the form.

    Args:
        slots: pointer, key and settings of each slot, in the order on the form.
        texts: type of each field by its key.
        faults: where problems go.
    """
    listed = list(slots)
    keys = [key for _, key, _ in listed]
    before: list[str] = []
    for pointer, key, settings in listed:
        same, near = settings.same_as, settings.near
        if same is not None and same not in before:
            _not_before(same, key, keys, f"{pointer}/same_as", faults)
        if near is not None and near.slot is not None:
            if near.slot == key:
                faults.say(f"{pointer}/near/slot", "Name another address: this is the same one.")
            else:
                faults.one_of("slot", near.slot, keys, f"{pointer}/near/slot")
        follows = settings.map.follows if settings.map else None
        if follows is not None and follows not in keys and texts.get(follows) not in FOLLOWED:
            place = f"{pointer}/map/follows"
            if follows in texts:
                detail = f"A map cannot follow {follows!r}: only an address, or a field for text."
                faults.say(place, detail)
            else:
                fields = [one for one, kind in texts.items() if kind in FOLLOWED]
                faults.unknown("field", follows, [*fields, *keys], place)
        before.append(key)


def _not_before(same: str, key: str, keys: list[str], pointer: str, faults: Faults) -> None:
    if same == key:
        faults.say(pointer, "Name another address: an address is always the same as itself.")
    elif same in keys:
        detail = f"The address {same!r} stands after this one: move it up, or name one before."
        faults.say(pointer, detail)
    else:
        faults.unknown("slot", same, keys, pointer)
