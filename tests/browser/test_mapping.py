"""The mapping workbench: rules with live results, what is wrong and what could stand instead."""

import re

import pytest
from playwright.sync_api import expect

from .conftest import axe_faults
from .designer import Designer

PARTS = ["number", "street", "town", "postcode"]
EACH = [{"components": [name], "into": f"at_{name}"} for name in PARTS]


def document(key="bench", mapping=EACH, fields=(), **slot):
    at = {
        "key": "at", "label": "At", "countries": ["GB", "DE"], "mapping": mapping,
        "parts": [{"key": f"at_{name}", "component": name} for name in PARTS], **slot,
    }  # fmt: skip
    return {"key": key, "kind": "record", "title": "Bench", "fields": list(fields), "slots": [at]}


@pytest.fixture
def workbench(console, stack):
    """Opens the workbench of a new form; forgets the form at the end."""
    with stack.http("server_key") as server:
        made = []

        def opened(form):
            key = form["key"]
            made.append(key)
            answer = server.put(f"/api/v1/forms/{key}/draft?unfinished=true", json=form)
            assert answer.status_code == 200, answer.text
            console.goto(f"{stack.url}/console/forms/{key}?mapping=at")
            console.get_by_role("heading", name="Where each part of").wait_for()
            console.get_by_role("button", name="Next country").wait_for()
            return console

        yield opened
        for key in made:
            server.delete(f"/api/v1/forms/{key}")


def row(page, number):
    return page.locator(".rule-row").nth(number - 1)


def result(page, number):
    return row(page, number).locator(".result-text")


def test_a_misspelt_part_is_said_and_mended_by_what_is_offered(workbench, client):
    page = workbench(document(fields=[{"key": "free", "label": "Free"}]))
    page.get_by_role("button", name="Add a rule").click()
    part = page.get_by_label("Add a part to rule 5;")
    part.fill("strete")
    part.press("Enter")
    page.get_by_label("Field of rule 5").click()
    page.keyboard.type("free")
    page.keyboard.press("Enter")
    expect(row(page, 5).get_by_text("There is no component 'strete'.")).to_be_visible()
    page.get_by_role("button", name="Use street").click()
    expect(row(page, 5).get_by_text("There is no component")).to_have_count(0)
    expect(result(page, 5)).to_have_text(result(page, 2).inner_text())
    Designer(page).kept()
    assert client.forms.draft("bench")[0].document.slots[0].mapping[4].components == ["street"]


def test_two_rules_into_one_field_are_explained_and_told_apart(workbench, client):
    twice = [*EACH, {"components": ["postcode"], "into": "at_town"}]
    page = workbench(document(mapping=twice))
    expect(row(page, 5).get_by_text("Rule 3 writes “Town”, too.")).to_be_visible()
    expect(
        row(page, 5).get_by_text("left alone: an earlier rule has written this field")
    ).to_be_visible()
    page.get_by_role("button", name="put it behind what is there").click()
    expect(row(page, 5).get_by_text("writes “Town”, too")).to_have_count(0)
    town, postcode = result(page, 3).inner_text(), result(page, 4).inner_text()
    expect(result(page, 5)).to_have_text(f"{town} {postcode}")
    page.get_by_role("button", name="Undo").click()
    expect(row(page, 5).get_by_text("Rule 3 writes “Town”, too.")).to_be_visible()


def test_results_follow_the_sample_which_one_key_changes(workbench):
    page = workbench(document())
    expect(result(page, 2)).not_to_have_text("")
    usual = result(page, 2).inner_text()
    page.locator("h2").first.click()
    page.keyboard.press("l")
    expect(page.get_by_role("button", name="Longest")).to_have_attribute("aria-pressed", "true")
    expect(result(page, 2)).not_to_have_text(usual)
    page.keyboard.press("c")
    expect(page.locator(".sample-bar .ant-select")).to_have_text("DE")
    label = page.locator(".sample-label").inner_text()
    expect(result(page, 2)).not_to_have_text("")
    wait = result(page, 2).inner_text
    page.wait_for_function("() => document.querySelectorAll('.result-text').length >= 3")
    assert wait().split(" ")[0] in label


