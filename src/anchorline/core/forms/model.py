"""The form model: fields, slots, and the order in which they stand on the form."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from ..formula import Formula
from ..mapping import Rule
from .public import Public
from .slot_settings import SlotSettings

FORM_KINDS: tuple[str, ...] = ("record", "web")
# How a form is filled: all at once, page by page, or one question at a time.
FORM_STYLES: tuple[str, ...] = ("whole", "pages", "questions")


@dataclass(frozen=True, slots=True)
class Option:
    """One choice: what is kept and what is shown."""

    value: str
    label: str


@dataclass(frozen=True, slots=True)
class PhoneSettings:
    """Of which countries phone numbers are, and how they are shown.

    Attributes:
        country: chosen at first, ISO 3166-1 alpha-2; None: that of `slot`, or the browser's.
        slot: key of the address whose country is chosen at first.
        only: these countries alone; empty for all.
        without: countries that are left out.
        first: countries before the others in the list.
        national: whether numbers are shown as inside their country.
    """

    country: str | None = None
    slot: str | None = None
    only: tuple[str, ...] = ()
    without: tuple[str, ...] = ()
    first: tuple[str, ...] = ()
    national: bool = False


@dataclass(frozen=True, slots=True)
class Field:
    """One input, or what stands between inputs: a heading, a note, a page or section that begins.

    Attributes:
        key: unique in the form.
        type: the name of a type of field.
        label: what people read; empty for a part that takes its label from the layout.
        required: whether it must be filled while it is shown.
        help: a sentence below it.
        options: for a choice.
        placeholder: an example that stands in it while it is empty.
        max_length: characters that it takes, or None where that has no meaning.
        least, most: limits of a number, or of a date in ISO 8601.
        decimals: digits that a number has behind the point, at most.
        unit: what stands behind a number.
        shown_when: when it is shown; None for always.
        required_when: when it must be filled although `required` does not say so.
        formula: of a formula field: what it comes to.
        hidden: of a formula field: whether it is worked out without being seen.
        default: what stands in it at first, as it is kept; None for nothing.
        form: of a link: the key of the form whose records can be chosen.
        shows: of a link: the key of the field by which they are found; None for their labels.
        searches: of a link: keys of other fields that are searched as well and shown behind it.
        open_to_all: of a link on a web form: whether anyone who fills it may look records up.
        makes_new: of a link: whether a new record can be made where none is found.
        phone: of a phone: countries and how numbers are shown.
        columns: of a page or section: how many it has beside each other.
        foldable: of a section: whether it can be folded away.
        folded: of a foldable section: whether it is at first.
        component: for a part: the component it stands for, or None.
        slot: for a part: the key of the slot that brings it, or None.
    """

    key: str
    type: str = "text"
    label: str = ""
    required: bool = False
    help: str = ""
    options: tuple[Option, ...] = ()
    placeholder: str = ""
    max_length: int | None = None
    least: float | str | None = None
    most: float | str | None = None
    decimals: int | None = None
    unit: str = ""
    shown_when: Formula | None = None
    required_when: Formula | None = None
    formula: Formula | None = None
    hidden: bool = False
    default: object = None
    form: str | None = None
    shows: str | None = None
    searches: tuple[str, ...] = ()
    open_to_all: bool = False
    makes_new: bool = False
    phone: PhoneSettings = field(default_factory=PhoneSettings)
    columns: int | None = None
    foldable: bool = False
    folded: bool = False
    component: str | None = None
    slot: str | None = None


@dataclass(frozen=True, slots=True)
class Slot:
    """One address captured on the form.

    Attributes:
        key: unique among the form's slots and fields.
        label: heading of the address.
        countries: ISO 3166-1 alpha-2 codes that can be chosen.
        country: the one chosen at first; None where the language of the browser decides.
        kinds: kinds of suggestions offered; empty for all.
        required: whether an address must be given while the slot is shown.
        help: a sentence below the heading.
        shown_when: when it is shown; None for always.
        required_when: when an address must be given although `required` does not say so.
        settings: how it looks, what is offered in it, what it does.
        parts: the fields that the slot brings.
        mapping: rules, in order.
    """

    key: str
    label: str
    countries: tuple[str, ...]
    country: str | None = None
    kinds: tuple[str, ...] = ()
    required: bool = True
    help: str = ""
    shown_when: Formula | None = None
    required_when: Formula | None = None
    settings: SlotSettings = field(default_factory=SlotSettings)
    parts: tuple[Field, ...] = ()
    mapping: tuple[Rule, ...] = ()

    @property
    def only_country(self) -> str | None:
        """The country of an address for which none was named; None: one has to be named."""
        return self.country or (self.countries[0] if len(self.countries) == 1 else None)


@dataclass(frozen=True, slots=True)
class Form:
    """A form.

    Attributes:
        key: unique among forms.
        kind: one of FORM_KINDS.
        title: its heading.
        intro: a paragraph below the heading.
        thanks: what is shown after a record was made.
        items: fields and slots in the order on the form.
        order: keys of all fields and slots, each after those that its formulas speak of.
        style: one of FORM_STYLES.
        keeps_hidden: whether what is hidden is kept with a record all the same.
        public: how a web form is open to everybody.
    """

    key: str
    kind: str
    title: str
    intro: str
    thanks: str
    items: tuple[Field | Slot, ...]
    order: tuple[str, ...] = ()
    style: str = "whole"
    keeps_hidden: bool = False
    public: Public = field(default_factory=Public)
    _items: dict[str, Field | Slot] = field(init=False, repr=False, compare=False)
    _within: dict[str, tuple[str, ...]] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        items: dict[str, Field | Slot] = {}
        within: dict[str, tuple[str, ...]] = {}
        page: tuple[str, ...] = ()
        section: tuple[str, ...] = ()
        for item in self.items:
            items[item.key] = item
            if isinstance(item, Slot):
                items |= {part.key: part for part in item.parts}
                within |= {part.key: (*page, *section, item.key) for part in item.parts}
            elif item.type == "page":
                page, section = (item.key,), ()
                continue
            elif item.type == "section":
                within[item.key], section = page, (item.key,)
                continue
            within[item.key] = (*page, *section)
        object.__setattr__(self, "_items", items)
        object.__setattr__(self, "_within", within)
        known = [key for key in self.order if key in self._items]
        placed = set(known)
        later = [key for key in self._items if key not in placed]
        object.__setattr__(self, "order", (*known, *later))

    @property
    def slots(self) -> tuple[Slot, ...]:
        """The slots, in the order on the form."""
        return tuple(item for item in self.items if isinstance(item, Slot))

    def all_fields(self) -> Iterator[Field]:
        """Every field, the parts of slots among them, in the order on the form."""
        for item in self.items:
            if isinstance(item, Slot):
                yield from item.parts
            else:
                yield item

    def within(self, key: str) -> tuple[str, ...]:
        """Keys of the page, section and slot that something stands in, the outermost first."""
        return self._within.get(key, ())

    def item(self, key: str) -> Field | Slot:
        """The field or slot with a key; KeyError where there is none."""
        return self._items[key]

    def field(self, key: str) -> Field:
        """The field with a key; KeyError where there is none."""
        found = self._items[key]
        if isinstance(found, Slot):
            raise KeyError(key)
        return found

    def slot(self, key: str) -> Slot | None:
        """The slot with a key, or None."""
        return next((slot for slot in self.slots if slot.key == key), None)
