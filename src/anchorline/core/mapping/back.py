"""Back again: from what stands in receivers to the components that a mapping made it from.

What a rule wrote is taken apart where that can be done for certain, and read as an address of its
country where it cannot; then the address is filled again, and what does not come out the same is
named. Filling an address and going back is the same address where the mapping loses nothing: each
component alone in its field, or joined by a sign that stands in none of them.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from ..address import Components, normalize_components
from ..checking import components_from_text
from ..layouts import Layout, LayoutLibrary
from .fill import fill
from .known import KnownAddress
from .rules import Receivers, Rule
from .sources import Components as ComponentSource
from .sources import CountryLines, Fit

# Changes that another spelling of the same value cannot be told from.
_TOLD_AGAIN = frozenset({"country", "region"})


@dataclass(frozen=True, slots=True)
class Back:
    """An address that was read from fields.

    Attributes:
        components: canonical, without empty ones.
        differing: keys of the receivers that hold something else when it is filled again.
    """

    components: Components
    differing: tuple[str, ...]


def back(
    mapping: Sequence[Rule],
    receivers: Receivers,
    values: Mapping[str, str],
    layout: Layout,
    layouts: LayoutLibrary | None = None,
) -> Back:
    """The address that stands in receivers.

    Args:
        values: the receivers' texts.
        layout: of the country that the address is in.
    """
    there = {key: text.strip() for key, text in values.items() if text.strip()}
    found: Components = {}
    for rule in mapping:
        for name, text in _apart(rule, there, layout):
            found.setdefault(name, text)
    read = _read_lines(mapping, there, layout, found)
    found = normalize_components({**read, **found})
    known = KnownAddress(found, layout, layouts=layouts)
    again = fill(mapping, receivers, known).values
    differing = tuple(key for key, text in again.items() if not _same(text, there.get(key, "")))
    return Back(found, differing)


def _apart(rule: Rule, there: Mapping[str, str], layout: Layout) -> Iterator[tuple[str, str]]:
    """The components of a rule's text, where they can be told apart."""
    source = rule.source
    if not isinstance(source, ComponentSource):
        return
    text = there.get(rule.into[0], "")
    changes = {change.kind.name for change in rule.changes if not change.kind.keeps}
    if not text or changes - _TOLD_AGAIN:
        return
    names = [name for name in source.joined.of if isinstance(name, str)]
    if len(names) < len(source.joined.of):
        return
    if len(names) == 1:
        yield names[0], _told(names[0], text, changes, layout)
        return
    joint = source.joined.join
    pieces = text.split(joint) if joint.strip() else []
    if len(pieces) == len(names):
        yield from zip(names, pieces, strict=True)


def _told(name: str, text: str, changes: set[str], layout: Layout) -> str:
    """A country or region by the name that addresses have it by."""
    if name == "region" and "region" in changes:
        region = layout.region_by_code(text.rpartition("-")[2]) or layout.region_by_name(text)
        return region.name if region is not None else text
    if name == "country" and "country" in changes:
        return layout.name
    return text


def _read_lines(
    mapping: Sequence[Rule], there: Mapping[str, str], layout: Layout, found: Components
) -> Components:
    """What texts that hold several parts say of the components that are not known yet."""
    texts: list[str] = []
    for rule in mapping:
        source = rule.source
        is_joined = isinstance(source, ComponentSource) and (
            len(source.takes) > 1 and not set(source.takes) <= found.keys()
        )
        if is_joined or isinstance(source, Fit | CountryLines):
            texts += [there[key] for key in rule.into if key in there]
    if not texts:
        return {}
    known = [found[name] for name in ("postcode",) if name in found]
    return components_from_text(layout, ", ".join([*dict.fromkeys(texts), *known]))


def _same(one: str, other: str) -> bool:
    """Whether two texts differ in their case and blanks at most."""
    return " ".join(one.split()).casefold() == " ".join(other.split()).casefold()