def test_changes_are_added_set_and_taken_out(workbench, client):
    page = workbench(document())
    street = row(page, 2)
    street.get_by_label("Add a change to rule 2").click()
    page.keyboard.type("capitals")
    page.keyboard.press("Enter")
    shown = result(page, 2)
    expect(shown).to_have_text(shown.inner_text().upper())
    street.get_by_label("Add a change to rule 2").click()
    page.keyboard.type("first char")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    expect(shown).to_have_text(shown.inner_text()[:3])
    street.locator(".chip-name", has_text="first characters only").click()
    page.get_by_role("spinbutton", name="Characters").fill("5")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    Designer(page).kept()
    kept = client.forms.draft("bench")[0].document.slots[0].mapping[1]
    assert kept.changes == ["upper", {"first": {"count": 5}}]
    street.get_by_role("button", name="Take “in capitals” out of rule 2").click()
    street.get_by_role("button", name="Take “first characters only” out of rule 2").click()
    Designer(page).kept()
    assert client.forms.draft("bench")[0].document.slots[0].mapping[1].changes == []


def test_rules_are_proposed_for_a_pasted_header_row_with_their_reasons(console, stack, client):
    page = console
    page.goto(f"{stack.url}/console/forms/new")
    page.get_by_text("The head of a table").click()
    page.get_by_label("Title of the form").fill("Bench head")
    page.get_by_label("The row with the names of the columns").fill(
        "Name\tCity\tZip\tAddress line 1\tAddress line 2\nAda\tMarl\tQV1 4AB\t1 Mill Row\t\n"
    )
    page.get_by_role("button", name="Look at the columns").click()
    for column in ("City", "Zip", "Address line 1", "Address line 2"):
        line = page.get_by_role("row", name=column)
        line.get_by_text("A field of its own").click()
        page.wait_for_load_state("networkidle")
    page.get_by_role("button", name="Begin with this form").click()
    form = Designer(page)
    form.outline.wait_for()
    form.add("Address", "Where")
    form.settings.get_by_role("button", name="Where each part goes").click()
    row(page, 1).wait_for()
    while page.locator(".rule-row").count():
        row(page, 1).get_by_role("button", name="Remove rule 1").click()
    page.get_by_role("button", name="Propose rules").click()
    dialog = page.get_by_role("dialog", name="Propose rules")
    expect(dialog.get_by_text("Its label says “City”.")).to_be_visible()
    expect(dialog.get_by_text("are numbered lines")).to_be_visible()
    dialog.get_by_role("checkbox", name="Town → City").uncheck()
    dialog.get_by_role("button", name="Take").click()
    form.kept()
    key = page.url.split("/forms/")[1].split("?")[0]
    rules = client.forms.draft(key)[0].document.slots[0].mapping
    assert any(rule.fit and len(rule.fit.into) == 2 for rule in rules)
    assert not any(rule.components == ["town"] and rule.into == "city" for rule in rules)
    client.forms.delete(key)


def test_an_example_that_fails_stands_against_publishing(workbench, client):
    page = workbench(document())
    page.get_by_role("tab", name="Try it").click()
    page.get_by_role("img", name="What went where").wait_for()
    page.get_by_label("Name of the example").fill("The usual one")
    page.get_by_role("button", name="Keep as an example").click()
    page.get_by_role("tab", name="Examples (1)").click()
    expect(page.locator(".example-state")).to_have_text("holds")
    page.get_by_role("tab", name="Rules").click()
    row(page, 2).get_by_label("Add a change to rule 2").click()
    page.keyboard.type("capitals")
    page.keyboard.press("Enter")
    page.get_by_role("tab", name="Examples (1 fails)").click()
    expect(page.get_by_text("The example “The usual one” fails: in 'at_street'")).to_be_visible()
    assert axe_faults(page) == []
    Designer(page).kept()
    page.get_by_role("button", name="Publish").click()
    dialog = page.get_by_role("dialog", name="Publish")
    expect(dialog.get_by_text("The example “The usual one” fails")).to_be_visible()
    expect(dialog.get_by_role("button", name="Publish")).to_be_disabled()
    dialog.get_by_role("button", name="Not yet").click()
    page.get_by_role("button", name="Take what stands there now").click()
    expect(page.locator(".example-state")).to_have_text("holds")
    Designer(page).kept()
    assert client.forms.publish("bench").published_version == 1


