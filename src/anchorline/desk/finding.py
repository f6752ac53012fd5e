"""What is typed, suggested and chosen, as a value: the window shows it, and decides nothing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from anchorline.client import Client
from anchorline.wire.finding import SuggestionSchema
from anchorline.wire.slots import NearSchema

from .known_targets import AddressOfTarget

_MOST = 8


@dataclass(frozen=True, slots=True)
class Group:
    """A group that was opened: its id, and what it is called."""

    id: str
    label: str


@dataclass(frozen=True, slots=True)
class Finding:
    """The state of the finder.

    Attributes:
        groups: those that were opened, the innermost last.
        at: place of the suggestion that Enter takes; -1 for none.
        asked: counts questions; an answer to an older one is let go.
        problem: why there is no answer; empty where there is one.
    """

    text: str = ""
    groups: tuple[Group, ...] = ()
    suggestions: tuple[SuggestionSchema, ...] = ()
    at: int = -1
    asked: int = 0
    is_waiting: bool = False
    problem: str = ""

    @property
    def within(self) -> str | None:
        """The group that is open."""
        return self.groups[-1].id if self.groups else None

    @property
    def chosen(self) -> SuggestionSchema | None:
        """The suggestion that Enter takes."""
        return self.suggestions[self.at] if 0 <= self.at < len(self.suggestions) else None

    @property
    def is_asking(self) -> bool:
        """Whether there is something to ask."""
        return bool(self.text.strip() or self.groups)


def typed(state: Finding, text: str) -> Finding:
    """Something was typed: a new question."""
    return _asking(replace(state, text=text))


def answered(
    state: Finding, asked: int, suggestions: Sequence[SuggestionSchema], problem: str = ""
) -> Finding:
    """An answer came; one to an older question changes nothing."""
    if asked != state.asked:
        return state
    return replace(
        state, suggestions=tuple(suggestions), at=0 if suggestions else -1,
        is_waiting=False, problem=problem,
    )  # fmt: skip


def moved(state: Finding, by: int) -> Finding:
    """Up or down in the list, around its ends."""
    count = len(state.suggestions)
    return replace(state, at=(state.at + by) % count) if count else state


def opened(state: Finding, group: SuggestionSchema) -> Finding:
    """A group was chosen: what is in it is asked for."""
    entered = Group(group.id, group.label)
    return _asking(replace(state, text="", groups=(*state.groups, entered)))


def left(state: Finding) -> Finding:
    """Back out of the innermost group."""
    return _asking(replace(state, text="", groups=state.groups[:-1])) if state.groups else state


def _asking(state: Finding) -> Finding:
    if not state.is_asking:
        return replace(state, suggestions=(), at=-1, asked=state.asked + 1, is_waiting=False)
    return replace(state, asked=state.asked + 1, is_waiting=True, problem="")


def practice_text(text: str, word: str | None) -> str | None:
    """What is typed behind the word for practice addresses; None where it is not typed."""
    given = text.lstrip()
    if not word or given[: len(word)].casefold() != word.casefold():
        return None
    rest = given[len(word) :]
    return rest.strip() if rest[:1].isspace() else None


def _near(near: NearSchema | None) -> tuple[float, float] | None:
    if near is None or near.latitude is None or near.longitude is None:
        return None
    return near.latitude, near.longitude


def ask(client: Client, state: Finding, address: AddressOfTarget | None) -> list[SuggestionSchema]:
    """The suggestions for a state; AnchorlineError where there are none to be had."""
    asks = address.asks if address else None
    practised = practice_text(state.text, asks.practice_word if asks else None)
    within = state.within
    is_practice = practised is not None or (within or "").startswith("practice:")
    found = client.suggest(
        state.text if practised is None else practised,
        country=(asks.countries or ()) if asks else (),
        kinds=asks.kinds if asks else (),
        near=_near(asks.near) if asks else None,
        within=within,
        language=asks.language if asks else None,
        datasets=asks.datasets if asks else (),
        practice=is_practice,
        limit=_MOST,
    )
    return list(found.suggestions)
