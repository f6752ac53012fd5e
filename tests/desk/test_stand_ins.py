"""Twenty addresses of ten countries in every stand-in: each part where it belongs, nothing stale."""

import time

import pytest

from anchorline.client import Client, NotFoundError
from tests.waiting import wait_until

from .addresses import ADDRESSES
from .set_up import FIELDS, set_up
from .writes import Write

STALE = dict.fromkeys(
    ["line1", "line2", "town", "postcode", "country", "firm", "address"], "stale text of old"
) | {"phone": "0123 4567", "email": "a@b.example", "note": "fragile", "notes": "a note"}
# What is nobody's business stays as it is.
UNTOUCHED = ("phone", "email", "note", "notes")


@pytest.fixture(scope="module")
def service(stack):
    with Client(stack.url, stack.access["server_key"]) as made:
        yield made
        for name in FIELDS:
            try:
                made.targets.delete(f"stand-in-{name}")
            except NotFoundError:
                continue


def expected(target, values):
    """What must stand in the stand-in's fields: the texts of those that are visited."""
    plan = target.addresses[0].plan
    visited = [one.key for one in plan.fields if one.where == "screen" and one.key in plan.visited]
    return [values.get(key, "") for key in visited]


def comparable(name, key, text):
    """A text as the stand-in has it in hand: the Qt dialog's capitals and postcode."""
    if name != "customers" or key not in ("town", "postcode"):
        return text
    return "".join(text.upper().split())


# Which of the stand-in's fields the fields of the target are, in their order.
KEYS = {
    "contacts": ["line1", "line2", "town", "postcode", "country"],
    "firms": ["firm", "line1", "line2", "postcode", "town", "country"],
    "letters": ["address", "postcode"],
    "labels": ["address"],
    "parcels": ["line1", "line2", "town", "postcode", "country"],
    "orders": ["line1", "line2", "town", "postcode", "country"],
    "customers": ["line1", "line2", "town", "postcode", "country"],
    "weborders": ["line1", "line2", "town", "postcode", "country"],
}


@pytest.mark.parametrize("name", list(FIELDS))
def test_twenty_addresses_land_where_they_belong(desktop, eyes, service, name):
    program = desktop.stand_in(name, STALE)
    try:
        target, place = set_up(service, eyes, program)
        assert eyes.look().window == place.window
        outcomes = set()
        for country, components in ADDRESSES:
            given = components | {"country_code": country}
            fill = service.targets.fill(target.key, "address", components=given)
            values = {key: str(text) for key, text in fill.values.items() if text}
            report = written(desktop, eyes, program, target, place, values)
            outcomes.add(report.outcome)
            wanted = dict(zip(KEYS[name], expected(target, values), strict=True))
            shown = arrived(name, program, wanted)
            for text in (shown[key] for key in wanted):
                assert_tidy(text)
            for key in UNTOUCHED:
                assert shown.get(key, STALE[key]) == STALE[key]
            shown |= {one.field: one.text for one in report.left_over()}
            # What a short line makes of a long address is the mapping's business.
            whole = not fill.warnings and name != "orders"
            for component, text in components.items():
                if component not in ("region", "region_code", "district") and whole:
                    assert text_is_there(text, shown), (component, text, shown)
            to_first_field(desktop, program, AWAY[name])
        # Of a terminal nobody knows which cells are whose.
        assert outcomes == ({"unverified"} if name == "orders" else {"verified"})
    finally:
        program.close()


def written(desktop, eyes, program, target, place, values):
    write = Write(eyes, target, place, values)
    report = write.start()
    while report.stop in ("box", "frozen"):
        if report.stop == "frozen":
            # The machine stood still for seconds: a person waits, and goes on.
            report = write.go_on()
            continue
        # The parcels' question whether a town may be new: it is answered, and the run goes on.
        desktop.wait_for_front("New town")
        wait_until(lambda: answered(desktop), every=1)
        report = write.go_on()
    assert report.stop == "", report
    return report


def answered(desktop):
    """Presses the question's button, as a person would again where it has not noticed."""
    if "New town" in desktop.front_title():
        desktop.person.press("Space")
        time.sleep(0.5)
    return "Parcel" in desktop.front_title()


def arrived(name, program, wanted):
    """What stands in the fields when all of it has come."""
    hoped = {key: comparable(name, key, text) for key, text in wanted.items()}
    last = time.monotonic() + 5
    while True:
        shown = program.fields
        found = {key: comparable(name, key, shown[key]) for key in wanted}
        if found == hoped or time.monotonic() > last:
            assert found == hoped
            return shown
        time.sleep(0.01)


def assert_tidy(text):
    assert "stale" not in text
    for untidy in (",,", ", ,", "\n\n", "  "):
        assert untidy not in text, text
    assert text == text.strip(" ,\n"), text


def text_is_there(text, shown):
    plain = "".join(text.casefold().split())
    return any(plain in "".join(one.casefold().split()) for one in shown.values())


# Fields from the last one that is written back to the first; a full one has passed on by itself.
AWAY = {name: len(keys) - 1 for name, keys in KEYS.items()} | {"firms": 7, "orders": 0}


def to_first_field(desktop, program, count):
    desktop.wait_for_front(desktop.screen.title(program.window)[:5])
    for _ in range(count):
        desktop.person.press("Shift+Tab")
