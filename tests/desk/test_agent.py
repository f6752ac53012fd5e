"""The agent as a person meets it: keys alone, from the key to what stands in the program."""

import itertools
import json
import time
from contextlib import contextmanager

import pytest

from anchorline.client import Client, ProgramTargetDocument

from .contacts import contacts_document
from .desktop import end, until

STALE = {"line1": "stale", "line2": "stale", "town": "stale", "postcode": "stale", "country": "x"}
PRACTICE = {
    "line1": "1 Lantern Row", "line2": "", "town": "Practice Harbour", "postcode": "B1 1BB",
    "country": "United Kingdom",
}  # fmt: skip


NUMBERS = itertools.count(1)


def contacts(**changes):
    return contacts_document(f"Ledger {next(NUMBERS)}", **changes)


@pytest.fixture
def service(stack):
    with Client(stack.url, stack.access["server_key"]) as client:
        before = {one.key for one in client.targets.list()}
        yield client
        for one in client.targets.list():
            if one.key not in before:
                client.targets.delete(one.key)


def published(service, document):
    draft, _etag = service.targets.put_draft(ProgramTargetDocument.model_validate(document))
    assert draft.problems == []
    service.targets.publish(document["key"])


class Running:
    """An agent that runs: what it has said, and what its finder suggests."""

    def __init__(self, desktop, eyes, process, log):
        self._desktop, self._eyes, self._process, self._log = desktop, eyes, process, log

    def said(self):
        return self._log.read_text()

    def suggests(self, text):
        """Waits until the finder suggests something."""
        shown = lambda: any(text in one.name for one in self._things() if one.role == _LIST_ITEM)  # noqa: E731 - in place
        until(shown, f"the suggestion {text}", more=self.state)

    def state(self):
        """What is known of it, for whoever reads of a failure."""
        shown = [one.name for one in self._things() if one.name]
        return f"exit {self._process.poll()}, shown {shown}, said {self.said()[-600:]}"

    def open(self, whose):
        """Opens the finder; again, until the agent has heard of a target that was just published."""
        for _ in range(20):
            self._desktop.person.press("Ctrl+Alt+A")
            self._desktop.wait_for_front("find an address", more=self.state)
            if f"({whose})" in self._desktop.front_title():
                return
            self._desktop.person.press("Escape")
            self._desktop.wait_for_front("Contact 1042")
            time.sleep(0.2)
        raise AssertionError(f"{whose} is not known: {self.state()}")

    def find(self, whose, text, suggestion):
        """Opens the finder, types, waits for a suggestion, and takes the first one."""
        self.open(whose)
        self.take(text, suggestion)

    def take(self, text, suggestion):
        self._desktop.person.type(text)
        self.suggests(suggestion)
        self._desktop.person.press("Return")

    def _things(self):
        return self._eyes.tree.things(self._process.pid)


# AT-SPI's number for a row of a list: what was typed does not count.
_LIST_ITEM = 32
ROW = "1 Lantern Row, Practice Harbour"


@contextmanager
def agent(desktop, eyes, stack, *options, key=None):
    """The agent runs."""
    access = {"ANCHORLINE_URL": stack.url, "ANCHORLINE_KEY": key or stack.access["server_key"]}
    log = desktop.folder / f"agent-{time.monotonic_ns()}.log"
    with log.open("w") as out:
        process = desktop.start("anchorline", "desk", "run", *options, env=access, stderr=out)
    try:
        until(lambda: "Ready" in log.read_text() or process.poll() is not None, "the agent")
        yield Running(desktop, eyes, process, log)
    finally:
        end(process)


@pytest.fixture(scope="module")
def running(desktop, eyes, stack):
    with agent(desktop, eyes, stack, "--times") as made:
        yield made


@pytest.fixture
def program(desktop):
    started = []

    def start(name, values=None, number=1042):
        started.append(desktop.stand_in(name, STALE if values is None else values, number))
        return started[-1]

    yield start
    for one in started:
        one.close()


