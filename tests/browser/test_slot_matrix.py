"""Every feature of a slot, on every form, in every style, on a screen and on a phone, made and edited."""

import re

import pytest
from playwright.sync_api import expect

from anchorline.client import Client, SlotInputSchema
from anchorline.core.forms import FORM_KINDS, FORM_STYLES
from anchorline.core.forms.slot_settings import SETTINGS

from .conftest import publish, watched
from .slot_features import FEATURES, HERE, SLOTS, document, fill

WAYS = ("web", "record made", "record edited")
SIZES = {"desktop": {"width": 1280, "height": 800}, "phone": {"width": 390, "height": 844}}


def test_the_matrix_has_every_feature_that_there_is():
    assert set(FEATURES) == set(SETTINGS)
    assert {way.split()[0] for way in WAYS} == set(FORM_KINDS)
    assert {feature.slot for feature in FEATURES.values()} == set(SLOTS)


@pytest.fixture(scope="module")
def forms(stack):
    """A form of each kind in each style; of records one that can be edited."""
    made = {}
    with Client(stack.url, stack.access["server_key"]) as client:
        for style in FORM_STYLES:
            for kind in FORM_KINDS:
                publish(stack, document(kind, style))
            slots = {
                key: SlotInputSchema(country_code="GB", address_id="demo:GB0000011")
                for key in SLOTS
            }
            values = client.fill(
                f"matrix-record-{style}", SLOTS[0], address_id="demo:GB0000011"
            ).values
            everywhere = {
                key.replace(SLOTS[0], slot, 1): text
                for slot in SLOTS for key, text in values.items() if text
            }  # fmt: skip
            made[style] = client.submit(
                f"matrix-record-{style}", {"name": "x", **everywhere}, slots
            ).id
    return made


@pytest.fixture(scope="module")
def opened(browser, stack):
    """A browser for each way and size: what it has loaded once it has for each style."""
    contexts = {}

    def context_of(way, size):
        if (way, size) not in contexts:
            context = contexts[way, size] = browser.new_context(
                viewport=SIZES[size], has_touch=size == "phone", is_mobile=size == "phone",
                locale="en-GB", reduced_motion="reduce", geolocation={**HERE, "accuracy": 10},
                permissions=["geolocation"],
            )  # fmt: skip
            if way != "web":
                cookies = stack.session().items()
                context.add_cookies([{"name": n, "value": v, "url": stack.url} for n, v in cookies])
        return contexts[way, size]

    yield context_of
    for context in contexts.values():
        context.close()


def go_to(page, group):
    """Goes on, step by step, until an address is there."""
    for _ in range(2 * len(SLOTS) + 2):
        if group.is_visible():
            return
        page.get_by_role("button", name="Next").click()
    expect(group).to_be_visible()


# The style changes fastest: what was loaded for the first is there for the others.
@pytest.mark.parametrize("style", FORM_STYLES)
@pytest.mark.parametrize("size", SIZES)
@pytest.mark.parametrize("way", WAYS)
def test_every_feature_works(opened, stack, client, forms, way, style, size):
    kind = way.split()[0]
    page = watched(opened(way, size))
    place = {
        "web": f"/f/matrix-web-{style}",
        "record made": f"/console/records/new/matrix-record-{style}",
        "record edited": f"/console/records/{forms[style]}/edit",
    }[way]
    page.goto(stack.url + place)
    page.get_by_role("heading", name=f"Matrix {kind} {style}").wait_for()
    for slot in SLOTS:
        group = page.get_by_role("group", name=slot, exact=True)
        go_to(page, group)
        fill(group, slot)
        for name, feature in FEATURES.items():
            if feature.slot == slot:
                feature.works(page, group)
                assert (
                    page.evaluate("document.documentElement.scrollWidth") <= SIZES[size]["width"]
                ), name
    page.get_by_role("button", name="Save" if way == "record edited" else "Send").click()
    if way == "web":
        page.get_by_role("heading", name="Thank you").wait_for()
        record = client.record(page.locator("code").inner_text())
    else:
        page.wait_for_url(re.compile(r"/records/r[0-9a-f]{24}$"))
        record = client.record(page.url.split("/")[-1])
    assert {key: slot.lines[0] for key, slot in record.slots.items()} == {
        "by_location": "16 Abbey Mews", "by_hand": "12a Kiln Crescent", "same": "12a Kiln Crescent",
        "by_lines": "14 Abbey Mews",
    }  # fmt: skip
    assert record.slots["by_location"].position.source == "device"
    assert record.slots["by_hand"].changed == ["by_hand_number"]
    assert record.revision == (
        2 if way == "record edited" and size == "desktop" else record.revision
    )
    assert page.faults == []
    page.close()
