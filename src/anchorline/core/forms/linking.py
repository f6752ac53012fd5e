"""Records of other forms that the rules of a submitted form's addresses want linked."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from ..formula import Budget
from ..layouts import LayoutLibrary
from ..mapping.fill import applying
from ..mapping.sources import Link
from .captured import Captured
from .model import Form


@dataclass(frozen=True, slots=True)
class WantedLink:
    """A link that a rule wants to set.

    Attributes:
        field: the key of the link.
        form: the key of the other form.
        texts: what the record's fields have, by their keys.
        new: the values of a new record where none is found; None where none is made.
    """

    field: str
    form: str
    texts: Mapping[str, str]
    new: Mapping[str, str] | None


def has_link_rules(form: Form) -> bool:
    """Whether addresses of a form set links."""
    return any(isinstance(rule.source, Link) for slot in form.slots for rule in slot.mapping)


def wanted_links(
    form: Form,
    captured: Sequence[Captured],
    values: Mapping[str, object],
    layouts: LayoutLibrary,
    current_day: int,
) -> Iterator[WantedLink]:
    """The links that are not set yet and that captured addresses say something for."""
    budget = Budget()
    for one in captured:
        slot = form.slot(one.slot)
        known = one.known(layouts, current_day)
        mapping = slot.mapping if slot is not None else ()
        for rule, applies in zip(mapping, applying(mapping, known, budget), strict=True):
            link, key = rule.source, rule.into[0]
            if not applies or not isinstance(link, Link) or values.get(key):
                continue
            texts = link.texts(known, link.find, budget)
            if texts:
                new = link.new_record(known, budget) if link.creates else None
                yield WantedLink(key, link.form, texts, new)
