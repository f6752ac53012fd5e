"""An earlier version that is still being filled: its fields, guarded as the version in force says.

Somebody who opened a page before a form was published anew may still send what they filled in. What
they see is theirs; who may fill the form, how fast, and for which countries is whatever holds now.
"""

from __future__ import annotations

from dataclasses import replace

from .model import Field, Form, Slot


def guarded_by(opened: Form, in_force: Form) -> Form:
    """An earlier version with what guards it now.

    Args:
        opened: the version that was opened.
        in_force: the published one.
    """
    items = tuple(_guarded(item, in_force) for item in opened.items)
    return replace(opened, kind=in_force.kind, public=in_force.public, items=items)


def _guarded(item: Field | Slot, in_force: Form) -> Field | Slot:
    """A slot with those of its countries that are served now; one that is gone, as it was."""
    now = in_force.slot(item.key) if isinstance(item, Slot) else None
    if not isinstance(item, Slot) or now is None:
        return item
    both = tuple(country for country in item.countries if country in now.countries)
    countries = both or now.countries
    country = item.country if item.country in countries else now.country
    return replace(item, countries=countries, country=country)
