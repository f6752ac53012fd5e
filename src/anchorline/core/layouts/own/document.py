"""An administrator's own layout: what it changes, read from its document.

It holds differences only, so that everything it does not name comes from the shipped layout, also
from a newer one. What cannot be read is left out and reported with its place, so that a preview
can show the rest while somebody types.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from ...address import COMPONENT_SET, COMPONENTS
from ...errors import NotationError, Problem, nearest_names, unknown_name_detail
from ..library import LayoutLibrary
from ..names import unknown_country_detail
from ..notation import Line, read_line

Document = Mapping[str, Any]
Act = Literal["add", "change", "drop"]
_EXTRA = re.compile(r"[a-z][a-z_]{1,30}")
_LANGUAGE = re.compile(r"[a-z]{2,3}(-[A-Za-z0-9]{2,8})*")
# The country is chosen beside the fields, never typed into one of them.
_NEVER_ASKED = ("country", "country_code")


@dataclass(frozen=True, slots=True)
class ComponentChange:
    """What is different about one component that is asked for.

    Attributes:
        index: its place in the document's `ask`.
        component: a component, or the name of an extra.
        labels: labels by BCP 47 language that replace or join the shipped ones.
        required: whether it must be given; None as shipped.
        hidden: it is not asked for.
        add: it is asked for where the shipped layout does not.
        first: it is asked for before everything else.
        after: it is asked for after this one; None as shipped.
    """

    index: int
    component: str
    labels: dict[str, str]
    required: bool | None = None
    hidden: bool = False
    add: bool = False
    first: bool = False
    after: str | None = None


@dataclass(frozen=True, slots=True)
class LineChange:
    """A line that is added, changed or dropped.

    Attributes:
        index: its place in the document's `lines`.
        act: which of the three.
        line: the added line, or the shipped one that is changed or dropped.
        to: what a changed line becomes; else `line`.
        script: ISO 15924, of the lines it belongs to; empty for the usual ones.
        first: an added line comes before all others.
        after: an added line comes after this one, or after the one that names this component
            alone; None for the end.
    """

    index: int
    act: Act
    line: Line
    to: Line
    script: str = ""
    first: bool = False
    after: Line | None = None


@dataclass(frozen=True, slots=True)
class OwnLayout:
    """An administrator's own layout.

    Attributes:
        key: its name in addresses and files.
        title: its name for people.
        countries: ISO 3166-1 alpha-2 codes that it is for.
        forms: keys of the forms that it is for; empty for everywhere.
        ask: changes to what is asked for, in order.
        lines: changes to the lines, in order.
    """

    key: str
    title: str
    countries: tuple[str, ...]
    forms: tuple[str, ...]
    ask: tuple[ComponentChange, ...]
    lines: tuple[LineChange, ...]

    @property
    def extras(self) -> frozenset[str]:
        """Names that it asks for beside the components."""
        return frozenset(change.component for change in self.ask) - COMPONENT_SET


def read_own_layout(document: Document, shipped: LayoutLibrary) -> tuple[OwnLayout, list[Problem]]:
    """The own layout of a document, and what could not be read, with pointers into it."""
    reader = _Reader()
    countries = tuple(reader.countries(document["countries"], shipped))
    ask = tuple(reader.ask(document.get("ask") or ()))
    extras = {change.component for change in ask} - COMPONENT_SET
    own = OwnLayout(
        key=document["key"],
        title=document["title"],
        countries=countries,
        forms=tuple(dict.fromkeys(document.get("forms") or ())),
        ask=ask,
        lines=tuple(reader.lines(document.get("lines") or (), extras)),
    )
    return own, reader.problems


class _Reader:
    """Reads one document and gathers its problems."""

    def __init__(self) -> None:
        self.problems: list[Problem] = []

    def countries(self, codes: Iterable[str], shipped: LayoutLibrary) -> Iterator[str]:
        known = [layout.country_code for layout in shipped]
        seen: set[str] = set()
        for index, code in enumerate(codes):
            if code not in known:
                self._say(f"/countries/{index}", unknown_country_detail(code, known))
            elif code in seen:
                self._say(f"/countries/{index}", f"{code} is named twice.")
            else:
                seen.add(code)
                yield code

    def ask(self, entries: Iterable[Document]) -> Iterator[ComponentChange]:
        seen: set[str] = set()
        for index, entry in enumerate(entries):
            name = self._name(entry, f"/ask/{index}")
            if name is None:
                continue
            if name in seen:
                self._say(f"/ask/{index}", f"{name} is changed by an entry above; join the two.")
                continue
            seen.add(name)
            change = ComponentChange(
                index=index,
                component=name,
                labels={tag: text for tag, text in (entry.get("label") or {}).items() if text},
                required=entry.get("required"),
                hidden=bool(entry.get("hidden")),
                add=bool(entry.get("add")) or entry.get("extra") is not None,
                first=bool(entry.get("first")),
                after=entry.get("after"),
            )
            if self._agrees(change):
                yield change

    def _name(self, entry: Document, pointer: str) -> str | None:
        component, extra = entry.get("component"), entry.get("extra")
        if (component is None) == (extra is None):
            self._say(pointer, "Name either a component, or an extra of your own.")
        elif component is not None:
            if component in COMPONENT_SET and component not in _NEVER_ASKED:
                return str(component)
            known = [name for name in COMPONENTS if name not in _NEVER_ASKED]
            detail = unknown_name_detail(
                "component to ask for", component, nearest_names(component, known)
            )
            self._say(f"{pointer}/component", detail)
        elif extra in COMPONENT_SET:
            self._say(f"{pointer}/extra", f"{extra} is a component: write component: {extra}.")
        elif not _EXTRA.fullmatch(str(extra)):
            self._say(
                f"{pointer}/extra",
                f"{extra!r} cannot name an extra: use 2 to 31 small letters and _, "
                "beginning with a letter.",
            )
        elif not (entry.get("label") or {}).get("en"):
            self._say(f"{pointer}/label", f"Give {extra} a label in English (en).")
        else:
            return str(extra)
        return None

    def _agrees(self, change: ComponentChange) -> bool:
        """Whether an entry does not contradict itself."""
        pointer = f"/ask/{change.index}"
        strange = [tag for tag in change.labels if not _LANGUAGE.fullmatch(tag)]
        if strange:
            detail = f"{strange[0]!r} is not a language tag (BCP 47), such as en or pt-BR."
            self._say(f"{pointer}/label", detail)
        elif change.hidden and change.required:
            detail = f"{change.component} is required and hidden: nobody could ever give it."
            self._say(f"{pointer}/hidden", detail)
        elif change.hidden and change.add:
            self._say(f"{pointer}/hidden", f"{change.component} is added and hidden at once.")
        elif change.first and change.after:
            self._say(f"{pointer}/after", "Say either first or after, not both.")
        elif change.after == change.component:
            self._say(f"{pointer}/after", f"{change.component} cannot come after itself.")
        else:
            return True
        return False

    def lines(self, entries: Iterable[Document], extras: Collection[str]) -> Iterator[LineChange]:
        for index, entry in enumerate(entries):
            pointer = f"/lines/{index}"
            acts = [act for act in ("add", "change", "drop") if entry.get(act) is not None]
            if len(acts) != 1:
                self._say(pointer, "Say one of: add, change, drop.")
                continue
            change = self._line_change(entry, index, acts[0], extras)
            if change is not None:
                yield change

    def _line_change(
        self, entry: Document, index: int, act: str, extras: Collection[str]
    ) -> LineChange | None:
        pointer = f"/lines/{index}"
        if (act == "change") != (entry.get("to") is not None):
            self._say(pointer, "A changed line, and only that, says what it becomes (to).")
            return None
        if act != "add" and (entry.get("first") or entry.get("after") is not None):
            self._say(pointer, "Only an added line has a place (first, after).")
            return None
        line = self._line(entry[act], f"{pointer}/{act}", extras)
        to, after = line, None
        if act == "change":
            to = self._line(entry["to"], f"{pointer}/to", extras)
        if entry.get("after") is not None:
            after = self._line(entry["after"], f"{pointer}/after", extras)
            if after is None:
                return None
        if line is None or to is None:
            return None
        return LineChange(
            index=index,
            act=act,  # type: ignore[arg-type]  # one of the three, as lines() saw to
            line=line,
            to=to,
            script=entry.get("script") or "",
            first=bool(entry.get("first")),
            after=after,
        )

    def _line(self, text: str, pointer: str, extras: Collection[str]) -> Line | None:
        try:
            return read_line(text.strip(), extras)
        except NotationError as error:
            self._say(pointer, str(error))
            return None

    def _say(self, pointer: str, detail: str) -> None:
        self.problems.append(Problem(pointer, detail))