def test_an_address_is_written_by_keys_alone_and_told_of(desktop, eyes, running, service, program):
    document = contacts()
    document["addresses"][0]["writing"]["by"] = "found"
    published(service, document)
    form = program("contacts")
    running.find(document["title"], "practice lantern row 1", ROW)
    form.wait_for(PRACTICE)
    desktop.wait_for_front("Contact")
    (run,) = until(lambda: service.programs.runs("contacts"), "the report")
    assert (run.outcome, run.version, run.practice) == ("verified", 1, True)
    (kept,) = (desktop.folder / "home/.cache/anchorline").glob("ways-*.json")
    assert json.loads(kept.read_text()) == {"contacts/home": {"version": 1, "way": run.by}}
    assert "took keys after" in running.said()
    assert "Lantern" not in run.model_dump_json()


def test_a_screen_that_is_not_known_still_finds_and_copies(desktop, eyes, running, program):
    form = program("contacts")
    running.find("This screen is not known", "QV1 1QF 5 kiln", "5 Kiln Crescent")
    desktop.wait_for_front("what was written")
    for line in ("5 Kiln Crescent", "Brackwater"):
        desktop.person.press("Return")
        copied = lambda line=line: (eyes.selections.read("CLIPBOARD") or "").title() == line  # noqa: E731
        until(copied, f"{line} copied")
    desktop.person.press("Escape")
    desktop.wait_for_front("Contact")
    assert form.fields == STALE


def test_a_finder_left_behind_comes_in_front_again(desktop, running, program):
    program("contacts", number=1041)
    running.open("This screen is not known")
    program("contacts")
    running.open("This screen is not known")
    desktop.person.press("Escape")
    desktop.wait_for_front("Contact 1042")


def test_what_is_seen_is_sent_to_the_console_by_a_key(desktop, running, service, program):
    program("contacts", number=77)
    before = {look.id for look in service.programs.looks()}
    running.open("This screen is not known")
    desktop.person.press("F4")
    desktop.wait_for_front("Contact 77")
    (look,) = until(
        lambda: [one for one in service.programs.looks() if one.id not in before], "the look"
    )
    service.programs.remove_look(look.id)
    assert "Contact 77 - Ada Byrne" in [fact.text for fact in look.facts]
    assert look.machine


def test_escape_gives_the_program_its_focus_back(desktop, eyes, running, service, program):
    document = contacts()
    published(service, document)
    form = program("contacts", {})
    running.open(document["title"])
    desktop.person.press("Escape")
    desktop.wait_for_front("Contact")
    # As long as a person takes to look back.
    time.sleep(0.3)
    desktop.person.type("abc")
    form.wait_for({"line1": "abc"})


def test_two_addresses_of_a_screen_are_offered_by_name(desktop, eyes, running, service, program):
    document = contacts()
    second = document["addresses"][0] | {"key": "work", "label": "Work"}
    second["mapping"] = [{"components": ["postcode"], "into": "postcode"}]
    published(service, document | {"addresses": [document["addresses"][0], second]})
    form = program("contacts")
    running.open(f"{document['title']}: Home")
    desktop.person.press("F2")
    desktop.wait_for_front(": Work)")
    running.take("practice lantern row 1", ROW)
    form.wait_for({"line1": PRACTICE["postcode"], "town": "stale"})
    desktop.wait_for_front("Contact")


def test_what_was_stopped_goes_on_from_there_or_is_taken_back(desktop, running, service, program):
    document = contacts()
    # Also while the ways of writing are tried.
    document["addresses"][0]["writing"] |= {"pace_ms": 150, "by": "found"}
    published(service, document)
    form = program("contacts")
    running.find(document["title"], "practice lantern row 1", ROW)
    until(lambda: form.fields["line1"].startswith("1 L"), "the first letters")
    desktop.person.press("Escape")
    desktop.wait_for_front("what was written")
    assert form.fields["town"] == "stale"
    desktop.person.press("Ctrl+Z")
    form.wait_for(STALE)
    desktop.wait_for_front("Contact")
    (run,) = until(
        lambda: [r for r in service.programs.runs("contacts") if r.stop == "escape"], "it"
    )
    assert (run.log[-1].failed, run.by) == (True, "keys")

    running.find(document["title"], "practice lantern row 1", ROW)
    until(lambda: form.fields["line1"].startswith("1 L"), "the first letters")
    desktop.person.press("Escape")
    desktop.wait_for_front("what was written")
    desktop.person.press("Ctrl+G")
    form.wait_for(PRACTICE, 30)
    until(lambda: [r for r in service.programs.runs("contacts") if r.outcome == "verified"], "it")


