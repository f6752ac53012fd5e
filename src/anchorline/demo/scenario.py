"""Brackwater Piano Care: its forms, and a few records, set up through the client."""

from __future__ import annotations

import os
import random
import subprocess
import sys
from collections.abc import Iterator
from importlib import resources
from typing import Any

import phonenumbers

from anchorline.client import Client, FormDocument, SlotInputSchema
from anchorline.yaml_documents import read_yaml

from .world import COUNTRIES

FORMS: tuple[str, ...] = ("town", "tuning-visit", "venue", "instrument", "supplier")
_PEOPLE = (
    "Ada Brindle", "Tomás Ó Fearrán", "Léonie Dorvault", "Jürgen Größwein", "Sanne Hoogewaard",
    "Marcus Goforth", "Élise Ferland-Côté", "João Peçanha", "柚木田 葵", "Ruby Cartmell",
    "Owen Kellaway", "Nuala Brannock",
)  # fmt: skip
_MAKES = ("Harrowgate upright", "Lindqvist & Sohn grand", "Mirabeau 120", "Kestrel studio")
_STREET_STARTS = {
    "GB": "kiln", "IE": "abbey", "FR": "rue de", "DE": "linden", "NL": "molen", "US": "oak",
    "CA": "maple", "BR": "rua", "JP": "本町", "AU": "wattle",
}  # fmt: skip

_VENUES = {"GB": "corn exchange", "DE": "stadthalle", "US": "opera house"}


def form_document(key: str) -> FormDocument:
    """A form of the scenario."""
    text = (resources.files("anchorline.demo.forms") / f"{key}.yaml").read_text("utf-8")
    return FormDocument.model_validate(read_yaml(text))


def apply_forms(url: str, key: str) -> None:
    """Makes and publishes the forms, as an administrator would: from their files.

    Args:
        url: the service's address.
        key: a server key.

    Raises:
        CalledProcessError: the command refused; `stderr` says why.
    """
    with resources.as_file(resources.files("anchorline.demo.forms")) as folder:
        files = [str(folder / f"{name}.yaml") for name in FORMS]
        command = [sys.executable, "-m", "anchorline.cli", "forms", "apply", "--publish", "--yes"]
        subprocess.run(
            [*command, *files],
            env={**os.environ, "ANCHORLINE_URL": url, "ANCHORLINE_KEY": key},
            check=True,
            capture_output=True,
            text=True,
        )


def submit_examples(client: Client, seed: int = 7) -> int:
    """Submits some records of each form, as people would have; returns how many."""
    rng = random.Random(seed)
    count = 0
    for number, person in enumerate(_PEOPLE):
        country = COUNTRIES[number % len(COUNTRIES)]
        visits = ("tuning", "repair", "move") if country == "GB" else ("tuning", "repair")
        values = {
            "contact": person,
            "phone": _phone(country, rng),
            "visit": visits[number % len(visits)],
        }
        slots = ["piano", "destination"] if values["visit"] == "move" else ["piano"]
        count += _submit(client, rng, "tuning-visit", values, slots, country)
        if number % 2:
            make = rng.choice(_MAKES)
            count += _submit(
                client, rng, "instrument", {"make": make, "owner": person}, ["home"], country
            )
    for country in ("GB", "DE", "US"):
        count += _submit(client, rng, "venue", {"pianos": rng.randint(1, 5)}, ["venue"], country)
    count += _submit(client, rng, "supplier", {"name": "Felt & Wire"}, ["office"], "NL")
    return count


def _phone(country: str, rng: random.Random) -> str:
    """A number of a country that nobody is called by: its example with other last digits."""
    number = phonenumbers.example_number(country)
    assert number is not None, country
    text = str(phonenumbers.format_number(number, phonenumbers.PhoneNumberFormat.INTERNATIONAL))
    return f"{text[:-2]}{rng.randint(10, 99)}"


def _submit(
    client: Client,
    rng: random.Random,
    form: str,
    values: dict[str, Any],
    slots: list[str],
    country: str,
) -> int:
    """Picks an address for each slot, fills, and submits; 1 if a record was made."""
    picked: dict[str, SlotInputSchema] = {}
    filled = dict(values)
    venue = _VENUES.get(country) if form == "venue" else None
    for slot in slots:
        found = _pick(client, rng, country, venue)
        if found is None:
            return 0
        typed, address_id = found
        filled |= {
            key: text
            for key, text in client.fill(form, slot, address_id=address_id).values.items()
            if text
        }
        picked[slot] = SlotInputSchema(country_code=country, address_id=address_id, typed=typed)
    client.submit(form, filled, picked)
    return 1


def _pick(
    client: Client, rng: random.Random, country: str, venue: str | None
) -> tuple[str, str] | None:
    """What somebody typed, and the address they picked, opening groups on the way; or None."""
    typed = venue or _STREET_STARTS[country]
    kinds = () if venue else ("street", "district")
    rows = client.suggest(typed, country=country, kinds=kinds).suggestions
    if not rows:  # a small world has not everything
        return _pick(client, rng, country, None) if venue else None
    row = rng.choice(rows)
    while row.count > 1:
        row = rng.choice(client.suggest(within=row.id, limit=100).suggestions)
    return typed, row.id


def describe(client: Client) -> Iterator[str]:
    """The overview, in lines for the terminal."""
    overview = client.overview()
    addresses = sum(edition.addresses for edition in overview.editions)
    yield f"{addresses:,} addresses in {len(COUNTRIES)} countries"
    yield f"{overview.forms} forms, {overview.records} records"
