"""The reasons why an own layout cannot be published, as far as layouts show them.

`forms.layout_fit` checks it against the forms that it is for.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from ...errors import Problem, nearest_names
from ..library import LayoutLibrary
from ..model import Layout
from ..notation import Line, written_line
from .derive import place_of_line, traced_lines
from .document import ComponentChange, LineChange, OwnLayout
from .precedence import LayoutsInForce


def review(own: OwnLayout, in_force: LayoutsInForce) -> list[Problem]:
    """The reasons why an own layout cannot be published, with pointers into its document."""
    others = in_force.without(own.key)
    # What it is laid over: what holds everywhere where it is for named forms.
    library = others.everywhere if own.forms else others.shipped
    base = [library.require(code) for code in own.countries]
    return [
        *_places_taken(own, others),
        *(problem for change in own.ask for problem in _ask(own, change, base)),
        *(problem for change in own.lines for problem in _line(own, change, base)),
        *_empty(own),
    ]


def _empty(own: OwnLayout) -> Iterator[Problem]:
    if not own.ask and not own.lines:
        yield Problem("/ask", "It changes nothing yet.")


def _places_taken(own: OwnLayout, others: LayoutsInForce) -> Iterator[Problem]:
    """Of two own layouts for one place nobody could say which holds."""
    for published in others.published:
        other = published.own
        if bool(other.forms) != bool(own.forms):
            continue
        forms = [form for form in own.forms if form in other.forms]
        if own.forms and not forms:
            continue
        where = f" on {', '.join(forms)}" if forms else ""
        for index, code in enumerate(own.countries):
            if code in other.countries:
                detail = f"{other.title} ({other.key}) is already there for {code}{where}."
                yield Problem(f"/countries/{index}", f"{detail} Change that one instead.")


def _ask(own: OwnLayout, change: ComponentChange, base: list[Layout]) -> Iterator[Problem]:
    pointer = f"/ask/{change.index}"
    asking = [layout for layout in base if layout.component(change.component)]
    if change.hidden:
        yield from _hidden_but_required(change, asking, pointer)
    elif not asking and not change.add:
        names = _countries(base)
        detail = f"{names} does not ask for {change.component}: say add: true to ask for it."
        yield Problem(f"{pointer}/component", detail)
    known = {a.component for layout in base for a in layout.components} | {
        c.component for c in own.ask if c.add
    }
    if change.after is not None and change.after not in known:
        nearest = nearest_names(change.after, known)
        hint = f" Did you mean {' or '.join(nearest)}?" if nearest else ""
        detail = f"{_countries(base)} does not ask for {change.after!r}.{hint}"
        yield Problem(f"{pointer}/after", detail)


def _hidden_but_required(
    change: ComponentChange, asking: Iterable[Layout], pointer: str
) -> Iterator[Problem]:
    if change.required is False:
        return
    needing = [
        layout
        for layout in asking
        if (entry := layout.component(change.component)) is not None and entry.required
    ]
    if needing:
        detail = (
            f"{_countries(needing)} requires {change.component}: hidden, nobody could give it. "
            "Say required: false as well if it may be left out."
        )
        yield Problem(f"{pointer}/hidden", detail)


def _line(own: OwnLayout, change: LineChange, base: list[Layout]) -> Iterator[Problem]:
    pointer = f"/lines/{change.index}"
    with_script = [layout for layout in base if change.script in layout.lines]
    if not with_script:
        detail = f"{_countries(base)} writes no lines of its own in {change.script}."
        yield Problem(f"{pointer}/script", detail)
        return
    if change.act == "add":
        if change.after is not None and not _stands(own, change, change.after, with_script):
            yield _no_line(f"{pointer}/after", change.after, with_script, change.script)
        return
    used = {
        traced.change
        for layout in with_script
        for traced in traced_lines(layout, own)[change.script]
    }
    if change.index not in used:
        yield _no_line(f"{pointer}/{change.act}", change.line, with_script, change.script)


def _stands(own: OwnLayout, change: LineChange, wanted: Line, layouts: list[Layout]) -> bool:
    added = [other.to for other in own.lines if other.index != change.index]
    return any(
        place_of_line([*layout.lines[change.script], *added], wanted) is not None
        for layout in layouts
    )


def _no_line(pointer: str, line: Line, layouts: list[Layout], script: str) -> Problem:
    known = {written_line(kept) for layout in layouts for kept in layout.lines[script]}
    nearest = nearest_names(written_line(line), known)
    hint = f" Did you mean {' or '.join(map(repr, nearest))}?" if nearest else ""
    detail = f"{_countries(layouts)} has no line {written_line(line)!r} to change.{hint}"
    return Problem(pointer, detail)


def _countries(layouts: Iterable[Layout]) -> str:
    """`France`, `neither`-less: `France or Belgium`, at most three by name."""
    names = [layout.name for layout in layouts]
    return " or ".join(names[:3]) + (" or any other" if len(names) > 3 else "")


def effective(own: OwnLayout, in_force: LayoutsInForce, country_code: str) -> Layout:
    """The layout of a country as it would be, were the own layout published."""
    planned = in_force.with_draft(own)
    return planned.on_form(own.forms[0] if own.forms else None).require(country_code)


def base_layout_of(own: OwnLayout, in_force: LayoutsInForce, country_code: str) -> Layout:
    """The layout of a country that an own layout is laid over."""
    library: LayoutLibrary = in_force.without(own.key).everywhere if own.forms else in_force.shipped
    return library.require(country_code)
