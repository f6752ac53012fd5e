"""The console's pages on reference data, and the bench for searching, as a steward uses them."""

import re
import uuid

import pytest
from playwright.sync_api import expect

from anchorline.client import Client, RulesRequest

from .conftest import axe_faults

HEADER = "id,country_code,street,town,postcode,latitude,longitude\n"
LINES = [f"{i},GB,Gritstone Row {i},Marl,QV1 1AA,52.5,-1.5\n" for i in range(60)]


@pytest.fixture
def name():
    return f"b{uuid.uuid4().hex[:8]}"


@pytest.fixture
def scratch_client(scratch_stack):
    with Client(scratch_stack.url, scratch_stack.access["server_key"]) as opened:
        yield opened


def choose(page, content, file="addresses.csv"):
    page.get_by_label("File", exact=True).set_input_files(
        {"name": file, "mimeType": "text/csv", "buffer": content.encode()}
    )


def test_a_steward_loads_looks_activates_and_goes_back(scratch_console, scratch_client, name):
    page = scratch_console
    page.get_by_role("link", name="Reference data").first.click()
    page.get_by_label("Dataset").fill(name)
    choose(page, HEADER + "".join(LINES))
    page.get_by_role("button", name="Load", exact=True).click()
    page.get_by_role("heading", name=name).wait_for()
    page.get_by_text("Edition 1 is ready: 60 addresses. It waits to be made active.").wait_for()
    page.get_by_role("button", name="Activate edition 1").click()
    page.get_by_text("edition 1 is active, 60 addresses").wait_for()

    changed = LINES[4].replace("Marl", "Peat")
    choose(page, HEADER + "".join([*LINES[:4], changed, *LINES[8:]]) + "x,QQ,Row,Marl,,,\n")
    page.get_by_role("button", name="Load", exact=True).click()
    page.get_by_role("link", name="Edition 2").click()
    page.get_by_role("heading", name=f"{name}, edition 2").wait_for()
    page.get_by_text("The country is not known").wait_for()
    page.get_by_role("button", name="Expand row").first.click()
    page.get_by_text("there is no layout for country 'QQ'").wait_for()
    page.get_by_text("3 addresses are gone: 5.0%, at most 2.0% may.").wait_for()
    page.get_by_role("tab", name="Changed").click()
    expect(page.locator("ins:visible").first).to_contain_text("Gritstone Row 4, Peat")
    with page.expect_download() as download:
        page.get_by_role("link", name="Download the 1 row left out").click()
    assert "bad-country" in download.value.path().read_text()
    assert axe_faults(page) == [], "\n".join(axe_faults(page))
    page.get_by_role("button", name="Activate").click()
    asked = page.get_by_role("dialog")
    asked.get_by_text("3 addresses are gone: 5.0%, at most 2.0% may.").wait_for()
    asked.get_by_role("button", name="Leave it as it is").click()
    assert scratch_client.datasets.get(name).active_edition == 1
    page.get_by_role("button", name="Activate").click()
    asked.get_by_role("button", name="Make it active").click()
    page.get_by_text("not active").wait_for(state="hidden")
    assert scratch_client.datasets.get(name).active_edition == 2

    page.get_by_role("link", name=name, exact=True).click()
    page.get_by_role("button", name="Restore edition 1").click()
    page.get_by_text("edition 1 is active, 60 addresses").wait_for()
    assert axe_faults(page) == [], "\n".join(axe_faults(page))

    page.get_by_role("button", name="Remove the dataset").click()
    asked = page.get_by_role("dialog")
    asked.get_by_text("2 editions with all rows are taken away, and 60 addresses").wait_for()
    expect(asked.get_by_role("button", name="Remove it")).to_be_disabled()
    asked.get_by_label("Type").fill(name)
    asked.get_by_role("button", name="Remove it").click()
    page.get_by_text(f"The dataset {name} is gone.").wait_for()
    assert name not in [dataset.name for dataset in scratch_client.datasets.list()]


