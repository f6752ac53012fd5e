"""Running a draft's mapping over many addresses: asked for, and done by a worker."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from time import monotonic
from typing import Any, NamedTuple

from anchorline.core.address import component_problems, normalize_components
from anchorline.core.counting import counted
from anchorline.core.errors import Problem
from anchorline.core.forms import Form, Slot
from anchorline.core.forms.receiving import receivers_of
from anchorline.core.forms.table import TableError
from anchorline.core.forms.table.addresses import address_rows
from anchorline.core.formula import today
from anchorline.core.layouts import LayoutLibrary, complete_region, one_line
from anchorline.core.mapping import KnownAddress, Receivers
from anchorline.core.mapping.coverage import STATES, Coverage, Sampled, cover
from anchorline.store.coverage_runs import CoverageRun
from anchorline.store.database import AlreadyThereError, NotThereError
from anchorline.store.idempotency import IdempotencyKey
from anchorline.store.job_model import Claim, Job, NewJob

from .caller import Caller
from .errors import ConflictError, InvalidError
from .mapped_drafts import FORMS_MAPPED, MAPPED, MappedKind
from .once import once
from .open_forms import require_slot
from .services import Services

_TELL_SECONDS = 1.0
_MOST_EXAMPLES = 200
_MOST_RECORDS = 100_000


class _Row(NamedTuple):
    number: int
    country_code: str
    components: Mapping[str, str]


@dataclass(frozen=True, slots=True)
class WantedRun:
    """What a mapping is to be run over.

    Attributes:
        source: `reference`, `records` or `rows`.
        per_country: addresses of each country, at most.
        rows: addresses that are given.
        table: addresses as a table that was copied from somewhere, in place of rows.
    """

    source: str
    per_country: int
    rows: Sequence[Mapping[str, str]] = ()
    table: str = ""


def start_coverage(
    services: Services,
    caller: Caller,
    kind: MappedKind,
    key: str,
    slot: str,
    wanted: WantedRun,
    once_by: IdempotencyKey | None,
) -> Job:
    """Has a draft's mapping run over many addresses.

    Raises:
        NotThereError: there is none, or it has no such slot.
        InvalidError: the table cannot be read, a row has other names than components, or a target
            is to be run over records, which it has none of.
        ConflictError: it is being run over already.
    """
    opened = kind.open(services, key)
    found = require_slot(opened.form, slot)
    rows: Sequence[Mapping[str, str]] = wanted.rows
    if wanted.table:
        try:
            rows = address_rows(wanted.table, opened.layouts)
        except TableError as error:
            raise InvalidError([Problem("/table", str(error))]) from None
    problems = [
        problem
        for number, row in enumerate(wanted.rows)
        for problem in component_problems(dict(row), f"/rows/{number}")
    ]
    if problems:
        raise InvalidError(problems)
    if wanted.source == "records" and kind is not FORMS_MAPPED:
        detail = "What is filled elsewhere is not kept here: choose the reference data, or rows."
        raise InvalidError([Problem("/source", detail)])
    options = {
        "kind": kind.name,
        "form": opened.form.key,
        "slot": found.key,
        "source": wanted.source,
        "per_country": wanted.per_country,
        "rows": [dict(row) for row in rows],
    }
    alone = f"coverage of {kind.name} {opened.form.key}/{found.key}"
    new = NewJob("coverage", "", caller.name, options=options, alone=alone)

    def make() -> str:
        try:
            return services.jobs.make(new).id
        except AlreadyThereError:
            detail = "This address is being run over already; wait until that is done."
            raise ConflictError(detail) from None

    return services.jobs.get(once(services, once_by, make))


def run_coverage(services: Services, job: Job, claim: Claim, check: Callable[[], None]) -> str:
    """Runs what a job asks for and keeps what came of it; returns how it went.

    Args:
        claim: the worker's hold on the job.
        check: raises where the job has to stop.

    Raises:
        NotThereError: the form or target, or its slot, is gone.
        DocumentError: an address of its draft is there for no country.
    """
    began, options = monotonic(), job.options
    # Jobs of earlier releases are of forms.
    kind = MAPPED[options.get("kind") or "form"]
    entry = kind.entry(services, options["form"])
    form, _version, _document, layouts, _digest = kind.open(services, entry.key)
    slot = form.slot(options["slot"])
    if slot is None:
        raise NotThereError(f"{entry.key!r} has no address {options['slot']!r} any more.")
    receivers = receivers_of(form)
    services.jobs.enter_phase(claim, "covering", rows_done=0)
    coverage, told = Coverage(), began
    rows, left_out = _of_the_slot(options["rows"], slot)
    day = today(services.database.now())
    sample = _sample(services, options, form, slot, rows, layouts, day)
    for coverage in cover(slot.mapping, receivers, sample):
        if monotonic() - told > _TELL_SECONDS:
            told = monotonic()
            check()
            services.jobs.count_done(claim, coverage.addresses.total())
    services.jobs.count_done(claim, coverage.addresses.total())
    run = CoverageRun(
        job=job.id,
        kind=kind.name,
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
