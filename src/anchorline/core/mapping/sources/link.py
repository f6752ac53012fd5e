"""A record of another form that has what the address says: found, or made with the record."""

from __future__ import annotations

from dataclasses import dataclass

from ...faults import Faults
from ...formula import Budget
from ..known import KnownAddress
from ..rules import FoundRecord, Note, Put, Receiver, Rule, Surroundings
from .kind import SOURCES, Entry, ReadRules, SourceKind, named_into, nothing


@dataclass(frozen=True, slots=True)
class Link:
    """How the record is found, and what a new one is made of.

    Attributes:
        form: the key of the other form.
        find: rules into fields of the other form; all of their texts have to be there.
        creates: whether a record is made where none is found.
        more: further rules into fields of a new record.
    """

    form: str
    find: tuple[Rule, ...]
    creates: bool = False
    more: tuple[Rule, ...] = ()

    @property
    def takes(self) -> tuple[str, ...]:
        """The components and facts by which it is found."""
        return tuple(dict.fromkeys(name for rule in self.find for name in rule.source.takes))

    def texts(self, known: KnownAddress, rules: tuple[Rule, ...], budget: Budget) -> dict[str, str]:
        """What rules write into fields of the other form, without what is empty."""
        found: dict[str, str] = {}
        keys = (key for rule in rules for key in rule.into)
        around = Surroundings({key: Receiver(key, key) for key in keys}, budget=budget)
        for rule in rules:
            for put in rule.source.put(rule, known, around):
                if put.text:
                    found.setdefault(put.field, put.text)
        return found

    def new_record(self, known: KnownAddress, budget: Budget) -> dict[str, str]:
        """The values of a new record."""
        return self.texts(known, self.more, budget) | self.texts(known, self.find, budget)

    takes_rest = False

    def put(self, rule: Rule, known: KnownAddress, around: Surroundings) -> list[Put]:
        """The id of the record; empty where it is made later, or there is none."""
        (key,) = rule.into
        texts = self.texts(known, self.find, around.budget)
        if not texts:
            return [Put(key, "", (), nothing("nothing to look for").notes)]
        there = tuple(name for name in self.takes if known.given.values.get(name) is not None)
        named = ", ".join(texts.values())
        found = FoundRecord(None, "") if around.find is None else around.find(self.form, texts)
        if found is not None and found.id is None:
            return [Put(key, "", there, (Note("looked_up_later", "looked up when it is sent"),))]
        if found is not None and found.id is not None:
            note = Note("linked", f"linked to {found.label}")
            return [Put(key, found.id, there, (note,), found.label)]
        if self.creates:
            note = Note("made", f"{named!r} is not there yet and is made with this record")
            return [Put(key, "", there, (note,), named)]
        note = Note("not_linked", f"there is no record for {named!r}", is_warning=True)
        return [Put(key, "", (), (note,))]


def _read(entry: Entry, pointer: str, faults: Faults, rules: ReadRules) -> Link:
    link = entry["link"]
    find = rules(link.get("find") or (), f"{pointer}/link/find", faults)
    more = rules(link.get("more") or (), f"{pointer}/link/more", faults)
    for name, inner in (("find", find), ("more", more)):
        for one in inner:
            for key in one.into:
                faults.key(key, f"{pointer}/link/{name}/{one.at}/into")
    if not link.get("find"):
        faults.say(f"{pointer}/link/find", "Say by which field of the other form it is found.")
    if link.get("more") and not link.get("creates"):
        detail = "Leave it out: no record is made. To make one, say creates: true."
        faults.say(f"{pointer}/link/more", detail)
    return Link(link["form"], find, bool(link.get("creates")), more)


SOURCES["link"] = SourceKind("record of another form", _read, named_into)
