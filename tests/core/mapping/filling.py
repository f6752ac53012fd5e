"""Filling receivers by rules as documents have them."""

from anchorline.core.address import Facts
from anchorline.core.faults import Faults
from anchorline.core.layouts import shipped_layouts
from anchorline.core.mapping import KnownAddress, Receiver, fill, mapping_fills, read_rules

LAYOUTS = shipped_layouts()


def rules_of(entries):
    faults = Faults()
    rules = read_rules(entries, "", faults)
    assert not faults.problems, faults.problems
    return rules


def problems_of(entries):
    """What is wrong with rules, by pointer."""
    faults = Faults()
    read_rules(entries, "", faults)
    return {problem.pointer: problem.detail for problem in faults.problems}


def address(components, country="GB", *, identifier="", **facts):
    known = Facts(**facts) if facts else None
    layout = LAYOUTS.require(country)
    return KnownAddress(components, layout, known, identifier, layouts=LAYOUTS)


def filled(entries, known, before=None, find=None, several_lines=(), **lengths):
    """What rules make of an address; receivers take 200 characters where nothing else is said."""
    keys = mapping_fills(entries)
    receivers = {
        key: Receiver(
            key, key.capitalize(), lengths.get(key, 200), several_lines=key in several_lines
        )
        for key in keys
    }
    return fill(rules_of(entries), receivers, known, before, find)


def warned(made):
    return [one.detail for one in made.warnings]
