"""What is asked and answered of filling a slot: the same on forms and on targets."""

from __future__ import annotations

from anchorline.application.filling import FilledFrom, WantedFill, facts_of
from anchorline.core.mapping import Fill
from anchorline.wire.filling import FillAnswer, FilledAddress, FillRequest, TraceEntry


def wanted_fill(body: FillRequest) -> WantedFill:
    """The one source of a request."""
    return WantedFill(
        address_id=body.address_id,
        group_id=body.group_id,
        components=body.components,
        typed=body.typed,
        country_code=body.country_code,
        capture=body.capture,
    )


def fill_answer(filled: FilledFrom | Fill) -> FillAnswer:
    """What a filling did, as it is answered."""
    fill = filled.fill if isinstance(filled, FilledFrom) else filled
    notes = filled.notes if isinstance(filled, FilledFrom) else ()
    return FillAnswer(
        values=fill.values,
        labels=fill.labels,
        cleared=fill.cleared,
        warnings=[*(one.detail for one in fill.warnings), *notes],
        trace=[
            TraceEntry(
                kind=step.kind,
                field=step.field,
                components=list(step.sources),
                detail=step.detail,
                rule=step.rule,
                text=step.text,
            )
            for step in fill.trace
        ],
        address=_address(filled) if isinstance(filled, FilledFrom) else None,
    )


def _address(filled: FilledFrom) -> FilledAddress | None:
    if filled.address is None:
        return None
    address, value = filled.address
    return FilledAddress(
        components=dict(value.components),
        line=value.line,
        lines=list(value.lines),
        latitude=address.facts.latitude,
        longitude=address.facts.longitude,
        facts=facts_of(address),
    )
