"""Mappings of forms and targets while they are made: checked, tried, proposed, read back."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple

from anchorline.core.address import Address, Facts, component_problems
from anchorline.core.errors import Problem
from anchorline.core.forms import Slot
from anchorline.core.forms.mapping_lint import example_runs, lint_mappings
from anchorline.core.forms.mapping_proposals import RuleProposal, propose_rules
from anchorline.core.forms.receiving import fill_slot, receivers_of
from anchorline.core.formula import today
from anchorline.core.layouts import Layout, LayoutLibrary, complete_region
from anchorline.core.mapping import Fill, KnownAddress
from anchorline.core.mapping.back import Back, back
from anchorline.core.mapping.examples import ExampleRun
from anchorline.core.mapping.lint import Finding
from anchorline.store.database import NotThereError
from anchorline.store.document_model import Document

from .caller import Caller
from .errors import InvalidError
from .mapped_drafts import MappedKind
from .mapping_samples import Sample, samples_of
from .mappings import linked_forms, sample_of
from .open_forms import require_slot
from .records.links import finder_of_records
from .services import Services


class Linted(NamedTuple):
    """What there is to say of the mappings of a document, and what was looked at for it."""

    findings: Sequence[Finding]
    sample: Mapping[str, Sequence[Address]]


class Tried(NamedTuple):
    """An address that a mapping is tried with: by its id, or any components.

    Attributes:
        facts: beside components.
        country_code: of components that do not say it.
    """

    address_id: str | None = None
    components: Mapping[str, str] | None = None
    facts: Facts = Facts()
    country_code: str | None = None


def lint(services: Services, kind: MappedKind, key: str, document: Document | None) -> Linted:
    """What is wrong with the mappings of a draft, and what should be known; keeps nothing.

    Args:
        document: in place of the draft.
    """
    written, layouts = kind.written(services, key, document), kind.layouts(services, key)
    sample, forms = sample_of(services, written), linked_forms(services, written)
    refusals = kind.refusals(services, key, document)
    day = today(services.database.now())
    found = lint_mappings(written, layouts, sample, forms, day, refusals)
    return Linted([replace(one, pointer=kind.pointer(one.pointer)) for one in found], sample)


def run_examples(
    services: Services, kind: MappedKind, key: str
) -> Sequence[tuple[str, ExampleRun]]:
    """The examples of a draft with the keys of their slots, each with what came of it."""
    form, _version, document, layouts, _digest = kind.open(services, key)
    runs = example_runs(document, form, layouts, today(services.database.now()))
    return [(document["slots"][int(at.split("/")[2])]["key"], run) for run, at in runs]


def samples(services: Services, kind: MappedKind, key: str, slot: str) -> Sequence[Sample]:
    """Addresses to try a slot's mapping with: usual ones and odd ones of each country."""
    opened = kind.open(services, key)
    countries = require_slot(opened.form, slot).countries
    return samples_of(services.gazetteer.current(), countries, opened.layouts)


def propose(
    services: Services, kind: MappedKind, key: str, slot: str, document: Document | None
) -> Sequence[RuleProposal]:
    """Rules for the fields of a draft that no rule of a slot writes yet, each with its reason."""
    opened = kind.open(services, key, document)
    return propose_rules(opened.form, require_slot(opened.form, slot), opened.layouts)


def try_out(
    services: Services,
    caller: Caller,
    kind: MappedKind,
    key: str,
    slot: str,
    document: Document | None,
    tried: Tried,
    values: Mapping[str, object],
) -> Fill:
    """What a draft's mapping makes of an address, step by step; keeps nothing.

    Raises:
        NotThereError: there is none, it has no such slot, or that is not there for the country.
        InvalidError: there is no such address, or a component has another name.
    """
    opened = kind.open(services, key, document)
    form, layouts = opened.form, opened.layouts
    found = require_slot(form, slot)
    known = _known(services, found, layouts, tried)
    return fill_slot(form, found, known, values, finder_of_records(services, caller, form))


def read_back(
    services: Services,
    kind: MappedKind,
    key: str,
    slot: str,
    values: Mapping[str, str],
    country: str | None,
) -> tuple[Back, Layout]:
    """The address that stands in the fields of a slot's mapping, and its country's layout."""
    opened = kind.open(services, key)
    found = require_slot(opened.form, slot)
    layout = opened.layouts.require(_country(found, country))
    receivers = receivers_of(opened.form)
    return back(found.mapping, receivers, values, layout, opened.layouts), layout


def _country(slot: Slot, given: str | None) -> str:
    code = (given or slot.only_country or slot.countries[0]).upper()
    if code not in slot.countries:
        raise NotThereError(f"The address {slot.key!r} is not there for {code!r}.")
    return code


def _known(services: Services, slot: Slot, layouts: LayoutLibrary, tried: Tried) -> KnownAddress:
    day = today(services.database.now())
    if tried.address_id is not None:
        found = services.gazetteer.having(tried.address_id).address(tried.address_id)
        if found is None:
            detail = f"There is no address {tried.address_id!r}."
            raise InvalidError([Problem("/address_id", detail)])
        return KnownAddress.of(found[0], layouts, day)
    components = dict(tried.components or {})
    code = tried.country_code or components.get("country_code")
    layout = layouts.require(_country(slot, code))
    problems = component_problems(components, "/components", set(layout.extras))
    if problems:
        raise InvalidError(problems)
    completed = complete_region(layout, components)
    return KnownAddress(completed, layout, tried.facts, layouts=layouts, current_day=day)
