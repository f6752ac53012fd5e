"""Captured addresses as rows, and as what earlier states of a record keep of them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import asdict
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from anchorline.core.address import Facts
from anchorline.core.forms import Captured, Position

from .schema import RecordAddressRow


def address_rows(record: str, addresses: Iterable[Captured]) -> list[RecordAddressRow]:
    """Rows of a record's addresses, in their order."""
    return [
        RecordAddressRow(
            record=record,
            slot=address.slot,
            position=position,
            country_code=address.country_code,
            components=address.components,
            facts=asdict(address.facts),
            address_id=address.address_id,
            edition=address.edition,
            typed=address.typed,
            changed=list(address.changed),
            layout=address.layout,
            pin=asdict(address.position) if address.position else None,
        )
        for position, address in enumerate(addresses)
    ]


def rows_of(session: Session, record: str) -> list[RecordAddressRow]:
    """The addresses of a record, in their order."""
    query = select(RecordAddressRow).where(RecordAddressRow.record == record)
    return list(session.scalars(query.order_by(RecordAddressRow.position)))


def captured_of(row: RecordAddressRow) -> Captured:
    """A row as an address."""
    return Captured(
        row.slot,
        row.country_code,
        row.components,
        _facts(row.facts),
        row.address_id,
        row.edition,
        row.typed,
        tuple(row.changed),
        row.layout,
        Position(**row.pin) if row.pin else None,
    )


def as_data(address: Captured) -> dict[str, Any]:
    """An address as an earlier state keeps it."""
    return asdict(address)


def from_data(data: Mapping[str, Any]) -> Captured:
    """An address of an earlier state."""
    position = data.get("position")
    return Captured(
        **{
            **data,
            "facts": _facts(data["facts"]),
            "changed": tuple(data["changed"]),
            "position": Position(**position) if position else None,
        }
    )


def _facts(data: Mapping[str, Any]) -> Facts:
    return Facts(**{**data, "languages": tuple(data.get("languages", ()))})
