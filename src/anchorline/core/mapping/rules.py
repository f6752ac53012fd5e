"""A mapping rule: what is taken of an address, how it is changed, and where it goes."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Protocol

from ..formula import Budget, Formula
from .changes import Change, Context
from .known import KnownAddress

# What happens where an earlier rule has written a field already.
IF_WRITTEN: dict[str, str] = {
    "append": "put it behind what is there",
    "instead": "write it instead of what is there",
    "leave": "leave what is there",
}


def _takes_all(_text: str) -> str:
    return ""


@dataclass(frozen=True, slots=True)
class Receiver:
    """What a rule can write into: a field of a form, an input of a page, a field of a program.

    Attributes:
        length: characters that it takes; None for any number.
        several_lines: whether a text in it may have several lines.
        type: a name of a type of field.
        component: that it stands for, where it is a part of an address.
        slot: the slot whose part it is.
        form: of a link, the key of the other form.
        is_filled: whether anything can be written into it.
        refuses: from a text to why it cannot be taken, a sentence; empty where it can.
    """

    key: str
    label: str
    length: int | None = None
    type: str = "text"
    component: str | None = None
    slot: str | None = None
    form: str | None = None
    is_filled: bool = True
    several_lines: bool = False
    refuses: Callable[[str], str] = field(default=_takes_all, compare=False)


Receivers = Mapping[str, Receiver]


@dataclass(frozen=True, slots=True)
class Note:
    """Something that happened while a text was made or written.

    Attributes:
        kind: a key of TRACE_KINDS.
        detail: a sentence without the receiver's name.
        is_warning: whether a person should know it.
        sources: names that it is about; empty for those of the text.
    """

    kind: str
    detail: str
    is_warning: bool = False
    sources: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Put:
    """A text on its way into a receiver.

    Attributes:
        field: the receiver's key.
        text: empty where there is nothing to write.
        sources: names whose values are in the text.
        notes: what was done to it.
        label: of a link: what people know the record by.
    """

    field: str
    text: str
    sources: tuple[str, ...] = ()
    notes: tuple[Note, ...] = ()
    label: str = ""


@dataclass(frozen=True, slots=True)
class FoundRecord:
    """A record of another form.

    Attributes:
        id: None where whoever fills must not know which it is.
    """

    id: str | None
    label: str


class FindRecord(Protocol):
    """Finds the record of a form whose fields have some texts, exactly or else folded."""

    def __call__(self, form: str, texts: Mapping[str, str], /) -> FoundRecord | None: ...


@dataclass(frozen=True, slots=True)
class Surroundings:
    """What a source may know beside the address.

    Attributes:
        taken: components that other rules take, or have taken, for sources that take the rest.
        find: None where records of other forms cannot be looked up.
        budget: the steps that are left to the formulas of the whole mapping.
    """

    receivers: Receivers
    taken: frozenset[str] = frozenset()
    find: FindRecord | None = None
    budget: Budget = field(default_factory=Budget, compare=False)


class Source(Protocol):
    """What a rule takes; one kind is one file in `sources`."""

    @property
    def takes(self) -> tuple[str, ...]:
        """Names of the components and facts that it speaks of."""
        ...

    @property
    def takes_rest(self) -> bool:
        """Whether it takes what no other rule does, and so has to know what those take."""
        ...

    def put(self, rule: Rule, known: KnownAddress, around: Surroundings) -> list[Put]:
        """What goes into the receivers of the rule, one entry for each of them."""
        ...


@dataclass(frozen=True, slots=True)
class Rule:
    """One rule.

    Attributes:
        source: what it takes.
        into: keys of the receivers that it writes.
        changes: made in this order.
        when: it applies where this is true; None for always.
        otherwise: whether it applies only where the rules above it did not, up to the nearest one
            without `otherwise`.
        if_written: a key of IF_WRITTEN; empty where nothing is said.
        between: what stands between a text that is there and one that is put behind it.
        keeps_place: a text that is empty is put behind what is there as well: its line stays.
        at: its place in the document, counted from 0; -1 for what stands in none.
    """

    source: Source
    into: tuple[str, ...]
    changes: tuple[Change, ...] = ()
    when: Formula | None = None
    otherwise: bool = False
    if_written: str = ""
    between: str = " "
    keeps_place: bool = False
    at: int = -1


def changed(
    text: str, changes: Sequence[Change], known: KnownAddress, limit: int | None
) -> tuple[str, list[Note]]:
    """A text with changes made to it, and what is to be known of that."""
    if not text or not changes:
        return text, []
    context = Context(known.layout, known.components, limit, known.layouts)
    notes: list[Note] = []
    for change in changes:
        made = change.apply(text, context)
        if made.lost:
            detail = f"shortened to {len(made.text)} characters, without {made.lost!r}"
            notes.append(Note("shortened", detail, is_warning=True))
        elif made.shortened:
            notes.append(Note("shortened", f"abbreviated to {made.text!r}"))
        if made.warning:
            notes.append(Note("noted", made.warning, is_warning=True))
        if made.text != text and not made.shortened:
            notes.append(Note("changed", f"{change.kind.title}: {made.text}"))
        text = made.text
    return text, notes
