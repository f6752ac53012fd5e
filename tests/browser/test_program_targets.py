"""A program target in the console: from a look and a ready-made target to what its runs say."""

import re

import pytest
from playwright.sync_api import expect

from anchorline.client import Client
from anchorline.wire.target_runs import TargetRunReport

from .conftest import axe_faults
from .drafts import kept, more, published

FACTS = [
    {"kind": "program", "text": "ledger"},
    {"kind": "window_class", "text": "Ledger"},
]
RUN = {
    "address": "address", "version": 1, "outcome": "stopped", "stop": "left", "ms": 480,
    "detail": "“Chat” has the focus now.", "machine": "desk-7",
    "fields": [{"field": "line-1", "label": "Line 1", "state": "partly"}],
    "log": [{"at_ms": 3, "says": "Write Line 1", "failed": True}],
}  # fmt: skip


@pytest.fixture
def client(stack):
    with Client(stack.url, stack.access["server_key"]) as client:
        looks = [
            client.programs.send_look([*FACTS, {"kind": "title", "text": title}], "desk-7").id
            for title in ("Contact 7 - Ada", "Contact 9 - Bo", "Search contacts")
        ]
        yield client
        for look in looks:
            client.programs.remove_look(look)
        for one in client.targets.list():
            client.targets.delete(one.key)


def field(picture, label):
    """A field of the picture, as its number and its label name it."""
    return picture.get_by_role("button", name=re.compile(rf"^(\d+ ?)?{label}\b"))


def no_faults(console, where):
    expect(console.locator(".ant-spin-spinning")).to_have_count(0)
    assert axe_faults(console) == [], where


def test_a_program_is_made_from_looks_changed_tried_and_published(console, stack, client):
    console.goto(f"{stack.url}/console/targets")
    console.get_by_role("link", name="New program target").click()
    console.get_by_label("What the screen is called here").fill("Contacts of the ledger")
    for title, choice in (
        ("Contact 7 - Ada", "this screen"), ("Contact 9 - Bo", "this screen"),
        ("Search contacts", "must not match"),
    ):  # fmt: skip
        group = console.get_by_role("radiogroup", name=f"What {title} is")
        group.get_by_label(choice).check()
    no_faults(console, "new")
    console.get_by_role("button", name="Keep it as a draft").click()
    text = console.get_by_label("Text of condition 2 of screen 1")
    expect(text).to_have_value("Contact ")
    console.get_by_text("Contact 9 - Bo").click()
    expect(console.locator("del", has_text="9 - Bo")).to_be_visible()
    console.get_by_role("button", name="Whose screen is it?").click()
    expect(console.get_by_text("It is “Contacts of the ledger”.")).to_be_visible()
    no_faults(console, "signature")

    console.get_by_role("tab", name="Fields").click()
    picture = console.locator(".picture")
    expect(field(picture, "Line 1")).to_contain_text(re.compile("[A-Z ]{5,}"))
    field(picture, "Line 3").click()
    console.get_by_role("button", name="Take it out").click()
    field(picture, "Line 2").click()
    console.get_by_label("Characters that it takes").fill("20")
    console.get_by_label("What the program calls it").fill("Second line")
    console.get_by_role("button", name="Move Country").focus()
    console.keyboard.press("Alt+ArrowUp")
    no_faults(console, "fields")
    console.get_by_role("button", name="Where each part of “Address” goes").click()
    expect(console.get_by_role("heading", name="Where each part of “Address” goes")).to_be_visible()
    expect(console.get_by_text("No rule takes", exact=False)).to_have_count(0)
    no_faults(console, "workbench")
    console.get_by_role("button", name="Back to the fields").click()

    console.get_by_role("tab", name="Writing").click()
    console.get_by_role("button", name="Keys, and what is read back").click()
    console.get_by_label("Between two keys, in ms").fill("5")
    no_faults(console, "writing")

    console.get_by_role("tab", name="Settings").click()
    console.get_by_label("In capitals", exact=True).check()
    no_faults(console, "settings")

    console.get_by_role("tab", name="Try it").click()
    console.get_by_role("button", name="Work out “Address”").click()
    expect(console.get_by_role("cell", name="LANTERN ROW").first).to_be_visible()
    expect(console.get_by_text("Write Line 1")).to_be_visible()
    no_faults(console, "trial")

    published(console)
    document = client.targets.draft("contacts-of-the-ledger")[0].document
    [address] = document.addresses
    assert [one.key for one in document.fields] == ["line-1", "line-2", "country", "postcode"]
    assert (address.writing.pace_ms, document.wording.capitals) == (5, True)
    assert (document.fields[1].max_length, document.fields[1].name) == (20, "Second line")
    assert [rule.fit.into for rule in address.mapping if rule.fit] == [["line-1", "line-2"]]

    client.programs.report_run(document.key, TargetRunReport.model_validate(RUN))
    console.get_by_role("tab", name="Runs").click()
    expect(console.get_by_text("“Chat” has the focus now.")).to_be_visible()
    console.get_by_role("button", name="Expand row").click()
    expect(console.get_by_text("Write Line 1: it stopped here")).to_be_visible()
    no_faults(console, "runs")


def test_steps_are_written_by_hand_and_a_draft_is_copied_and_taken_back(console, stack, client):
    proposal = client.programs.propose(
        "ledger", "Ledger", [[*FACTS]], fields=[{"label": "Street"}, {"label": "Town"}]
    )
    client.targets.put_draft(proposal.document)
    client.targets.publish("ledger")
    console.goto(f"{stack.url}/console/targets/ledger")
    console.get_by_role("tab", name="Writing").click()
    console.get_by_role("button", name="Write the steps by hand").click()
    steps = console.get_by_role("textbox", name="Steps")
    expect(steps).to_contain_text("do: write, field: street")
    steps.fill("- { do: write, field: street }\n- { do: press, keys: F5 }")
    kept(console)
    steps = client.targets.draft("ledger")[0].document.addresses[0].writing.steps
    assert [one.do for one in steps] == ["write", "press"]
    more(console, "Back to what is published")
    console.get_by_role("button", name="Take it back").click()
    expect(console.get_by_role("button", name="Write the steps by hand")).to_be_visible()
    more(console, "Copy")
    expect(console.get_by_role("heading", name="Ledger (copy)")).to_be_visible()
    assert {one.key for one in client.targets.list()} == {"ledger", "ledger-copy"}


def test_all_programs_are_worded_at_once(console, stack, client):
    for key in ("ledger", "parcels"):
        proposal = client.programs.propose(key, key.title(), [[*FACTS]], fields=[{"label": "Town"}])
        client.targets.put_draft(proposal.document)
    console.goto(f"{stack.url}/console/targets")
    console.get_by_role("button", name="Wording of programs").click()
    dialog = console.get_by_role("dialog", name="How programs are written into")
    expect(dialog.get_by_role("button", name="Set in the drafts")).to_be_disabled()
    dialog.get_by_label("The country as").press("ArrowDown")
    console.get_by_title("two letters (GB)").click()
    dialog.get_by_label("Publish them as well").check()
    no_faults(console, "wording")
    dialog.get_by_role("button", name="Set and publish").click()
    console.get_by_text("2 programs are published with this wording.").wait_for()
    for key in ("ledger", "parcels"):
        draft = client.targets.draft(key)[0].document
        assert (draft.wording.country_as, draft.wording.capitals) == ("alpha_2", False)
    assert [one.published_version for one in client.targets.list()] == [1, 1]
