"""What is asked of a search, and what it answers."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(frozen=True, slots=True)
class SearchRequest:
    """One search.

    Attributes:
        text: what was typed.
        countries: restrict to these ISO 3166-1 alpha-2 codes; empty for all.
        kinds: restrict to these of SUGGESTION_KINDS; empty for all.
        near: prefer what is near this latitude and longitude (degrees).
        within: the id of a group to stay inside of.
        language: of the names of bilingual places, BCP 47; empty for the one that fits best
            what was typed.
        limit: how many suggestions at most.
        datasets: restrict to these; empty for all.
        skip: how many to leave out first, for the next page of an opened group.
        trace: say what was read and how rows were weighed.
    """

    text: str
    countries: tuple[str, ...] = ()
    kinds: tuple[str, ...] = ()
    near: tuple[float, float] | None = None
    within: str | None = None
    language: str = ""
    limit: int = 8
    skip: int = 0
    datasets: tuple[str, ...] = ()
    trace: bool = False


@dataclass(slots=True)
class Suggestion:
    """One row of the finder.

    Attributes:
        id: of the address, or of the group to open.
        kind: one of SUGGESTION_KINDS.
        label: one line, as the country writes it.
        country_code: ISO 3166-1 alpha-2.
        count: 1 for an address, else the addresses in the group.
        matches: ranges [start, end) of `label`, in Unicode characters, that were typed.
        score: higher is better; comparable within one answer only.
        why: what the score is made of, where a trace was asked for.
    """

    id: str
    kind: str
    label: str
    country_code: str
    count: int
    matches: tuple[tuple[int, int], ...] = ()
    score: float = 0.0
    why: dict[str, float] = field(default_factory=dict)


@dataclass(slots=True)
class Step:
    """One step of a search: a way to read what was typed, and what it found.

    Attributes:
        dataset: whose edition was searched.
        interpretation: its name, as the documentation lists them.
        tokens: the tokens of this interpretation; an unfinished one ends in `…`.
        nodes: how many streets, towns, postcodes … have all of them.
    """

    dataset: str
    interpretation: str
    tokens: tuple[str, ...]
    nodes: int


@dataclass(slots=True)
class SearchAnswer:
    """What a search found.

    Attributes:
        rows: best first.
        corrected: typed tokens that were read as other words, and the words.
        unmatched: typed tokens that the rows do not have.
        steps: the ways to read that were tried, where a trace was asked for.
    """

    rows: list[Suggestion] = field(default_factory=list)
    corrected: dict[str, str] = field(default_factory=dict)
    unmatched: tuple[str, ...] = ()
    steps: list[Step] = field(default_factory=list)
