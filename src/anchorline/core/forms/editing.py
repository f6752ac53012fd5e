"""Filling a record's form anew: what of its addresses stays as it was captured."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..address import Address
from ..mapping import owned
from .captured import Captured, FindAddress
from .model import Form
from .values import Values


def find_or_captured(find: FindAddress, before: Sequence[Captured]) -> FindAddress:
    """Finds addresses; one that was captured before, also where no edition has it any more."""
    captured = {one.address_id: one for one in before if one.address_id}

    def found(address_id: str) -> tuple[Address, str] | None:
        now = find(address_id)
        if now is not None:
            return now
        then = captured.get(address_id)
        if then is None:
            return None
        return Address(address_id, dict(then.components), then.facts), then.edition or ""

    return found


def kept_as_before(
    form: Form, before: Sequence[Captured], now: Sequence[Captured], old: Values, new: Values
) -> list[Captured]:
    """The addresses of a record that was changed; those that nobody touched stay as captured.

    Of an address that was picked before and changed by hand since, all fields that were ever
    changed are named.

    Args:
        before, now: as they were captured, and as they are captured from what was sent.
        old, new: values of the record before, and from what was sent.
    """
    earlier = {one.slot: one for one in before}
    return [_joined(form, earlier.get(one.slot), one, old, new) for one in now]


def _joined(
    form: Form, before: Captured | None, now: Captured, old: Values, new: Values
) -> Captured:
    if before is None or before.address_id != now.address_id:
        return now
    slot = form.slot(now.slot)
    keys = [*owned(slot.mapping), *(part.key for part in slot.parts)] if slot else []
    # An edition may say more of an address by now: who touched nothing did not ask for it.
    is_untouched = before.country_code == now.country_code and before.position == now.position
    if is_untouched and all(old.get(key) == new.get(key) for key in keys):
        return before
    if now.address_id is None:
        return now
    changed = tuple(dict.fromkeys((*before.changed, *now.changed)))
    return replace(now, changed=changed, edition=now.edition or before.edition)
