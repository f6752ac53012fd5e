"""Checking a batch of values: its usable rows, and everything that was noticed."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from itertools import compress

from ..gazetteer.rows import COMPONENT_COLUMNS, TEXT_COLUMNS, RowBlock
from ..layouts import STANDS_FOR_STREET, Layout, LayoutLibrary, spelt_postcode
from .columns import (
    Fault,
    action_column,
    country_column,
    id_faults,
    text_column,
    use_column,
)
from .findings import BadRow, Findings, Sample
from .positions import PositionChecker, read_degrees
from .source import ACTION_COLUMN, Batch

# What says where an address is when it has no street.
_PAIRS_REMEMBERED = 200_000


@dataclass(slots=True)
class CheckedBatch:
    """What became of a batch.

    Attributes:
        block: the usable rows.
        lines: the line of each of them.
        drops: ids to take out, where the file is one of changes; with `drop_lines`.
        bad: the rows left out.
        findings: what was noticed, the rows left out included.
        last_line: how far the file was read.
    """

    block: RowBlock
    lines: list[int]
    drops: list[str] = field(default_factory=list)
    drop_lines: list[int] = field(default_factory=list)
    bad: list[BadRow] = field(default_factory=list)
    findings: Findings = field(default_factory=Findings)
    last_line: int = 0


class RowChecker:
    """Checks the batches of one file.

    Args:
        layouts: those of the countries that rows may be of.
        changes: whether the file is one of changes, whose rows have an action.
    """

    def __init__(self, layouts: LayoutLibrary, *, changes: bool = False) -> None:
        self._layouts, self._changes = layouts, changes
        self._columns = {name: text_column() for name in (*COMPONENT_COLUMNS, "language")}
        self._columns["country_code"] = country_column(layouts)
        self._columns["use"] = use_column()
        self._action = action_column()
        self._positions = PositionChecker(layouts)
        self._postcode = lru_cache(maxsize=_PAIRS_REMEMBERED)(self._read_postcode)
        self._region = lru_cache(maxsize=_PAIRS_REMEMBERED)(self._region_finding)

    def check(self, batch: Batch) -> CheckedBatch:
        """The usable rows of a batch, and the findings."""
        raw: dict[str, Sequence[str]] = dict(
            zip(batch.columns, zip(*batch.values, strict=True), strict=True)
            if batch.values
            else dict.fromkeys(batch.columns, ())
        )
        count = len(batch.values)
        ids = list(map(str.strip, raw["id"]))
        faults: dict[int, tuple[str, Fault]] = {
            place: ("id", fault) for place, fault in id_faults(ids).items()
        }
        texts: dict[str, Sequence[str]] = {"id": ids}
        for name, column in self._columns.items():
            if name in raw and (any(raw[name]) or name == "country_code"):
                texts[name] = column.read(raw[name])
                if column.faults:
                    _note_faults(name, raw[name], column.faults, faults)
        dropped = self._dropped(raw, faults)
        latitudes, longitudes = read_degrees(raw, count, faults)
        self._note_empty(texts, count, dropped, faults)
        findings = Findings()
        bad = [*batch.bad, *_bad_rows(batch, ids, faults)]
        for row in bad:
            findings.add_bad(row)
        gone = [i for i in sorted(dropped) if i not in faults]
        kept = [i for i in range(count) if i not in faults and i not in dropped]
        block, lines = RowBlock(texts, latitudes, longitudes), batch.lines
        if len(kept) < count:
            block, lines = block.take(kept), [lines[i] for i in kept]
            raw = {name: [raw[name][i] for i in kept] for name in self._columns if name in raw}
        if kept:
            self._notice(block, raw, lines, findings)
        return CheckedBatch(
            block=block,
            lines=lines,
            drops=[ids[i] for i in gone],
            drop_lines=[batch.lines[i] for i in gone],
            bad=sorted(bad, key=lambda row: row.line),
            findings=findings,
            last_line=batch.last_line,
        )

    def _dropped(
        self, raw: dict[str, Sequence[str]], faults: dict[int, tuple[str, Fault]]
    ) -> frozenset[int]:
        """The places of rows that only name an address to take out."""
        if not self._changes:
            return frozenset()
        actions = self._action.read(raw[ACTION_COLUMN])
        _note_faults(ACTION_COLUMN, raw[ACTION_COLUMN], self._action.faults, faults)
        return frozenset(i for i, action in enumerate(actions) if action == "drop")

    def _note_empty(
        self,
        texts: dict[str, Sequence[str]],
        count: int,
        dropped: frozenset[int],
        faults: dict[int, tuple[str, Fault]],
    ) -> None:
        """Faults for the rows that hold no component at all."""
        columns = [texts[name] for name in COMPONENT_COLUMNS if name in texts]
        if any(map(all, columns)):
            return
        filled = map(any, zip(*columns, strict=True)) if columns else [False] * count
        for i in compress(range(count), (not f for f in filled)):
            if i not in dropped:
                faults.setdefault(i, ("street", ("no-component", "the row has no component")))

    def _notice(
        self,
        block: RowBlock,
        raw: dict[str, Sequence[str]],
        lines: Sequence[int],
        findings: Findings,
    ) -> None:
        """Adds what is odd about usable rows, and spells their postcodes as the country does."""
        ids, texts = block.texts["id"], block.texts

        def note(
            name: str, places: Iterable[int], column: str, value: Callable[[int], str]
        ) -> None:
            where = list(places)
            samples = (Sample(lines[i], ids[i], column, value(i)) for i in where)
            findings.add_many(name, len(where), samples)

        nothing = [""] * len(block)
        countries = texts["country_code"]
        if "postcode" in texts:
            spelt = list(map(self._postcode, countries, texts["postcode"]))
            texts["postcode"] = [postcode for postcode, _ in spelt]
            wrong = (i for i, (_, fits) in enumerate(spelt) if not fits)
            note("postcode-form", wrong, "postcode", lambda i: texts["postcode"][i])
        places = [texts.get(name, nothing) for name in ("region", "region_code", "town")]
        regions = list(map(self._region, countries, *places))
        for name in {"unknown-region", "swapped-town"}.intersection(regions):
            there = (i for i, found in enumerate(regions) if found == name)
            note(name, there, "region", lambda i: " / ".join(p[i] for p in places if p[i]))
        stands = [texts[name] for name in STANDS_FOR_STREET if name in texts]
        if not any(map(all, stands)):
            bare = [not any(values) for values in zip(*stands, strict=True)] or [True] * len(block)
            note("no-street", compress(range(len(block)), bare), "street", lambda _: "")
        for name, column in self._columns.items():
            if column.suspects and name in raw:
                odd = [i for i, v in enumerate(raw[name]) if v in column.suspects]
                note("double-encoding", odd, name, lambda i, name=name: texts[name][i])  # type: ignore[misc]
        for name, where in self._positions.findings(block):
            note(name, where, "latitude", lambda i: f"{block.latitudes[i]}, {block.longitudes[i]}")

    def _read_postcode(self, country: str, postcode: str) -> tuple[str, bool]:
        """A postcode as the country spells it, and whether it is of its masks."""
        layout = self._layouts.require(country)
        if not postcode or not layout.masks:
            return postcode, True
        spelt = spelt_postcode(layout, postcode)
        return (postcode, False) if spelt is None else (spelt, True)

    def _region_finding(self, country: str, region: str, code: str, town: str) -> str:
        """The name of what is odd about a region, or nothing."""
        layout = self._layouts.require(country)
        if not layout.regions or not (region or code):
            return ""
        by_code = layout.region_by_code(code) if code else None
        if by_code is not None or (region and layout.region_by_name(region) is not None):
            return ""
        return "swapped-town" if _is_region(layout, town) else "unknown-region"


def _is_region(layout: Layout, text: str) -> bool:
    return bool(text) and bool(layout.region_by_name(text) or layout.region_by_code(text))


def _note_faults(
    name: str,
    raw: Sequence[str],
    known: dict[str, Fault],
    faults: dict[int, tuple[str, Fault]],
) -> None:
    for place, value in enumerate(raw):
        if value in known:
            faults.setdefault(place, (name, known[value]))


def _bad_rows(
    batch: Batch, ids: Sequence[str], faults: dict[int, tuple[str, Fault]]
) -> Iterable[BadRow]:
    for place, (column, (finding, reason)) in faults.items():
        row = ",".join(batch.values[place])
        yield BadRow(batch.lines[place], ids[place], finding, column, reason, row)


assert set(TEXT_COLUMNS) == {*COMPONENT_COLUMNS, "id", "country_code", "language", "use"}
