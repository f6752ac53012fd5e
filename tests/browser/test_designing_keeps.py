"""Nothing that is typed into the designer is lost, whatever happens while somebody types."""

import re

import pytest
from playwright.sync_api import expect

from anchorline.client import FormDocument

from .conftest import axe_faults, watched
from .designer import Designer

FIELDS = [{"key": "name", "label": "Name"}, {"key": "note", "type": "long_text", "label": "Note"}]


@pytest.fixture
def key(request, client):
    """A form of its own for each test."""
    name = re.sub(r"\W+", "-", request.node.name.removeprefix("test_"))[:50].strip("-")
    document = {"key": name, "kind": "web", "title": "Kept", "fields": FIELDS}
    client.forms.put_draft(FormDocument.model_validate(document))
    yield name
    client.forms.delete(name)


def opened(page, stack, key):
    page.goto(f"{stack.url}/console/forms/{key}")
    form = Designer(page)
    form.outline.wait_for()
    return form


def labels(client, key):
    return [field.label for field in client.forms.draft(key)[0].document.fields]


def test_a_tab_that_is_closed_at_once(console, stack, client, key):
    form = opened(console, stack, key).select("Name")
    form.settings.get_by_label("Label", exact=True).fill("Typed last")
    console.close(run_before_unload=False)
    again = watched(console.context)
    form = opened(again, stack, key)
    expect(form.outline.locator(".outline-text").first).to_have_text("Typed last")
    form.kept()
    assert labels(client, key) == ["Typed last", "Note"]


def test_a_line_that_is_lost_and_comes_back(console, stack, client, key):
    form = opened(console, stack, key).select("Name")
    console.context.set_offline(True)
    form.set("Label", "While it was away")
    expect(console.get_by_text("The service does not answer. What you did is kept")).to_be_visible()
    assert axe_faults(console) == []
    console.get_by_role("button", name="Publish …").click()
    dialog = console.get_by_role("dialog", name="Publish")
    expect(dialog.get_by_text("What is on this page is not kept yet")).to_be_visible()
    dialog.get_by_role("button", name="Not yet").click()
    form.select("Note").set("Help below it", "Still typing")
    assert labels(client, key) == ["Name", "Note"]
    console.context.set_offline(False)
    form.kept()
    note = client.forms.draft(key)[0].document.fields[1]
    assert (labels(client, key)[0], note.help) == ("While it was away", "Still typing")


def test_a_session_that_expires_is_renewed_on_the_page(console, stack, client, key):
    form = opened(console, stack, key).select("Name")
    console.context.clear_cookies()
    form.set("Label", "After the session")
    dialog = console.get_by_role("dialog", name="Sign in again")
    dialog.wait_for()
    assert axe_faults(console) == []
    dialog.get_by_label("E-mail").fill(stack.access["admin_email"])
    dialog.get_by_label("Password").fill(stack.access["admin_password"])
    dialog.get_by_role("button", name="Sign in").click()
    expect(dialog).to_be_hidden()
    expect(form.settings.get_by_label("Label", exact=True)).to_have_value("After the session")
    form.kept()
    assert labels(client, key) == ["After the session", "Note"]


def test_two_editors_see_each_other_and_their_changes_come_together(
    console, colleague, stack, client, key
):
    mine, theirs = opened(console, stack, key), opened(colleague, stack, key)
    expect(colleague.get_by_text("Also here: you, on another page")).to_be_visible()
    theirs.select("Note").set("Help below it", "From a colleague")
    theirs.add("Date", "When").kept()
    mine.select("Name").set("Label", "From me").kept()
    expect(console.get_by_text("Somebody else's changes have come in.")).to_be_visible()
    mine.is_in_order("From me", "Note", "When")
    document = client.forms.draft(key)[0].document
    assert labels(client, key) == ["From me", "Note", "When"]
    assert document.fields[1].help == "From a colleague"


def test_what_both_have_changed_is_shown_side_by_side(console, colleague, stack, client, key):
    mine, theirs = opened(console, stack, key), opened(colleague, stack, key)
    theirs.select("Name").set("Label", "Theirs").kept()
    theirs.select("Note").set("Label", "Remark of theirs").kept()
    console.route("**/editors", lambda route: route.abort())
    mine.select("Name").set("Label", "Mine")
    dialog = console.get_by_role("dialog", name="Somebody else has changed the same")
    dialog.wait_for()
    expect(dialog.get_by_label("Mine: Mine")).to_be_checked()
    assert axe_faults(console) == []
    dialog.get_by_label("Theirs: Theirs").check()
    dialog.get_by_role("button", name="Go on with these").click()
    mine.kept()
    mine.is_in_order("Theirs", "Remark of theirs")
    assert labels(client, key) == ["Theirs", "Remark of theirs"]


def test_what_is_wrong_is_kept_all_the_same_and_stands_against_publishing(
    console, stack, client, key
):
    form = opened(console, stack, key).add("Choice of one", "Which?")
    for _ in range(2):
        form.settings.get_by_role("button", name="Remove option 1").click()
    expect(form.settings.get_by_text("A choice needs at least one option.")).to_be_visible()
    form.kept()
    console.get_by_role("button", name="Publish …").click()
    dialog = console.get_by_role("dialog", name="Publish")
    expect(dialog.get_by_text("This stands against publishing:")).to_be_visible()
    expect(dialog.get_by_role("button", name="Publish", exact=True)).to_be_disabled()
    assert axe_faults(console) == []
    dialog.get_by_role("button", name="Which?").click()
    expect(form.settings.get_by_role("heading", name="Which?")).to_be_visible()


def test_a_page_opened_before_a_publish_can_still_be_sent(page, stack, client):
    document = {"key": "opened-before", "kind": "web", "title": "Before", "fields": FIELDS}
    client.forms.put_draft(FormDocument.model_validate(document))
    client.forms.publish("opened-before")
    page.goto(f"{stack.url}/f/opened-before")
    page.get_by_label("Note").fill("Typed before")
    draft, etag = client.forms.draft("opened-before")
    fields = [{"key": "name", "label": "Name", "required": True}]
    update = draft.document.model_copy(
        update={"fields": FormDocument.model_validate(document | {"fields": fields}).fields}
    )
    client.forms.put_draft(update, etag=etag)
    assert client.forms.publish("opened-before").published_version == 2
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert (record.form_version, record.values) == (1, {"note": "Typed before"})
