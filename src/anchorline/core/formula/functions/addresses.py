"""Addresses of slots: their lines, parts, places and how they were given."""

from __future__ import annotations

from ...sphere import metres_between
from ..address_values import AddressValue
from ..values import Problem, Value
from .registry import COMPONENT, EMPTY, NUMBER, SLOT, TEXT, YES_NO, always, function, needed

_SLOT = needed("address", SLOT)


def _text_or_none(text: str) -> Value:
    return text or None


@function(
    "ADDRESS",
    [_SLOT],
    always(TEXT, EMPTY),
    "An address as one line.",
    ("ADDRESS(venue)", "16 Abbey Mews, Brackwater, QV1 1AA"),
)
def _address(slot: AddressValue) -> Value:
    return _text_or_none(slot.line)


@function(
    "ADDRESSLINES",
    [_SLOT],
    always(TEXT, EMPTY),
    "An address in the lines of its country, one below another.",
    ("ADDRESSLINES(venue)", "16 Abbey Mews\nBRACKWATER\nQV1 1AA"),
)
def _lines(slot: AddressValue) -> Value:
    return _text_or_none("\n".join(slot.lines))


@function(
    "COMPONENT",
    [_SLOT, needed("component", COMPONENT)],
    always(TEXT, EMPTY),
    "One component of an address: its town, say.",
    ('COMPONENT(venue; "town")', "Brackwater"),
)
def _component(slot: AddressValue, name: str) -> Value:
    return _text_or_none(slot.components.get(name, ""))


@function(
    "LATITUDE",
    [_SLOT],
    always(NUMBER, EMPTY),
    "The latitude of an address that was picked, in degrees.",
    ("LATITUDE(venue)", "51.5"),
)
def _latitude(slot: AddressValue) -> Value:
    return slot.latitude


@function(
    "LONGITUDE",
    [_SLOT],
    always(NUMBER, EMPTY),
    "The longitude of an address that was picked, in degrees.",
    ("LONGITUDE(venue)", "-2.75"),
)
def _longitude(slot: AddressValue) -> Value:
    return slot.longitude


@function(
    "ADDRESSUSE",
    [_SLOT],
    always(TEXT, EMPTY),
    "What an address that was picked is used as: residential, business, mixed, public.",
    ("ADDRESSUSE(venue)", "residential"),
)
def _use(slot: AddressValue) -> Value:
    return _text_or_none(slot.facts.get("use", ""))


@function(
    "ADDRESSLANGUAGES",
    [_SLOT],
    always(TEXT, EMPTY),
    "The languages that an address that was picked is written in.",
    ("ADDRESSLANGUAGES(venue)", "en"),
)
def _languages(slot: AddressValue) -> Value:
    return _text_or_none(slot.facts.get("languages", ""))


@function(
    "ADDRESSID",
    [_SLOT],
    always(TEXT, EMPTY),
    "The id of an address that was picked.",
    ("ADDRESSID(venue)", "demo:GB0000012"),
)
def _id(slot: AddressValue) -> Value:
    return _text_or_none(slot.facts.get("id", ""))


@function(
    "ISFILLED",
    [_SLOT],
    YES_NO,
    "Whether there is an address, picked or typed.",
    ("ISFILLED(venue)", "yes"),
)
def _is_filled(slot: AddressValue) -> Value:
    return bool(slot.given)


@function(
    "ISPICKED",
    [_SLOT],
    YES_NO,
    "Whether an address was picked from the reference data.",
    ("ISPICKED(venue)", "yes"),
)
def _is_picked(slot: AddressValue) -> Value:
    return slot.given == "picked"


@function(
    "ISTYPED",
    [_SLOT],
    YES_NO,
    "Whether an address was typed by hand.",
    ("ISTYPED(venue)", "no"),
)
def _is_typed(slot: AddressValue) -> Value:
    return slot.given == "typed"


@function(
    "KILOMETRES",
    [_SLOT, needed("other", SLOT)],
    always(NUMBER, EMPTY),
    "Kilometres between two addresses, as the crow flies; nothing while a place is not known.",
    ("KILOMETRES(venue; home)", "11.645"),
)
def _kilometres(one: AddressValue, other: AddressValue) -> Value:
    return _between(one.latitude, one.longitude, other.latitude, other.longitude)


@function(
    "KILOMETRESFROM",
    [_SLOT, needed("latitude", NUMBER), needed("longitude", NUMBER)],
    always(NUMBER, EMPTY),
    "Kilometres from an address to a point, as the crow flies; nothing while it has no place.",
    ("KILOMETRESFROM(venue; 51.5; -2.75)", "0"),
)
def _kilometres_from(one: AddressValue, latitude: float, longitude: float) -> Value:
    if abs(latitude) > 90 or abs(longitude) > 180:
        return Problem("out-of-range")
    return _between(one.latitude, one.longitude, latitude, longitude)


def _between(
    latitude: float | None, longitude: float | None, other: float | None, far: float | None
) -> Value:
    if latitude is None or longitude is None or other is None or far is None:
        return None
    return metres_between(latitude, longitude, other, far) / 1000
