"""Own layouts and targets are edited as forms are: kept as one works, together with others."""

from dataclasses import dataclass

import pytest
from playwright.sync_api import expect

from anchorline.client import OwnLayoutDocument

from .conftest import axe_faults, watched
from .drafts import kept, more, published

FACTS = [{"kind": "program", "text": "ledger"}]
INPUTS = [
    {"name": "town", "label": "Town"},
    {"name": "postcode", "label": "Postcode"},
]


@dataclass
class Edited:
    """A document of one kind: where it is edited, and two of its texts."""

    path: str
    tab: str
    texts: tuple[str, str]
    draft: object
    read: object

    def open(self, page, url):
        page.goto(f"{url}/console/{self.path}")
        if self.tab:
            page.get_by_role("tab", name=self.tab).click()
        self.first(page).wait_for()
        return page

    def first(self, page):
        return page.get_by_label(self.texts[0], exact=True)

    def second(self, page):
        return page.get_by_label(self.texts[1], exact=True)

    def values(self):
        return self.read(self.draft()[0].document)


def own_layout(client):
    document = OwnLayoutDocument(key="together", title="Together", countries=["FR"])
    client.own_layouts.put_draft(document)

    def labels(document):
        found = {one.component: (one.label or {}).get("en") for one in document.ask}
        return found.get("postcode"), found.get("town")

    texts = ("Label of postcode", "Label of town")
    return Edited(
        "layouts/own/together", "", texts, lambda: client.own_layouts.draft("together"), labels
    )


def page_target(client):
    origin = ["https://shop.example"]
    proposal = client.targets.propose("together", "Together", INPUTS, origins=origin)
    client.targets.put_draft(proposal.document)
    texts = ("What the page is called here", "What the finder says")
    return Edited(
        "targets/together", "Where and how", texts, lambda: client.targets.draft("together"),
        lambda document: (document.title, (document.addresses[0].finder or proposal).label),
    )  # fmt: skip


def program_target(client):
    fields = [{"label": "Street"}, {"label": "Town"}]
    proposal = client.programs.propose("together", "Together", [[*FACTS]], fields=fields)
    client.targets.put_draft(proposal.document)
    return Edited(
        "targets/together", "Settings", ("What the screen is called here", "Name for people"),
        lambda: client.targets.draft("together"),
        lambda document: (document.title, document.addresses[0].label),
    )  # fmt: skip


@pytest.fixture(params=[own_layout, page_target, program_target], ids=lambda made: made.__name__)
def edited(request, client):
    yield request.param(client)
    for store in (client.own_layouts, client.targets):
        for one in store.list():
            store.delete(one.key)


def test_what_is_typed_is_kept_undone_and_there_after_a_closed_tab(console, stack, edited):
    page = edited.open(console, stack.url)
    before = edited.values()
    edited.first(page).fill("Typed")
    kept(page)
    assert edited.values() == ("Typed", before[1])
    assert axe_faults(page) == []
    page.get_by_role("button", name="Undo").click()
    kept(page)
    assert edited.values() == before
    edited.first(page).fill("Typed last")
    page.close(run_before_unload=False)
    again = edited.open(watched(page.context), stack.url)
    expect(edited.first(again)).to_have_value("Typed last")
    kept(again)
    assert edited.values() == ("Typed last", before[1])


def test_two_people_see_each_other_and_their_changes_come_together(
    console, colleague, stack, edited
):
    edited.open(console, stack.url)
    edited.open(colleague, stack.url)
    expect(colleague.get_by_text("Also here: you, on another page")).to_be_visible()
    edited.second(colleague).fill("Theirs")
    kept(colleague)
    edited.first(console).fill("Mine")
    kept(console)
    expect(console.get_by_text("Somebody else's changes have come in.")).to_be_visible()
    expect(edited.second(console)).to_have_value("Theirs")
    assert edited.values() == ("Mine", "Theirs")


def test_what_both_have_changed_is_asked(console, colleague, stack, edited):
    edited.open(console, stack.url)
    edited.open(colleague, stack.url)
    console.route("**/editors", lambda route: route.abort())
    edited.first(colleague).fill("Theirs")
    kept(colleague)
    edited.first(console).fill("Mine")
    dialog = console.get_by_role("dialog", name="Somebody else has changed the same")
    dialog.wait_for()
    assert axe_faults(console) == []
    dialog.get_by_label("Theirs").check()
    dialog.get_by_role("button", name="Go on with these").click()
    kept(console)
    expect(edited.first(console)).to_have_value("Theirs")
    assert edited.values()[0] == "Theirs"
    console.faults.clear()


def test_it_is_published_with_what_changes_and_taken_back(console, stack, edited):
    page = edited.open(console, stack.url)
    edited.first(page).fill("First")
    kept(page)
    published(page)
    edited.first(page).fill("Second")
    said = published(page)
    assert len(said) == 1
    assert "Second" in said[0]
    edited.first(page).fill("Third")
    kept(page)
    more(page, "Back to what is published")
    page.get_by_role("button", name="Take it back").click()
    expect(edited.first(page)).to_have_value("Second")
    expect(page.get_by_text("Somebody else's changes")).to_have_count(0)
    assert edited.values()[0] == "Second"
