"""What mapping costs, and how well addresses are fitted to lines.

    python -m bench.mapping --gazetteer var/gazetteer --addresses 100000

On the reference data of a demo, as it lies on disk. Three parts:

- a fill by ten rules, one component a field, in processor time; beside it `string.Template`, which
  puts the same ten components into one text;
- coverage of so many addresses by ten rules in this process, with what is lost;
- addresses of all countries fitted to three lines of 35 capitals: how many are abbreviated or lose
  something; and for a sample of those every other way to break them, tried without mercy.
"""

from __future__ import annotations

import argparse
import time
from collections.abc import Iterator
from itertools import combinations, cycle, islice, pairwise
from pathlib import Path
from string import Template

from anchorline.core.abbreviations import short_form
from anchorline.core.faults import Faults
from anchorline.core.gazetteer import Gazetteer
from anchorline.core.layouts import shipped_layouts
from anchorline.core.mapping import KnownAddress, Receiver, Rule, fill, mapping_fills, read_rules
from anchorline.core.mapping.coverage import STATES, Coverage, Sampled, cover
from anchorline.core.mapping.packing import Part, pack
from anchorline.core.mapping.rules import Surroundings
from anchorline.store.edition_files import EditionFiles

LAYOUTS = shipped_layouts()
NAMES = (
    "organisation", "unit", "building", "number", "street", "po_box", "district", "town",
    "region", "postcode",
)  # fmt: skip
TEN = [{"components": [name], "into": f"f_{name}"} for name in NAMES]
LINES, WIDTH = 3, 35
FIT = [
    {
        "fit": {"into": ["line_1", "line_2", "line_3"], "width": WIDTH},
        "changes": ["ascii", "upper"],
    },
    {"components": ["postcode"], "into": "postcode"},
    {"components": ["country_code"], "into": "country"},
]


def main() -> None:
    """Reads the addresses, measures, prints."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawTextHelpFormatter
    )
    parser.add_argument("--gazetteer", type=Path, default=Path("var/gazetteer"))
    parser.add_argument("--addresses", type=int, default=100_000)
    parser.add_argument("--sample", type=int, default=500)
    asked = parser.parse_args()
    known = list(_known(asked.gazetteer))
    print(f"{len(known):,} addresses of {len({k.layout.country_code for k in known})} countries\n")
    _fills(known)
    _coverage(known, asked.addresses)
    _fit(known, asked.sample)


def _known(folder: Path) -> Iterator[KnownAddress]:
    files = EditionFiles(folder)
    places = [path for path in sorted(folder.glob("*/*")) if path.name.isdecimal()]
    editions = [files.open(path.parent.name, int(path.name)) for path in places]
    gazetteer = Gazetteer(editions, LAYOUTS)
    for code in sorted(gazetteer.countries):
        for address in gazetteer.spread(code, 10**9):
            yield KnownAddress.of(address, LAYOUTS)


def _fills(known: list[KnownAddress]) -> None:
    rules, receivers = _mapping(TEN)
    template = Template(" ".join(f"${name}" for name in NAMES))
    empty = dict.fromkeys(NAMES, "")
    ours, theirs = [], []
    for one in islice(cycle(known[:: max(1, len(known) // 5000)]), 5000):
        began = time.process_time_ns()
        fill(rules, receivers, one)
        ours.append((time.process_time_ns() - began) / 1e6)
        began = time.process_time_ns()
        template.substitute(empty | one.components)
        theirs.append((time.process_time_ns() - began) / 1e6)
    print("a fill by ten rules, processor time")
    _say("fill", ours)
    _say("string.Template", theirs)
    print()


def _coverage(known: list[KnownAddress], addresses: int) -> None:
    rules, receivers = _mapping(TEN)
    began = time.perf_counter()
    sample = (Sampled("", "", one) for one in islice(cycle(known), addresses))
    *_, coverage = cover(rules, receivers, sample)
    seconds = time.perf_counter() - began
    states = ", ".join(f"{coverage.total(state):,} {state}" for state in STATES)
    print(f"coverage of {addresses:,} addresses by ten rules: {seconds:.1f} s ({states})\n")


def _fit(known: list[KnownAddress], sample: int) -> None:
    rules, receivers = _mapping(FIT)
    began, coverage = time.perf_counter(), Coverage()
    short: list[KnownAddress] = []
    for one in known:
        made = fill(rules, receivers, one)
        coverage.add(Sampled("", "", one), made, receivers)
        if any(step.kind in ("shortened", "lost") for step in made.trace):
            short.append(one)
    seconds = time.perf_counter() - began
    states = ", ".join(f"{coverage.total(state):,} {state}" for state in STATES)
    print(f"fitted to {LINES} lines of {WIDTH} capitals: {seconds:.1f} s ({states})")
    print(f"  {len(short):,} of {len(known):,} addresses are abbreviated or lose something")
    better = worse = 0
    tried = short[:: max(1, len(short) // sample)][:sample]
    for one in tried:
        parts, _notes = rules[0].source._parts(  # what the packer is given
            rules[0], one, Surroundings(receivers, frozenset({"postcode", "country_code"}))
        )
        packed = pack(parts, LINES, WIDTH, lambda word, one=one: _short(word, one))
        fewest = fewest_abbreviations(parts, one)
        if packed.lost:
            better += fewest is not None
        elif fewest is not None:
            better += len(packed.abbreviated) > fewest
        else:
            worse += 1  # it fits only with a part torn in two
    print(f"  {len(tried)} of these broken in every other way: {better} could be done better")
    if worse:
        print(f"  {worse} of these fit only with a part in two lines")


def fewest_abbreviations(parts: list[Part], one: KnownAddress) -> int | None:
    """The fewest words that have to be abbreviated, over every way to break between parts.

    None: no way holds everything.
    """
    places = [n for n in range(1, len(parts)) if not parts[n].is_bound]
    best: int | None = None
    for breaks in range(LINES):
        for chosen in combinations(places, breaks):
            ends = (0, *chosen, len(parts))
            counts = [_needed(parts[a:b], one) for a, b in pairwise(ends)]
            if None not in counts:
                total = sum(count or 0 for count in counts)
                best = total if best is None else min(best, total)
    return best


def _needed(line: list[Part], one: KnownAddress) -> int | None:
    """The fewest words of a line that have to be abbreviated: every set of them is tried."""
    text = "".join(("" if n == 0 else part.before) + part.text for n, part in enumerate(line))
    words = text.split(" ")
    savings = [len(w) - len(s) for w in words if (s := _short(w, one))]
    for count in range(len(savings) + 1):
        if any(len(text) - sum(some) <= WIDTH for some in combinations(savings, count)):
            return count
    return None


def _short(word: str, one: KnownAddress) -> str:
    return short_form(word, one.layout.languages)


def _mapping(entries: list[dict[str, object]]) -> tuple[tuple[Rule, ...], dict[str, Receiver]]:
    faults = Faults()
    rules = read_rules(entries, "", faults)
    assert not faults.problems, faults.problems
    return rules, {key: Receiver(key, key, 60) for key in mapping_fills(entries)}


def _say(name: str, times: list[float]) -> None:
    times = sorted(times)
    middle, high = times[len(times) // 2], times[int(len(times) * 0.95)]
    print(f"  {name:<16} p50 {middle:6.3f} ms   p95 {high:6.3f} ms")


if __name__ == "__main__":
    main()
