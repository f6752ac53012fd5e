"""The console's page of country layouts."""

import re

import pytest
from playwright.sync_api import expect

from .conftest import axe_faults


def opened(console, country):
    console.get_by_role("link", name="Country layouts").click()
    console.get_by_label("Name or code of a country").fill(country)
    console.get_by_role("link", name=country, exact=True).click()
    console.get_by_role("heading", level=1, name=re.compile(country)).wait_for()
    return console


def lines(page, title):
    return page.locator(".ant-card", has=page.get_by_text(title, exact=True)).locator("address")


def test_the_list_is_searched_by_name_and_by_code(console):
    console.get_by_role("link", name="Country layouts").click()
    console.get_by_text("249 of 249").wait_for()
    search = console.get_by_label("Name or code of a country")
    search.fill("guinea")
    console.get_by_text("4 of 249").wait_for()
    search.fill("re")
    expect(console.get_by_role("row", name="Réunion")).to_contain_text("France")
    search.fill("Atlantis")
    console.get_by_text("No country is called Atlantis.").wait_for()


def test_a_layout_is_tried_out_as_it_is_typed(console):
    page = opened(console, "Switzerland")
    expect(lines(page, "Written within the country")).to_contain_text("Abbey Lane 12, 3")
    page.get_by_label("Postcode").fill("CH-8001")
    page.get_by_text("Written as 8001").wait_for()
    page.get_by_label("Postcode").fill("80011")
    page.get_by_text("'80011' is not a Postcode of Switzerland").wait_for()
    page.get_by_label("Town").fill("")
    page.get_by_text("Switzerland needs a Town here.").wait_for()
    page.get_by_label("Town").fill("Brackwater")
    expect(lines(page, "Written within the country")).to_contain_text("Brackwater")
    expect(lines(page, "On mail from abroad")).to_contain_text("SWITZERLAND")
    page.get_by_label("Posted in").click()
    page.keyboard.type("France")
    page.keyboard.press("Enter")
    expect(lines(page, "On mail from abroad")).to_contain_text("SUISSE")
    page.get_by_label("Language of the labels").click()
    page.get_by_title("Labels in French").click()
    page.get_by_label("NPA").wait_for()
    expect(page.get_by_label("NPA")).to_have_value("80011")


def test_a_territory_says_whose_post_it_uses(console):
    page = opened(console, "Puerto Rico")
    page.get_by_text("It uses the post of").wait_for()
    expect(lines(page, "Written within the country")).to_contain_text("Brackwater, PR 00600")
    page.get_by_role("link", name="US", exact=True).click()
    page.get_by_role("heading", level=1, name="United States (US)").wait_for()
    expect(page.get_by_label("State")).to_be_visible()


@pytest.mark.parametrize("country", ["Egypt", "Japan"])
def test_axe_finds_nothing_on_a_layout(console, country):
    page = opened(console, country)
    expect(lines(page, "Written within the country")).to_contain_text(
        re.compile("brackwater", re.I)
    )
    assert axe_faults(page) == []


def test_a_country_that_there_is_not(console, stack):
    console.goto(f"{stack.url}/console/layouts/QQ")
    console.get_by_text("There is no country code 'QQ'").wait_for()
