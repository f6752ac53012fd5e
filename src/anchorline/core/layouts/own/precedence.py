"""Which layout applies to a country on a form.

Three layers: the own layout of the form, the own layout for the country everywhere, the shipped
layout. What a layer does not change is as in the next one.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from ..library import LayoutLibrary
from ..model import Layout
from .derive import derive
from .document import OwnLayout


@dataclass(frozen=True, slots=True)
class Published:
    """An own layout in a published version; `version` is None where a draft is tried out."""

    own: OwnLayout
    version: int | None


class LayoutsInForce:
    """The layouts that hold, everywhere and on each form.

    Args:
        shipped: all shipped layouts.
        published: the own layouts that are published, at most one for each place.
    """

    def __init__(self, shipped: LayoutLibrary, published: Iterable[Published] = ()) -> None:
        self.shipped = shipped
        self.published = tuple(published)
        self.everywhere = self._laid_over(shipped, [p for p in self.published if not p.own.forms])
        self._by_form: dict[str, LayoutLibrary] = {}
        named = {form for p in self.published for form in p.own.forms}
        for form in named:
            of_form = [p for p in self.published if form in p.own.forms]
            self._by_form[form] = self._laid_over(self.everywhere, of_form)

    def on_form(self, form: str | None) -> LayoutLibrary:
        """The layouts on a form; those that hold everywhere for None."""
        if form is None:
            return self.everywhere
        return self._by_form.get(form, self.everywhere)

    def with_draft(self, own: OwnLayout) -> LayoutsInForce:
        """As it would be, were a draft published in place of its published version."""
        others = [p for p in self.published if p.own.key != own.key]
        return LayoutsInForce(self.shipped, [*others, Published(own, None)])

    def without(self, key: str) -> LayoutsInForce:
        """As it would be without an own layout."""
        return LayoutsInForce(self.shipped, [p for p in self.published if p.own.key != key])

    def _laid_over(self, base: LayoutLibrary, layers: list[Published]) -> LayoutLibrary:
        if not layers:
            return base
        changed: dict[str, Layout] = {}
        for layer in layers:
            for code in layer.own.countries:
                layout = changed.get(code) or base.get(code)
                if layout is not None:
                    changed[code] = derive(
                        layout, layer.own, layer.version, shipped=self.shipped.require(code)
                    )
        return LayoutLibrary(changed.get(known.country_code, known) for known in base)
