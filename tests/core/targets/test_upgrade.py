"""Targets of the first format: read as today's, they write what they wrote, and lose no setting.

What they wrote is worked out here as it was said then: the texts of the parts, one after the other,
with what comes between those that are there.
"""

from pathlib import Path

import pytest

from anchorline.core.forms import read_unfinished
from anchorline.core.forms.receiving import receivers_of
from anchorline.core.layouts import shipped_layouts
from anchorline.core.mapping import KnownAddress, fill
from anchorline.core.targets import read_target
from anchorline.core.targets.upgrade import upgraded
from anchorline.wire.targets import TargetDocument, target_as_kept
from anchorline.yaml_documents import read_yaml
from tests.desk.addresses import ADDRESSES

LAYOUTS = shipped_layouts()
BEFORE = {
    file.stem: read_yaml(file.read_bytes())
    for file in sorted((Path(__file__).parent / "before").glob("*.yaml"))
}
PROGRAMS = [name for name, entry in BEFORE.items() if "plan" in entry]
SIGNS = {"nothing": "", "blank": " ", "comma": ", ", "line": "\n"}
STRONGEST = ["nothing", "blank", "comma", "line"]
SCREENS = [{"key": "s", "conditions": [{"kind": "program", "text": "p"}]}]
COUNTRIES = sorted({country for country, _ in ADDRESSES})


def document_of(name):
    """A target of the first format; of a ready-made plan the one that it made."""
    entry = BEFORE[name]
    if "plan" not in entry:
        return entry
    address = {
        "key": "a", "label": "A", "countries": COUNTRIES, "mapping": entry["mapping"],
        "plan": entry["plan"],
    }  # fmt: skip
    return {
        "key": "t", "kind": "program", "title": entry["title"], "screens": SCREENS,
        "parts": entry["parts"], "addresses": [address],
    }  # fmt: skip


def texts_of(fields, mapping, known):
    form = {
        "key": "f", "kind": "record", "title": "F", "fields": fields,
        "slots": [{"key": "a", "label": "A", "countries": COUNTRIES, "mapping": mapping,
                   "appearance": "parts_only", "required": False}],
    }  # fmt: skip
    read, problems = read_unfinished(form, LAYOUTS)
    assert problems == []
    return fill(read.slots[0].mapping, receivers_of(read), known).values


def as_it_was(name, known):
    """By the number of its box, what stood in each field of the screen."""
    document = document_of(name)
    parts = [{**one, "type": "text"} for one in document["parts"]]
    texts = texts_of(parts, document["addresses"][0]["mapping"], known)
    boxes, text, due = [], "", ""
    for row in document["addresses"][0]["plan"]["table"]:
        then = row.get("then") or "next"
        wanted = texts[row["part"]]
        if wanted or row.get("keep"):
            text += SIGNS.get(due, "") + wanted
            due = then
        elif due:
            due = max(due, then, key=[*STRONGEST, "next"].index)
        if then == "next":
            boxes.append(text)
            text, due = "", ""
    return [*boxes, text] if row.get("then") != "next" else boxes


@pytest.mark.parametrize("name", [name for name in PROGRAMS if "table" in BEFORE[name]["plan"]])
@pytest.mark.parametrize("at", range(len(ADDRESSES)))
def test_a_program_writes_into_each_field_what_it_wrote(name, at):
    country, components = ADDRESSES[at]
    known = KnownAddress(components, LAYOUTS.require(country), layouts=LAYOUTS)
    target, problems = read_target(upgraded(document_of(name)), LAYOUTS)
    assert problems == []
    values = fill(target.addresses[0].mapping, receivers_of(target.form), known).values
    plan = target.plans["a"]
    now = [values[one.key] for one in plan.fields if one.where == "screen"]
    then = as_it_was(name, known)
    # A part that was torn at the end of a line of the mapping had a comma in its middle.
    assert [untorn(text) for text in now] == [untorn(text) for text in then]