def test_a_mapping_is_run_over_the_reference_data_and_shown_at_a_glance(workbench):
    short = [
        *EACH[:3],
        {"components": ["postcode"], "into": "at_postcode", "changes": [{"first": 1}]},
    ]
    page = workbench(
        document(mapping=[*short[:2], short[2] | {"changes": [{"shorten": 3}]}, short[3]])
    )
    page.get_by_role("tab", name="Coverage").click()
    page.get_by_label("Addresses of each country").fill("60")
    page.get_by_role("button", name="Run over them").click()
    cell = page.get_by_role("button", name="Town, DE: ")
    expect(cell).to_be_visible(timeout=30_000)
    cell.click()
    expect(page.get_by_role("heading", name="The worst of Town, DE")).to_be_visible()
    assert axe_faults(page) == []
    page.locator(".worst").get_by_role("button", name="Try it").first.click()
    expect(page.get_by_role("tab", name="Try it")).to_have_attribute("aria-selected", "true")
    expect(page.get_by_text("Town: shortened to")).to_be_visible()


def test_a_file_of_ones_own_is_run_over_and_its_rows_are_named(workbench):
    page = workbench(
        document(mapping=[EACH[1] | {"changes": [{"shorten": 3}]}, *EACH[2:], EACH[0]])
    )
    page.get_by_role("tab", name="Coverage").click()
    page.get_by_label("What it is run over").click()
    page.get_by_title("A file of mine").click()
    rows = "Street,City,Country code\nMill Lane,Marl,GB\nHoofdstraat,Veld,BE\n"
    page.get_by_label("A CSV file whose first row").set_input_files(
        {"name": "mine.csv", "mimeType": "text/csv", "buffer": rows.encode()}
    )
    page.get_by_role("button", name="Run over them").click()
    expect(
        page.get_by_text("1 row of countries that this address is not there for")
    ).to_be_visible()
    expect(page.locator(".worst li")).to_contain_text("row 1")
    expect(page.locator(".worst").get_by_role("button", name="Try it")).to_have_count(0)


def test_any_other_address_is_tried_and_kept_as_an_example(workbench, client):
    page = workbench(document())
    page.get_by_role("tab", name="Try it").click()
    page.get_by_label("Any other address").click()
    page.keyboard.type("16 abbey mews")
    option = page.locator(".ant-select-item-option:visible").first
    expect(option).to_contain_text("Abbey Mews")
    option.click()
    expect(page.get_by_text("Filled from: 16 Abbey Mews")).to_be_visible()
    page.get_by_label("Name of the example").fill("Mews")
    page.get_by_role("button", name="Keep as an example").click()
    page.get_by_role("tab", name="Examples (1)").click()
    expect(page.locator(".example-state")).to_have_text("holds")
    Designer(page).kept()
    (kept,) = client.forms.draft("bench")[0].document.slots[0].examples
    assert (kept.name, kept.values["at_street"]) == ("Mews", "Abbey Mews")


def test_rules_of_a_form_with_nothing_in_common_are_not_copied_and_that_is_said(workbench, client):
    boxes = document("boxes", mapping=[{"components": ["po_box"], "into": "box"}])
    boxes["title"] = "Boxes"
    boxes["slots"][0]["parts"] = [{"key": "box", "component": "po_box"}]
    workbench(boxes)
    page = workbench(document())
    page.get_by_role("button", name="Propose rules").click()
    page.get_by_label("Copy the rules of another form").click()
    page.keyboard.type("Boxes")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Nothing of “Boxes” goes into a part")).to_be_visible()
    assert len(client.forms.draft("bench")[0].document.slots[0].mapping) == 4


