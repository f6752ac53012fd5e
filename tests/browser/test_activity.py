"""Activity in the console: how capture goes, what was fetched and may be, calls, observing."""

import csv
import io
import json

import pytest
from playwright.sync_api import expect

from anchorline.client import Client, FormDocument
from tests.waiting import wait_until

from .conftest import axe_faults


@pytest.fixture
def made(stack, client, request):
    name = f"Seen by {request.node.name[5:40]}"
    key = client.keys.make("server", name, scopes=["find"])
    with Client(stack.url, key.secret) as holder:
        holder.id, holder.name = key.key.id, name
        yield holder
    client.keys.end(key.key.id)


@pytest.fixture
def own_form(client):
    """A form that nothing else captures with."""
    fields = [{"key": "name", "label": "Name"}]
    document = {"key": "plotted", "kind": "web", "title": "Plotted", "fields": fields}
    client.forms.put_draft(FormDocument.model_validate(document))
    client.forms.publish("plotted")
    yield "plotted"
    client.forms.delete("plotted")


def test_how_capture_goes_is_plotted_listed_and_taken_away_as_csv(console, stack, client, own_form):
    client.activity.report_quality(
        "form", own_form, {"shown": 10, "begun": 8, "picked": 6, "keys": 40, "characters": 200}
    )
    page = console
    page.goto(f"{stack.url}/console/activity")
    row = page.locator("tbody tr", has_text="Plotted").first
    expect(row.get_by_role("cell").nth(1)).to_have_text("10")
    expect(row).to_contain_text("6 (75 %)")
    expect(page.get_by_label("How captures ended, by day")).to_be_visible()
    expect(page.locator(".recharts-bar-rectangle path").first).to_be_visible()
    assert axe_faults(page) == []
    with page.expect_download() as taken:
        page.get_by_role("link", name="CSV").click()
    lines = list(csv.DictReader(io.StringIO(taken.value.path().read_text())))
    assert {"kind", "name", "day", "shown", "picked"} <= lines[0].keys()
    assert [line for line in lines if line["name"] == own_form and int(line["shown"]) == 10]


def test_what_a_key_has_fetched_is_seen_limited_and_priced(console, stack, client, made):
    found = client.suggest("1", kinds=["address"], limit=3).suggestions
    for row in found:
        made.address(row.id)
    page = console
    page.goto(f"{stack.url}/console/activity?view=usage")
    row = page.locator("tbody tr", has_text=made.name)
    expect(row).to_contain_text("any number")
    page.get_by_label("What 1,000 addresses cost").fill("500")
    expect(row).to_contain_text("1.50")
    row.get_by_role("button", name="Limit").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Addresses in a calendar month").fill("3")
    dialog.get_by_role("button", name="Keep it").click()
    expect(row).to_contain_text("used up")
    assert axe_faults(page) == []
    usage = client.activity.usage().subjects
    assert [(one.count, one.limit) for one in usage if one.subject == made.id] == [(3, 3)]


def test_calls_are_filtered_followed_observed_and_exported(console, stack, client, made):
    made.suggest("secret lane")
    wait_until(lambda: client.activity.list(subject=made.id).calls)
    page = console
    page.goto(f"{stack.url}/console/activity?view=calls")
    page.get_by_label("Who calls").click()
    page.keyboard.type(made.name)
    page.keyboard.press("Enter")
    calls = page.locator("tbody tr", has_text="finding.suggest")
    expect(calls).to_have_count(1)
    expect(page.get_by_text("secret")).to_have_count(0)
    page.get_by_label("What to observe").click()
    page.keyboard.type(made.name)
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Observe").click()
    expect(page.get_by_text("What people type is kept whole at present")).to_be_visible()
    page.get_by_role("switch").click()

    def seen():
        made.suggest("secret lane")
        return any(one.question for one in client.activity.list(subject=made.id).calls)

    wait_until(seen, every=0.5)
    page.get_by_role("button", name="Expand row").first.click()
    expect(page.get_by_text("GET /api/v1/suggest?q=secret").first).to_be_visible()
    page.get_by_role("switch").click()
    assert axe_faults(page) == []
    with page.expect_download() as taken:
        page.get_by_role("link", name="JSON Lines").click()
    lines = taken.value.path().read_text().splitlines()
    assert {json.loads(line)["subject"] for line in lines} == {made.id}
    page.get_by_role("button", name="End it").click()
    expect(page.get_by_text("What people type is kept whole at present")).to_have_count(0)
