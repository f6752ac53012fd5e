"""The mappings of a whole form document, checked before they are used."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Any

from ..address import Address, Facts
from ..layouts import Layout, LayoutLibrary, complete_region
from ..mapping import KnownAddress, fill
from ..mapping.examples import Example, ExampleRun, run_example
from ..mapping.lint import Case, Finding, Run, lint
from .document import read_unfinished
from .model import Form, Slot
from .receiving import receivers_of

Document = Mapping[str, Any]
_MOST_MADE_UP = 5
# What an address has where there is no reference data to look at.
_MADE_UP = {
    "organisation": "Harrow Bell Works", "unit": "Flat 3", "building": "Rowan Court",
    "number": "12a", "street": "Mill Lane", "district": "Upper End", "town": "Brackwater",
    "region": "Westmark", "region_code": "WM", "postcode": "QV1 4AB",
}  # fmt: skip


def lint_mappings(
    document: Document,
    layouts: LayoutLibrary,
    sample: Mapping[str, Sequence[Address]],
    forms: Mapping[str, Collection[str]],
    current_day: int,
    refusals: Mapping[str, Callable[[str], str]] | None = None,
) -> list[Finding]:
    """Everything that is wrong with a document's mappings, and what somebody should know.

    What cannot be read of the document at all is among it.

    Args:
        sample: addresses by country.
        forms: of other forms by key: the keys of their fields.
        current_day: serial number of today.
        refusals: by the keys of fields, why one cannot hold a text, in place of its type's reason.
    """
    form, problems = read_unfinished(document, layouts)
    found = [
        Finding("document", one.pointer, "problem", one.detail, None, one.offers)
        for one in problems
    ]
    for case in _cases(document, form, layouts, sample, forms, current_day, refusals or {}):
        found += lint(case)
    for run, pointer in example_runs(document, form, layouts, current_day):
        found += _differences(run, pointer)
    return sorted(found, key=lambda one: one.severity != "problem")


def example_runs(
    document: Document, form: Form, layouts: LayoutLibrary, current_day: int
) -> Iterator[tuple[ExampleRun, str]]:
    """The examples of a document, run, each with its pointer."""
    receivers = receivers_of(form)
    for at, entry in enumerate(document.get("slots") or ()):
        slot = form.slot(entry["key"])
        if slot is None:
            continue
        for n, example in enumerate(entry.get("examples") or ()):
            made = _example(example, slot, layouts, current_day)
            if made is not None:
                yield run_example(slot.mapping, receivers, made), f"/slots/{at}/examples/{n}"


def _example(
    entry: Document, slot: Slot, layouts: LayoutLibrary, current_day: int
) -> Example | None:
    components = entry["components"]
    code = components.get("country_code", "").upper() or slot.only_country
    layout = layouts.get(code or slot.countries[0]) if slot.countries else None
    if layout is None:
        return None
    facts = entry.get("facts") or {}
    known = KnownAddress(
        complete_region(layout, components),
        layout,
        Facts(
            facts.get("latitude"),
            facts.get("longitude"),
            facts.get("use") or None,
            tuple(facts.get("languages") or ()),
        ),
        entry.get("address_id") or "",
        layouts=layouts,
        current_day=current_day,
    )
    return Example(entry["name"], known, entry["values"])


def _differences(run: ExampleRun, pointer: str) -> Iterator[Finding]:
    for one in run.differences:
        found = f"{one.found!r} stands there" if one.found else "nothing stands there"
        expected = f"{one.expected!r} is expected" if one.expected else "nothing is expected"
        detail = (
            f"The example “{run.example.name}” fails: in {one.field!r} {expected}, and {found}. "
            "Mend the rule, or take this as what is expected now."
        )
        place = f"{pointer}/values/{one.field}"
        yield Finding("examples", place, "problem", detail, None, (one.found,))


def _cases(
    document: Document,
    form: Form,
    layouts: LayoutLibrary,
    sample: Mapping[str, Sequence[Address]],
    forms: Mapping[str, Collection[str]],
    current_day: int,
    refusals: Mapping[str, Callable[[str], str]],
) -> Iterator[Case]:
    receivers = {
        key: replace(one, refuses=refusals[key]) if key in refusals else one
        for key, one in receivers_of(form).items()
    }
    for at, entry in enumerate(document.get("slots") or ()):
        slot = form.slot(entry["key"])
        if slot is None:
            continue
        used = [layouts.require(code) for code in slot.countries]
        known = [
            KnownAddress.of(address, layouts, current_day)
            for layout in used
            for address in sample.get(layout.country_code, ())
        ]
        made_up = not known
        if made_up:
            known = [_made_up(layout, layouts, current_day) for layout in used[:_MOST_MADE_UP]]
        runs = [Run(one, fill(slot.mapping, receivers, one)) for one in known]
        yield Case(
            pointer=f"/slots/{at}",
            slot=slot.key,
            document=entry,
            rules=slot.mapping,
            receivers=receivers,
            layouts=used,
            runs=runs,
            made_up=made_up,
            forms=forms,
        )


def _made_up(layout: Layout, layouts: LayoutLibrary, current_day: int) -> KnownAddress:
    asked = {entry.component for entry in layout.components}
    components = {name: text for name, text in _MADE_UP.items() if name in asked}
    return KnownAddress(components, layout, layouts=layouts, current_day=current_day)