def test_two_equal_texts_of_a_table_keep_their_rows_and_that_is_said(workbench):
    page = workbench(document())
    row(page, 3).get_by_label("Add a change to rule 3").click()
    page.keyboard.type("replaced by a table")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    row(page, 3).locator(".chip-name", has_text="replaced by a table").click()
    page.get_by_role("button", name="Add a text").click()
    page.get_by_label("Text 2", exact=True).fill("United Kingdom")
    expect(page.get_by_text("“United Kingdom” stands there twice")).to_be_visible()
    page.get_by_label("Text 2", exact=True).fill("United States")
    expect(page.get_by_text("stands there twice")).to_have_count(0)
    expect(page.get_by_label("Text 1", exact=True)).to_have_value("United Kingdom")


def test_a_rule_takes_lines_a_record_or_what_is_left_and_groups(workbench, client):
    lines = [{"key": f"line_{n}", "label": f"Line {n}", "max_length": 35} for n in (1, 2)]
    town = {"key": "town", "type": "link", "label": "Town record", "form": "town", "shows": "name"}
    page = workbench(document(fields=[*lines, town], mapping=EACH[2:]))
    page.get_by_role("button", name="Add a rule").click()
    page.get_by_label("What rule 3 takes").click()
    page.get_by_title("Fit to lines").click()
    page.get_by_label("Fields of rule 3, line by line").click()
    page.keyboard.type("Line 1")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Add a rule").click()
    page.get_by_label("What rule 4 takes").click()
    page.get_by_title("Record").last.click()
    page.get_by_label("Form of the records of rule 4").click()
    page.keyboard.type("Town")
    page.locator(".ant-select-item-option:visible", has_text=re.compile("^Town$")).last.click()
    expect(row(page, 4).get_by_role("button", name="Add a field")).to_be_enabled()
    row(page, 4).get_by_role("button", name="Add a field").click()
    page.get_by_label("Field of rule 4").click()
    page.locator(".ant-select-item-option:visible", has_text="Town record").click()
    page.get_by_text("Make one where there is none").click()
    expect(row(page, 4).locator(".rule-result")).to_contain_text("is made with this record")
    page.get_by_role("button", name="Add a rule").click()
    part = page.get_by_label("Add a part to rule 5;")
    part.fill("number street")
    part.press("Enter")
    expect(row(page, 5).locator(".chip.group")).to_have_text("Number Street")
    Designer(page).kept()
    rules = client.forms.draft("bench")[0].document.slots[0].mapping
    assert "line_1" in rules[2].fit.into
    assert (rules[3].link.form, rules[3].link.creates, rules[3].into) == ("town", True, "town")
    assert rules[4].components[0].components == ["number", "street"]


@pytest.mark.parametrize("width", [1280, 390])
def test_nothing_is_beside_the_screen_and_axe_finds_nothing(workbench, width):
    page = workbench(document(examples=[
        {"name": "Mill", "components": {"town": "Marl"}, "values": {"at_town": "Marl"}}
    ]))  # fmt: skip
    page.set_viewport_size({"width": width, "height": 844})
    for tab in ("Try it", "Coverage", "Rules"):
        page.get_by_role("tab", name=tab).click()
        page.wait_for_load_state("networkidle")
        assert page.evaluate("document.documentElement.scrollWidth") <= width, tab
        assert axe_faults(page) == [], tab
    first = row(page, 1)
    boxes = [cell.bounding_box() for cell in first.locator(".rule-cell").all()]
    assert all(box["x"] + box["width"] <= width for box in boxes)
    assert (boxes[3]["y"] == boxes[0]["y"]) == (width == 1280), "a row, or a card"


def test_a_changed_mapping_that_could_not_be_kept_comes_along_when_the_page_is_left(workbench):
    page = workbench(document())
    page.route("**/api/v1/forms/bench/draft*", lambda route: route.abort())
    row(page, 4).get_by_role("button", name="Remove rule 4").click()
    expect(page.locator(".kept-state")).to_contain_text("is kept in this browser")
    page.unroute("**/api/v1/forms/bench/draft*")
    page.reload()
    page.get_by_role("heading", name="Where each part of").wait_for()
    expect(page.locator(".rule-row")).to_have_count(3), "what was changed came along"
