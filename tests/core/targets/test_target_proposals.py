"""Page targets proposed from the inputs of a page, each with its reason."""

import pytest

from anchorline.core.layouts import shipped_layouts
from anchorline.core.targets.options import Option
from anchorline.core.targets.pages import read_page_target
from anchorline.core.targets.pages.proposal import propose_page
from anchorline.core.targets.proposal.seen import SeenField

LAYOUTS = shipped_layouts()


def proposed(*seen):
    made = propose_page(seen, "shop", "Shop", ["https://shop.example"], LAYOUTS)
    assert read_page_target(made.document, LAYOUTS)[1] == []
    return made


def rules(made, address=0):
    found = {}
    for rule in made.document["addresses"][address]["mapping"]:
        found[rule["into"]] = rule.get("components") or rule["lines"]
    return found


def test_inputs_are_recognised_by_label_name_placeholder_and_token():
    made = proposed(
        SeenField(label="Straße"),
        SeenField(name="shipCity"),
        SeenField(id="x1", placeholder="ZIP code", max_length=10),
        SeenField(name="c", autocomplete="country-name"),
        SeenField(name="note", label="Delivery note"),
    )
    assert rules(made) == {
        "stra-e": "street", "ship-city": ["town"], "x1": ["postcode"], "country-name": ["country"],
    }  # fmt: skip
    assert made.reasons["stra-e"].because == "Its label says “Straße”."
    assert "left alone" in made.reasons["note"].because
    assert made.document["fields"][2]["find"] == [{"id": "x1"}]
    assert made.document["fields"][2]["max_length"] == 10
    assert made.document["addresses"][0]["finder"] == {"sits": "before", "at": "stra-e"}


def test_delivery_and_billing_are_two_addresses():
    made = proposed(
        SeenField(name="a", autocomplete="shipping address-line1"),
        SeenField(name="b", autocomplete="shipping postal-code"),
        SeenField(name="c", autocomplete="section-2 billing address-line1"),
    )
    assert [(one["key"], one["label"]) for one in made.document["addresses"]] == [
        ("shipping", "Delivery"), ("billing", "Billing"),
    ]  # fmt: skip
    assert rules(made, 1) == {"billing-address-line1": "street"}


@pytest.mark.parametrize(
    ("options", "component"),
    [
        ((("", "Choose"), ("GB", "United Kingdom"), ("DE", "Germany")), "country_code"),
        ((("1", "United Kingdom (GB)"), ("2", "Germany (DE)")), "country_code"),
        ((("1", "United Kingdom"), ("2", "Germany")), "country"),
    ],
)
def test_a_list_takes_the_code_where_its_options_have_codes(options, component):
    listed = tuple(Option(*one) for one in options)
    made = proposed(SeenField(name="street"), SeenField("list", name="country", options=listed))
    assert rules(made)["country"] == [component]


def test_a_page_without_an_address_has_none_proposed():
    made = propose_page([SeenField(name="email")], "shop", "Shop", ["https://a.example"], LAYOUTS)
    assert made.document["addresses"] == []


def test_inputs_have_keys_of_their_own_and_those_that_nothing_finds_are_left_out():
    made = proposed(
        SeenField(name="street"), SeenField(name="street"), SeenField(), SeenField(name="2nd")
    )
    assert [entry["key"] for entry in made.document["fields"]] == [
        "street", "street-2", "field-2nd",
    ]  # fmt: skip


def test_a_label_that_names_several_parts_takes_them_all():
    made = proposed(SeenField(label="Unit and building"), SeenField(label="Street & number"))
    assert rules(made) == {"unit-and-building": ["unit", "building"], "street-number": "street"}
