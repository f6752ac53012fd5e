"""A program target in the console: from a look and a ready-made plan to what its runs say."""

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
    "parts": [{"part": "line1", "label": "Address line 1", "state": "partly"}],
    "log": [{"at_ms": 3, "says": "Write Address line 1", "failed": True}],
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

    console.get_by_role("tab", name="Parts").click()
    console.get_by_label("Most characters of Town").fill("20")
    console.get_by_label("Country in capitals").check()
    console.get_by_role("button", name="Take out Region").click()
    no_faults(console, "parts")

    console.get_by_role("tab", name="Plan").click()
    expect(console.get_by_label("Part of row 5")).to_be_visible()
    expect(console.get_by_label("Part of row 6")).to_have_count(0)
    console.get_by_role("button", name="Move row 5").focus()
    console.keyboard.press("Alt+ArrowUp")
    console.get_by_role("button", name="Keys, and what is read back").click()
    console.get_by_label("Between two keys, in ms").fill("5")
    no_faults(console, "plan")

    console.get_by_role("tab", name="Settings").click()
    console.get_by_label("In capitals", exact=True).check()
    no_faults(console, "settings")

    console.get_by_role("tab", name="Try it").click()
    console.get_by_role("button", name="Work out “Address”").click()
    expect(console.get_by_role("cell", name="PRACTICE HARBOUR")).to_be_visible()
    expect(console.get_by_text("Write Address line 1")).to_be_visible()
    no_faults(console, "trial")

    published(console)
    document = client.targets.draft("contacts-of-the-ledger")[0].document
    plan = document.addresses[0].plan
    assert [row.part for row in plan.table] == ["line1", "line2", "town", "country", "postcode"]
    assert (plan.pace_ms, document.wording.capitals) == (5, True)
    assert [part.max_length for part in document.parts if part.key == "town"] == [20]
    mapping = document.addresses[0].mapping
    assert [rule.changes for rule in mapping if rule.into == "country"] == [["upper"]]

    client.programs.report_run(document.key, TargetRunReport.model_validate(RUN))
    console.get_by_role("tab", name="Runs").click()
    expect(console.get_by_text("“Chat” has the focus now.")).to_be_visible()
    console.get_by_role("button", name="Expand row").click()
    expect(console.get_by_text("Write Address line 1: it stopped here")).to_be_visible()
    no_faults(console, "runs")


def test_steps_are_written_by_hand_and_a_draft_is_copied_and_taken_back(console, stack, client):
    proposal = client.programs.propose(
        "ledger", "Ledger", [[*FACTS]], fields=[{"label": "Street"}, {"label": "Town"}]
    )
    client.targets.put_draft(proposal.document)
    client.targets.publish("ledger")
    console.goto(f"{stack.url}/console/targets/ledger")
    console.get_by_role("tab", name="Plan").click()
    console.get_by_role("button", name="Write the steps by hand").click()
    steps = console.get_by_role("textbox", name="Steps")
    expect(steps).to_contain_text("do: write, part: street")
    steps.fill("- { do: write, part: street }\n- { do: press, keys: F5 }")
    kept(console)
    steps = client.targets.draft("ledger")[0].document.addresses[0].plan.steps
    assert [one.do for one in steps] == ["write", "press"]
    more(console, "Back to what is published")
    console.get_by_role("button", name="Take it back").click()
    expect(console.get_by_label("Part of row 2")).to_be_visible()
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