def untorn(text):
    return text.replace(",", "").replace(" ", "")


def test_every_setting_of_a_table_stands_somewhere():
    document = upgraded(document_of("everything"))
    address = document["addresses"][0]
    assert document["fields"] == [
        {"key": "unit", "label": "Where", "several_lines": True, "name": "Where", "empty": "own"},
        {"key": "code", "label": "Code", "further": 3, "empty": "no"},
        {"key": "more-1", "label": "More 1", "max_length": 20},
        {"key": "more-2", "label": "More 2", "max_length": 20},
        {"key": "firm", "label": "Firm", "where": "nowhere"},
        {"key": "spare", "label": "Spare", "where": "nowhere"},
    ]
    assert address["writing"] == {
        "by": "found", "pace_ms": 5, "line_key": "Ctrl+Return", "clear_keys": "Ctrl+U",
    }  # fmt: skip
    by_field = {}
    for rule in address["mapping"]:
        by_field.setdefault(rule.get("into") or "fit", []).append(rule)
    assert [one.get("changes") for one in by_field["unit"]][:2] == [
        ["upper"], [{"shorten": {"to": 30}}],
    ]  # fmt: skip
    assert by_field["unit"][0]["join"] == " / "


def test_steps_of_ones_own_write_fields_and_the_signs_between_them():
    document = upgraded(document_of("steps"))
    assert document["addresses"][0]["writing"] == {
        "check": "screen",
        "steps": [
            {"do": "clear"},
            {"do": "write", "field": "street"},
            {"do": "write", "text": ", ", "when": "street"},
            {"do": "type", "when": "town", "field": "town"},
            {"do": "press", "keys": "F10"},
        ],
    }
    assert [one.get("where") for one in document["fields"]] == [None, None, "offered"]


def test_examples_go_on_to_pass():
    document = document_of("box")
    example = {
        "name": "Mill", "components": {"number": "4", "street": "Mill Lane", "town": "Marl"},
        "values": {"line1": "4 Mill Lane, Marl", "line2": "", "postcode": ""},
    }  # fmt: skip
    document["addresses"][0]["examples"] = [example]
    values = upgraded(document)["addresses"][0]["examples"][0]["values"]
    assert values == {"line": "4 Mill Lane, Marl", "postcode": ""}


@pytest.mark.parametrize("name", [name for name in BEFORE if name not in PROGRAMS])
def test_a_page_keeps_all_that_it_had(name):
    document = BEFORE[name]
    assert upgraded(document) == {
        "fields" if key == "inputs" else key: value for key, value in document.items()
    }
    origin = {"origins": ["https://shop.example"]}
    assert read_target(upgraded(document) | origin, LAYOUTS)[1] == []


@pytest.mark.parametrize("name", list(BEFORE))
def test_today_s_targets_stay_as_they_are_and_files_of_before_are_read(name):
    today = upgraded(document_of(name))
    assert upgraded(today) == today
    read = TargetDocument.model_validate(document_of(name)).root
    assert target_as_kept(read) == target_as_kept(TargetDocument.model_validate(today).root)


def test_a_part_that_two_addresses_wrote_differently_is_two_fields():
    document = document_of("fields")
    first = document["addresses"][0]
    plan = {"table": [{"part": "town", "clear": "no", "then": "next"}, {"part": "postcode"}]}
    rules = [{"components": ["town"], "into": "town"}, {"lines": "street", "into": "postcode"}]
    second = {**first, "key": "b", "label": "B", "plan": plan, "mapping": rules}
    made = upgraded(document | {"addresses": [first, second]})
    assert [one["key"] for one in made["fields"]][-2:] == ["country", "town-2"]
    target, problems = read_target(made, LAYOUTS)
    assert problems == []
    assert [one for one in target.plans["b"].visited if one.startswith("town")] == ["town-2"]
