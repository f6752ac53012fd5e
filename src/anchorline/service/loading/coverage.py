"""Running a draft's mapping over many addresses."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from time import monotonic
from typing import Any, NamedTuple

from anchorline.core.address import normalize_components
from anchorline.core.counting import counted
from anchorline.core.forms import Form, Slot, read_unfinished
from anchorline.core.forms.receiving import receivers_of
from anchorline.core.formula import today
from anchorline.core.layouts import LayoutLibrary, complete_region, one_line
from anchorline.core.mapping import KnownAddress, Receivers
from anchorline.core.mapping.coverage import STATES, Coverage, Sampled, cover
from anchorline.store.coverage_runs import CoverageRun
from anchorline.store.database import NotThereError
from anchorline.store.job_model import Job

from ..context import Services
from .lease import JobLease

_TELL_SECONDS = 1.0
_MOST_EXAMPLES = 200
_MOST_RECORDS = 100_000


class _Row(NamedTuple):
    number: int
    country_code: str
    components: Mapping[str, str]


def run_coverage(services: Services, job: Job, lease: JobLease) -> str:
    """Runs what a job asks for and keeps what came of it; returns how it went.

    Raises:
        NotThereError: the form or its slot is gone.
    """
    began, options = monotonic(), job.options
    document, entry = services.forms.draft(options["form"])
    layouts = services.layouts_in_force.current().on_form(entry.key)
    form, _problems = read_unfinished(document, layouts)
    slot = form.slot(options["slot"])
    if slot is None:
        raise NotThereError(f"The form {entry.key!r} has no address {options['slot']!r} any more.")
    receivers = receivers_of(form)
    services.jobs.enter_phase(lease.claim, "covering", rows_done=0)
    coverage, told = Coverage(), began
    rows, left_out = _of_the_slot(options["rows"], slot)
    day = today(services.database.now())
    sample = _sample(services, options, form, slot, rows, layouts, day)
    for coverage in cover(slot.mapping, receivers, sample):
        if monotonic() - told > _TELL_SECONDS:
            told = monotonic()
            lease.check()
            services.jobs.count_done(lease.claim, coverage.addresses.total())
    services.jobs.count_done(lease.claim, coverage.addresses.total())
    run = CoverageRun(
        job=job.id,
        form=entry.key,
        slot=slot.key,
        version=None if entry.draft_differs else entry.published_version,
        revision=entry.revision,
        source=options["source"],
        made_at=services.database.now(),
        made_by=job.made_by,
        seconds=round(monotonic() - began, 3),
        result={**_result(coverage, slot, receivers), "left_out": left_out},
    )
    services.coverage_runs.keep(run)
    looked_at = counted(coverage.addresses.total(), "address", "addresses")
    losses = ", ".join(f"{coverage.total(state):,} {state}" for state in ("lost", "wrong"))
    return f"{looked_at}: {losses}, {coverage.total('shortened'):,} shortened."


def _sample(
    services: Services,
    options: dict[str, Any],
    form: Form,
    slot: Slot,
    rows: Sequence[_Row],
    layouts: LayoutLibrary,
    day: int,
) -> Iterator[Sampled]:
    """The addresses that a job asks for."""
    source, limit = options["source"], int(options["per_country"])
    if source == "records":
        yield from _captured(services, form, slot, layouts, limit, day)
    elif source == "rows":
        yield from _sampled_rows(rows, layouts, day)
    else:
        gazetteer = services.gazetteer.current()
        for code in slot.countries:
            for address in gazetteer.spread(code, limit) if code in gazetteer.countries else ():
                known = KnownAddress.of(address, layouts, day)
                yield Sampled(address.id, one_line(known.layout, address.components), known)


def _captured(
    services: Services, form: Form, slot: Slot, layouts: LayoutLibrary, limit: int, day: int
) -> Iterator[Sampled]:
    seen: dict[str, int] = {}
    for record, one in services.records.captured_of_slot(form.key, slot.key, _MOST_RECORDS):
        seen[one.country_code] = seen.get(one.country_code, 0) + 1
        if seen[one.country_code] <= limit:
            known = one.known(layouts, day)
            yield Sampled(record, one_line(known.layout, one.components), known)


def _of_the_slot(rows: Sequence[Mapping[str, str]], slot: Slot) -> tuple[list[_Row], int]:
    """The rows of a slot's countries, and how many others there are."""
    found: list[_Row] = []
    for number, row in enumerate(rows, 1):
        code = row.get("country_code", "").strip().upper()
        code = code or slot.only_country or next(iter(slot.countries), "")
        if code in slot.countries:
            found.append(_Row(number, code, row))
    return found, len(rows) - len(found)


def _sampled_rows(rows: Sequence[_Row], layouts: LayoutLibrary, day: int) -> Iterator[Sampled]:
    for number, code, row in rows:
        layout = layouts.require(code)
        components = complete_region(layout, normalize_components(row, layout.extras))
        known = KnownAddress(components, layout, layouts=layouts, current_day=day)
        yield Sampled(str(number), one_line(layout, components), known)


def _result(coverage: Coverage, slot: Slot, receivers: Receivers) -> dict[str, Any]:
    """What came of a run, as it is answered."""
    keys = list(dict.fromkeys(key for rule in slot.mapping for key in rule.into))
    examples = [
        {
            "field": one.field,
            "country_code": one.country_code,
            "state": one.state,
            "address_id": one.reference,
            "label": one.label,
            "detail": one.detail,
            "text": one.text,
        }
        for (_field, _country, _state), listed in coverage.bad.items()
        for one in listed
    ]
    order = list(STATES)
    examples.sort(key=lambda one: order.index(one["state"]))
    return {
        "addresses": dict(coverage.addresses),
        "totals": {state: coverage.total(state) for state in STATES},
        "fields": [
            {
                "key": key,
                "label": receivers[key].label,
                "cells": {
                    country: dict(coverage.cells[key, country])
                    for country in coverage.addresses
                    if (key, country) in coverage.cells
                },
            }
            for key in keys
        ],
        "untaken": {name: dict(counts) for name, counts in coverage.untaken.items()},
        "examples": examples[:_MOST_EXAMPLES],
    }
