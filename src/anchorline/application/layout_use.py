"""Layouts as callers meet them: those that hold for them, and addresses written out by them."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from typing import NamedTuple

from anchorline.core.address import component_problems
from anchorline.core.errors import Problem
from anchorline.core.layouts import (
    Layout,
    LayoutLibrary,
    Written,
    unknown_country_detail,
    write_out,
)
from anchorline.store.database import NotThereError

from .caller import Caller
from .errors import ForbiddenError, InvalidError
from .services import Services

_MOST_SAMPLES = 10


class Sample(NamedTuple):
    """An address to try a layout with; `record` and `form` where it was captured."""

    label: str
    components: Mapping[str, str]
    record: str | None = None
    form: str | None = None


def layouts_for(services: Services, caller: Caller, form: str | None) -> LayoutLibrary:
    """The layouts that hold on a form, or everywhere.

    Raises:
        ForbiddenError: the form is not for the caller.
        NotThereError: there is no such form.
    """
    if form is not None:
        if not caller.may_use_form(form):
            raise ForbiddenError(f"This caller may not use the form {form!r}.")
        if caller.forms is None:  # who is tied to forms is tied to real ones
            services.forms.require(form)
    return services.layouts_in_force.current().on_form(form)


def layout_for(
    services: Services, caller: Caller, country_code: str, form: str | None = None
) -> Layout:
    """The layout that holds for a country, on a form or everywhere.

    Raises:
        ForbiddenError: the form is not for the caller.
        NotThereError: there is no such form, or no layout for the country.
    """
    layout = layouts_for(services, caller, form).get(country_code)
    if layout is None:
        raise NotThereError(_no_layout(services, country_code))
    return layout


def require_components(
    components: Mapping[str, str], pointer: str, extras: Collection[str] = ()
) -> None:
    """InvalidError where a name is neither a component's nor one of `extras`."""
    problems = component_problems(dict(components), pointer, extras)
    if problems:
        raise InvalidError(problems)


def language_of_sender(services: Services, country_code: str | None) -> str:
    """The language in which whoever sends from a country writes another country's name."""
    if country_code is None:
        return "en"
    layout = services.layouts.get(country_code)
    if layout is None:
        raise InvalidError([Problem("/from_country", _no_layout(services, country_code))])
    return layout.languages[0]


def write_many(
    services: Services,
    layouts: LayoutLibrary,
    addresses: Sequence[Mapping[str, str]],
    *,
    international: bool,
    language: str,
) -> list[Written]:
    """Many addresses written out, each as its country does it.

    Raises:
        InvalidError: something in some of them is wrong; each is named.
    """
    problems: list[Problem] = []
    written: list[Written] = []
    for place, given in enumerate(addresses):
        pointer, components = f"/addresses/{place}", dict(given)
        code = components.get("country_code", "")
        layout = layouts.get(code)
        problems += component_problems(components, pointer, layout.extras if layout else ())
        if layout is None:
            problems.append(Problem(f"{pointer}/country_code", _no_layout(services, code)))
        else:
            written.append(
                write_out(layout, components, international=international, language=language)
            )
    if problems:
        raise InvalidError(problems)
    return written


def samples(services: Services, country_code: str, form: str | None) -> list[Sample]:
    """Addresses to try a layout with: of the latest records, and of the reference data."""
    captured = services.records.captured_in(country_code, [form] if form else [], _MOST_SAMPLES)
    known = services.gazetteer.current().samples(country_code, _MOST_SAMPLES)
    return [
        *(Sample(one.label, components, one.id, one.form) for one, components in captured),
        *(Sample(label, address.components) for label, address in known),
    ]


def _no_layout(services: Services, country_code: str) -> str:
    codes = [known.country_code for known in services.layouts]
    return unknown_country_detail(country_code, codes)
