"""What can be noticed in reference data: each kind with a name, a count and samples."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass, field
from itertools import islice
from typing import Any

SAMPLES_KEPT = 20
_SAMPLE_LENGTH = 120


@dataclass(frozen=True, slots=True)
class Finding:
    """Something that can be noticed.

    Attributes:
        left_out: whether a row with it is left out; else it is kept as it is.
        title: what it is, for a list.
        advice: what to do about it.
    """

    left_out: bool
    title: str
    advice: str


FINDINGS: Mapping[str, Finding] = {
    "unreadable": Finding(
        True, "The row cannot be read", "Mend the quotes, the number of values or the encoding."
    ),
    "bad-id": Finding(
        True, "The id is missing or cannot be used", "Give every row an id of 1 to 64 characters."
    ),
    "bad-country": Finding(
        True, "The country is not known", "Use the two letters of ISO 3166-1: GB, FR."
    ),
    "control-characters": Finding(
        True, "A value holds control characters", "Take them out where the file is made."
    ),
    "too-long": Finding(True, "A value is too long", "No value may be over 200 characters."),
    "bad-use": Finding(
        True, "The use is not known", "Use residential, business, mixed, public or nothing."
    ),
    "bad-position": Finding(
        True, "The position is not in degrees", "Latitude is -90 to 90, longitude -180 to 180."
    ),
    "no-component": Finding(True, "The row has no part of an address", "Fill it in or drop it."),
    "bad-action": Finding(True, "The action is neither put nor drop", "Write put or drop."),
    "same-id": Finding(
        True,
        "The id stands in the file before, in the same language",
        "Only the first row of an id and language is used.",
    ),
    "nothing-to-drop": Finding(
        True, "There is no address with this id to drop", "Check which edition this changes."
    ),
    "unknown-column": Finding(
        False, "A column is not known and was not read", "See whether its name is misspelt."
    ),
    "same-address": Finding(
        False, "The same address stands there under another id", "Look for a double delivery."
    ),
    "no-street": Finding(
        False, "Neither a street nor anything that stands for one", "See whether it was lost."
    ),
    "outside-country": Finding(
        False, "The position lies outside the country", "Nearest-address answers will be wrong."
    ),
    "swapped-position": Finding(
        False, "Latitude and longitude look swapped", "Swap the two columns and load again."
    ),
    "postcode-form": Finding(
        False, "The postcode is not of a form that the country has", "People will not find it."
    ),
    "unknown-region": Finding(
        False,
        "The country has no such region",
        "Use a name or code that the layout knows. Until then forms note it at the pick.",
    ),
    "swapped-town": Finding(
        False, "Town and region look swapped", "Swap the two columns and load again."
    ),
    "double-encoding": Finding(
        False, "Letters look wrongly decoded (Ã© for é)", "Save the file as UTF-8 only once."
    ),
}


@dataclass(frozen=True, slots=True)
class Sample:
    """One place where something was found; `line` counts the file's lines from 1."""

    line: int
    id: str
    column: str
    value: str


@dataclass(frozen=True, slots=True)
class BadRow:
    """A row that is left out.

    Attributes:
        line: counts the file's lines from 1; of a row of several lines, its last.
        finding: one of FINDINGS.
        column: where it is; empty for the whole row.
        reason: what is wrong with just this row.
        row: what stood there.
    """

    line: int
    id: str
    finding: str
    column: str
    reason: str
    row: str


@dataclass(slots=True)
class FindingTally:
    """How often something was found, and the first samples."""

    count: int = 0
    samples: list[Sample] = field(default_factory=list)

    def add(self, count: int, samples: Iterable[Sample]) -> None:
        """So many more; no more samples are taken than are kept."""
        self.count += count
        for sample in islice(samples, SAMPLES_KEPT - len(self.samples)):
            value = sample.value[:_SAMPLE_LENGTH]
            self.samples.append(Sample(sample.line, sample.id, sample.column, value))


class Findings:
    """Tallies by name; those of the parts of a file add up to those of the file."""

    def __init__(self) -> None:
        self.tallies: dict[str, FindingTally] = {}

    def add_many(self, name: str, count: int, samples: Iterable[Sample]) -> None:
        """Notes so many places; `name` is one of FINDINGS."""
        if name not in FINDINGS:
            raise KeyError(name)
        if count:
            self.tallies.setdefault(name, FindingTally()).add(count, samples)

    def add_bad(self, bad: BadRow) -> None:
        """Notes a row that is left out."""
        self.add_many(bad.finding, 1, [Sample(bad.line, bad.id, bad.column, bad.reason)])

    def merge(self, other: Findings) -> None:
        """Adds those of a later part."""
        for name, tally in other.tallies.items():
            self.tallies.setdefault(name, FindingTally()).add(tally.count, tally.samples)

    def to_document(self) -> dict[str, Any]:
        """As plain values, for JSON."""
        return {name: asdict(tally) for name, tally in self.tallies.items()}

    @classmethod
    def from_document(cls, document: Mapping[str, Any]) -> Findings:
        """From what `to_document` made."""
        findings = cls()
        for name, tally in document.items():
            samples = [Sample(**sample) for sample in tally["samples"]]
            findings.tallies[name] = FindingTally(tally["count"], samples)
        return findings