def test_a_slow_walk_says_each_step_and_the_key_goes_on(desktop, eyes, running, service, program):
    document = contacts()
    published(service, document)
    form = program("contacts")
    running.open(document["title"])
    desktop.person.press("F8")
    running.take("practice lantern row 1", ROW)
    began = time.monotonic()
    until(lambda: form.fields["line1"] == PRACTICE["line1"], "the first field")
    assert form.fields["postcode"] == "stale"
    while form.fields["country"] != PRACTICE["country"]:
        desktop.person.press("Ctrl+Alt+A")
        time.sleep(0.2)
        assert time.monotonic() - began < 60
    form.wait_for(PRACTICE)
    until(lambda: service.programs.runs("contacts"), "the report")


def test_what_has_no_field_is_offered_and_copied(desktop, eyes, running, service, program):
    document = contacts()
    document["fields"][-1]["where"] = "offered"
    published(service, document)
    form = program("contacts")
    running.find(document["title"], "practice lantern row 1", ROW)
    desktop.wait_for_front("what was written")
    desktop.person.press("Return")
    until(lambda: eyes.selections.read("CLIPBOARD") == PRACTICE["country"], "the country")
    assert form.fields["country"] == "x"
    desktop.person.press("Escape")
    desktop.wait_for_front("Contact")


def test_a_target_is_made_by_keys_alone_from_the_key_to_publishing(
    desktop, running, service, program
):
    form = program("contacts")
    running.open("This screen is not known")
    desktop.person.press("F3")
    desktop.wait_for_front("a new target")
    desktop.person.type("Ledger")
    desktop.person.press("Tab", "Tab", "Tab")
    desktop.person.type("gb")
    desktop.person.press("Return")
    for number, letters in enumerate(("", "", "T", "P", "C"), 1):
        key = list(STALE)[number - 1]
        until(lambda key=key, number=number: form.fields[key] == f"‹{number}›", "the light")
        desktop.wait_for_front("a new target")
        time.sleep(0.1)
        if letters:
            desktop.person.type(letters)
        desktop.person.press("Return")
    form.wait_for(STALE)
    desktop.wait_for_front("a new target")
    time.sleep(0.3)
    desktop.person.press("Return")
    until(lambda: form.fields["town"] == "Practice Harbour", "the practice address")
    desktop.wait_for_front("a new target")
    time.sleep(0.3)
    # Once more, from the first field again: Tab goes to “Try again”.
    desktop.person.press("Tab", "Return")
    runs = lambda: [one for one in service.programs.runs("ledger") if one.outcome == "verified"]  # noqa: E731
    until(lambda: len(runs()) == 2, "the second try")
    form.wait_for(PRACTICE)
    desktop.wait_for_front("a new target")
    time.sleep(0.3)
    desktop.person.press("Return")
    found = until(lambda: [t for t in service.targets.list() if t.key == "ledger"], "the target")
    until(lambda: service.targets.list() and published_version(service) == 1, "publishing")
    assert found[0].kind == "program"
    desktop.wait_for_front("Contact")
    assert [(run.version, run.practice) for run in runs()] == [(0, True)] * 2
    # What is typed now goes into the first field.
    desktop.person.type("#")
    until(lambda: "#" in form.fields["line1"], "the cursor in the first field")


def published_version(service):
    return next(one.published_version for one in service.targets.list() if one.key == "ledger")


