"""A form for the rows of a table: what its columns are taken for."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anchorline.core.forms import read_form
from anchorline.core.forms.new_items import key_from
from anchorline.core.forms.ready_made import ready_made_forms
from anchorline.core.forms.table import TableError, propose


def proposed(text, layouts, **more):
    return propose(text, "Customers", ["GB", "DE"], layouts, **more)


def parts(proposal):
    """By address, its components with the columns that they come from."""
    found = {}
    for guess in proposal.guesses:
        if guess.becomes == "part":
            found.setdefault(guess.slot, {})[guess.component] = guess.column
    return found


@pytest.mark.parametrize(
    ("head", "slots"),
    [
        (
            "Name,Street,House number,Postcode,Town",
            {"address": {"street": "Street", "number": "House number", "postcode": "Postcode", "town": "Town"}},
        ),
        (
            "Name;Straße;Hausnr.;PLZ;Ort",
            {"address": {"street": "Straße", "number": "Hausnr.", "postcode": "PLZ", "town": "Ort"}},
        ),
        ("Nom\tAdresse\tCode postal\tVille", {"address": {"street": "Adresse", "postcode": "Code postal", "town": "Ville"}}),
        ("Naam,Straat,Huisnummer,Postcode,Plaats", {"address": {"street": "Straat", "number": "Huisnummer", "postcode": "Postcode", "town": "Plaats"}}),
        ("Nome,Logradouro,Número,Bairro,Cidade,Estado,CEP", {"address": {"street": "Logradouro", "number": "Número", "district": "Bairro", "town": "Cidade", "region": "Estado", "postcode": "CEP"}}),
        ("会社名,郵便番号,都道府県,市区町村,番地", {"address": {"postcode": "郵便番号", "region": "都道府県", "town": "市区町村", "number": "番地"}}),
        ("Ainm,Sráid,Baile,Contae,Éirchód", {"address": {"street": "Sráid", "town": "Baile", "region": "Contae", "postcode": "Éirchód"}}),
        (
            "Delivery street,Delivery town,Billing street,Billing town",
            {"delivery": {"street": "Delivery street", "town": "Delivery town"}, "billing": {"street": "Billing street", "town": "Billing town"}},
        ),
        (
            "Street,Town,Street,Town",
            {"address": {"street": "Street", "town": "Town"}, "address_2": {"street": "Street", "town": "Town"}},
        ),
        ("Address line 1,Address line 2,City,ZIP code", {"address": {"street": "Address line 2", "town": "City", "postcode": "ZIP code"}}),
        ("Name,Number,Company", {}),
        ("State,Count", {}),
    ],
)  # fmt: skip
def test_columns_of_addresses_are_recognised_by_their_names(layouts, head, slots):
    assert parts(proposed(head, layouts)) == slots


@pytest.mark.parametrize(
    ("column", "type_", "because"),
    [
        ("Mail\na@b.example\nc@d.example", "email", "look like e-mail addresses (all of 2 values)"),
        ("Since\n2020-01-31", "date", "look like dates"),
        ("Since\n31.1.2020", "date", "look like dates"),
        ("Loud\nyes\nno", "yes_no", "look like yes or no"),
        ("Pianos\n3\n12.5", "number", "look like numbers"),
        ("Code\n007\n012", "text", "Nothing speaks"),
        ("Call\n+44 20 555 0123", "phone", "look like phone numbers"),
        ("Telefon", "phone", "“telefon”"),
        ("Geburtstag", "date", "“geburtstag”"),
        ("Kind\nA\nB\nA\nB", "choice", "2 values that come again"),
        ("Story\n" + "x" * 90, "long_text", "are long"),
        ("Whatever", "text", "Nothing speaks"),
    ],
)
def test_types_are_guessed_from_values_and_names(layouts, column, type_, because):
    (guess,) = proposed(column, layouts).guesses
    assert (guess.type, because in guess.because) == (type_, True)


def test_a_guess_can_be_refused(layouts):
    head = "Name,Street,Town,Fax"
    assert parts(proposed(head, layouts, plain=[2])) == {"address": {"street": "Street"}}
    fields = proposed(head, layouts, plain=[2], left_out=[3]).document["fields"]
    assert [f.get("label", f.get("slot")) for f in fields] == ["Name", "address", "Town"]


def test_a_country_is_left_to_the_address(layouts):
    guess = proposed("Street,Town,Country", layouts).guesses[2]
    assert (guess.becomes, guess.because) == (
        "left_out", "The address asks for its country by itself.",
    )  # fmt: skip


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("  \n \n", "There is no head"),
        (",,,", "The first row names no column"),
        ("x," * 250 + "x", "There are 251 columns; at most 200"),
    ],
)
def test_what_is_no_table_is_said(layouts, text, said):
    with pytest.raises(TableError, match=said):
        proposed(text, layouts)


@settings(max_examples=150, deadline=None)
@given(st.text(min_size=1, max_size=200))
def test_whatever_is_pasted_gives_a_form_that_is_none_the_worse_or_says_why(layouts, text):
    try:
        made = proposed(text, layouts)
    except TableError:
        return
    assert read_form(made.document, layouts)


@pytest.mark.parametrize("ready", ready_made_forms(), ids=lambda ready: ready.name)
def test_the_ready_made_forms_are_forms_with_addresses_and_mapping(layouts, ready):
    form = read_form(ready.document, layouts)
    assert ready.says.endswith(".")
    for slot in form.slots:
        assert {key for rule in slot.mapping for key in rule.into} == {
            part.key for part in slot.parts
        }


def test_there_are_five_ready_made_forms():
    assert [ready.name for ready in ready_made_forms()] == [
        "booking", "customer", "delivery", "supplier", "venue",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("label", "taken", "key"),
    [
        ("What is it about?", (), "what_is_it_about"),
        ("Größe", (), "grosse"),
        ("2nd", (), "field_2nd"),
        ("郵便", (), "field"),
        ("Name", ("name", "name_2"), "name_3"),
        ("x" * 60, (), "x" * 40),
    ],
)
def test_keys_are_made_from_labels(label, taken, key):
    assert key_from(label, taken) == key