def test_a_load_that_failed_is_tried_again_or_its_file_thrown_away(
    scratch_console, scratch_client, name
):
    page = scratch_console
    page.get_by_role("link", name="Reference data").first.click()
    page.get_by_label("Dataset").fill(name)
    choose(page, HEADER + "".join(LINES[:9]) + "x,QQ,Row,Marl,,,\n")
    page.get_by_role("button", name="Load", exact=True).click()
    page.get_by_text("1 of 10 rows cannot be used").wait_for()
    rules = scratch_client.datasets.get(name).rules.model_copy(update={"bad_share": 0.2})
    scratch_client.datasets.set_rules(name, RulesRequest(**rules.model_dump()))
    page.get_by_role("button", name="Load it again").click()
    page.get_by_text("Edition 1 is ready: 9 addresses.").wait_for()
    expect(page.get_by_role("button", name="Load it again")).to_have_count(0)

    choose(page, HEADER + "".join(LINES[:3]) + "x,QQ,Row,Marl,,,\n")
    page.get_by_role("button", name="Load", exact=True).click()
    page.get_by_text("1 of 4 rows cannot be used").wait_for()
    assert axe_faults(page) == [], "\n".join(axe_faults(page))
    page.get_by_role("button", name=re.compile("^Throw the file away")).click()
    page.get_by_role("button", name="Throw it away").click()
    page.get_by_role("button", name="Load it again").wait_for(state="hidden")
    assert scratch_client.datasets.get(name).jobs[0].file_bytes is None


def test_a_file_that_is_refused_is_said_and_stays_chosen(scratch_console, scratch_client, name):
    page = scratch_console
    page.get_by_role("link", name="Reference data").first.click()
    page.get_by_label("Dataset").fill(name)
    choose(page, "id;country_code;town\n1;GB;Marl\n")
    page.get_by_role("button", name="Load", exact=True).click()
    page.get_by_text("It is parted by semicolons; write commas.").wait_for()
    expect(page.get_by_label("Dataset")).to_have_value(name)
    expect(page.get_by_label("File", exact=True)).to_have_value(re.compile("addresses.csv$"))
    assert name not in {d.name for d in scratch_client.datasets.list()}


def test_rules_are_set_and_a_load_keeps_to_them(scratch_console, scratch_client, name):
    page = scratch_console
    file = HEADER + "".join(LINES)
    page.get_by_role("link", name="Reference data").first.click()
    page.get_by_label("Dataset").fill(name)
    choose(page, file)
    page.get_by_role("button", name="Load", exact=True).click()
    page.get_by_text("Edition 1 is ready").wait_for()
    page.get_by_role("switch", name="become active by themselves").click()
    gone = page.get_by_label("Addresses that may be gone, %")
    gone.fill("10")
    page.get_by_role("button", name="Save rules").click()
    page.get_by_text("Rules saved.").wait_for()
    rules = scratch_client.datasets.get(name).rules
    assert (rules.automatic, rules.gone_share) == (True, 0.1)
    choose(page, file)
    page.get_by_role("button", name="Load", exact=True).click()
    page.get_by_text("Edition 2 is ready: 60 addresses. It is active.").wait_for()


def test_a_search_is_tried_with_its_trace(console):
    page = console
    page.get_by_role("link", name="Try a search").first.click()
    page.get_by_text("Nothing typed yet.").wait_for()
    page.get_by_label("Search text").fill("kiln cresent brackwater")
    page.get_by_text("Read “cresent” as “crescent”").wait_for()
    page.get_by_role("heading", name="How it was read").wait_for()
    expect(page.get_by_text("corrected", exact=True)).to_be_visible()
    row = page.locator("tbody tr").filter(has_text="Kiln Crescent, Brackwater").first
    expect(row).to_contain_text("name covered", use_inner_text=True)
    assert axe_faults(page) == [], "\n".join(axe_faults(page))
    row.get_by_role("button", name="open Kiln Crescent").click()
    page.get_by_text("Inside the group").wait_for()
    page.get_by_label("Countries, as codes with commas").fill("XX")
    page.get_by_text("There is no country 'XX'").wait_for()


def test_the_list_of_datasets_has_no_fault_of_access(console):
    page = console
    page.get_by_role("link", name="Reference data").first.click()
    page.get_by_role("cell", name="demo", exact=True).wait_for()
    assert axe_faults(page) == [], "\n".join(axe_faults(page))


def test_a_search_is_tried_in_another_language(console):
    console.get_by_role("link", name="Try a search").first.click()
    console.get_by_label("Search text").fill("霧谷市")
    console.get_by_text("東京都霧谷市", exact=True).wait_for()
    language = console.get_by_label("Language of places with several, as a code")
    language.fill("ja-Latn")
    console.get_by_text("Kiritani-shi, Tokyo", exact=True).first.wait_for()
    language.fill("no language")
    console.get_by_text("Give a language as BCP 47 does").wait_for()