def test_with_use_only_no_target_is_made_from_here(desktop, eyes, stack, service, program):
    program("contacts")
    made = service.keys.make("server", "Desk", scopes=["find", "desk"])
    with agent(desktop, eyes, stack, "--use-only", "--hotkey", "Ctrl+Shift+F9", key=made.secret):
        desktop.person.press("Ctrl+Shift+F9")
        desktop.wait_for_front("find an address")
        desktop.person.press("F3")
        time.sleep(0.5)
        assert "find an address" in desktop.front_title()
        desktop.person.press("Escape")
    service.keys.end(made.key.id)


def test_targets_are_kept_at_hand_while_the_service_is_away(desktop, running, service, program):
    document = contacts()
    published(service, document)
    program("contacts")
    running.open(document["title"])
    desktop.person.press("Escape")
    away = {"ANCHORLINE_URL": "http://127.0.0.1:9", "ANCHORLINE_KEY": "anl_server_x"}
    answer = desktop.run("anchorline", "desk", "check", env=away)
    assert "The service cannot be asked" in answer.stdout
    cached = list((desktop.folder / "home/.cache/anchorline").glob("targets-*.json"))
    kept = [one["document"]["title"] for one in json.loads(cached[0].read_text())]
    assert kept == [document["title"]]


@pytest.mark.parametrize(
    ("environment", "said"),
    [
        ({"DISPLAY": ""}, "There is no display: run anchorline desk in a graphical session"),
        ({"DISPLAY": "", "WAYLAND_DISPLAY": "wayland-0"}, "This is a Wayland session"),
        ({"DISPLAY": ":99"}, "The display :99 cannot be opened"),
        ({"DBUS_SESSION_BUS_ADDRESS": "unix:path=/nowhere"}, "install at-spi2-core"),
        ({"ANCHORLINE_URL": ""}, "Not connected to a service yet. Run: anchorline connect"),
        ({"ANCHORLINE_URL": "http://127.0.0.1:9"}, "The service cannot be asked"),
        ({"ANCHORLINE_KEY": "anl_server_wrong"}, "key"),
        ({"ANCHORLINE_DESK_HOTKEY": "Ctrl+Alt+Nope"}, "There is no key 'Nope'"),
        ({"ANCHORLINE_DESK_HOTKEY": "a"}, "hold a key with it, such as Ctrl+Alt+A"),
    ],
)  # fmt: skip
def test_what_is_missing_is_said_in_a_sentence(desktop, stack, environment, said):
    given = {"ANCHORLINE_URL": stack.url, "ANCHORLINE_KEY": stack.access["server_key"]}
    answer = desktop.run(
        "anchorline",
        "desk",
        "check",
        env=given | {"ANCHORLINE_DESK_HOTKEY": "Ctrl+Shift+F8"} | environment,
    )
    assert answer.returncode == 1
    assert said in answer.stdout
    assert "Traceback" not in answer.stdout + answer.stderr


def test_a_key_that_another_program_has_is_said(desktop, running, stack):
    access = {"ANCHORLINE_URL": stack.url, "ANCHORLINE_KEY": stack.access["server_key"]}
    second = desktop.run("anchorline", "desk", "run", env=access)
    assert second.returncode == 1
    wanted = "Another program has the key Ctrl+Alt+A: choose another one with --hotkey"
    assert wanted in second.stderr


def test_a_look_is_shown_sent_and_recognised(desktop, stack, service, program):
    document = contacts()
    published(service, document)
    program("contacts", number=7)
    access = {"ANCHORLINE_URL": stack.url, "ANCHORLINE_KEY": stack.access["server_key"]}
    answer = desktop.run("anchorline", "desk", "look", "--send", "--recognise", env=access)
    assert answer.returncode == 0, answer.stderr
    assert "title         Contact 7 - Ada Byrne" in answer.stdout
    assert "→ contacts" in answer.stdout
    (look,) = [one for one in service.programs.looks() if one.facts[1].text.startswith("Contact 7")]
    service.programs.remove_look(look.id)
