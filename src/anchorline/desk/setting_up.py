"""Setting a target up from the program itself: named, walked through, tried, published."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from anchorline.client import Client, NotFoundError, ProgramTargetDocument
from anchorline.core.targets.programs import Look, SeenField
from anchorline.wire.program_proposals import ProgramProposalAnswer

from .known_targets import KnownTarget
from .x11.facts import SeenScreen

_KEY = re.compile(r"[^a-z0-9]+")
# What a person can say of a field that nothing names; the first of a pair is what they read.
WHAT_IT_IS: tuple[tuple[str, str, str], ...] = (
    ("Address line 1", "Address line 1", "part"),
    ("Address line 2", "Address line 2", "part"),
    ("Address line 3", "Address line 3", "part"),
    ("Street and number", "Street", "part"),
    ("Unit or flat", "Unit", "part"),
    ("Building", "Building", "part"),
    ("Firm", "Organisation", "part"),
    ("District", "District", "part"),
    ("Town", "Town", "part"),
    ("Region", "Region", "part"),
    ("Postcode", "Postcode", "part"),
    ("Country", "Country", "part"),
    ("Country code", "Country code", "part"),
    ("All of it, line after line", "Lines", "lines"),
    ("All of it, with commas", "Line with commas", "commas"),
    ("Nothing of the address", "", "part"),
)


@dataclass(frozen=True, slots=True)
class Looks:
    """Earlier looks at the same screen, and at others that are not to match."""

    same: tuple[Look, ...]
    others: tuple[Look, ...]


@dataclass
class SetUp:
    """What is known of a target that is being set up."""

    seen: SeenScreen
    looks: Looks
    title: str = ""
    like: str | None = None
    countries: Sequence[str] = ()
    fields: list[SeenField] = field(default_factory=list)

    @property
    def key(self) -> str:
        """The target's key, from its title."""
        plain = _KEY.sub("-", self.title.casefold()).strip("-")[:40]
        return plain if plain[:1].isalpha() else f"screen-{plain}".rstrip("-")

    @property
    def is_terminal(self) -> bool:
        """Whether the screen is a terminal's."""
        return bool(self.seen.look.texts("terminal"))

    def named_fields(self) -> list[SeenField]:
        """The fields from the one with the focus on, where the program names them."""
        names = [one.label for one in self.seen.fields]
        focused = self.seen.focused.name if self.seen.focused else ""
        start = names.index(focused) if focused in names else 0
        found = list(self.seen.fields[start:])
        return found if found and all(one.is_named for one in found) else []


def usual_countries(known: Sequence[KnownTarget]) -> Sequence[str]:
    """The countries of the last target that names some: a firm's screens are often alike."""
    named = [address.asks.countries for one in known for address in one.addresses]
    return next((list(one) for one in reversed(named) if one), [])


def suggested_title(look: Look) -> str:
    """What a screen may be called: its program, and its title as far as that stays."""
    program = look.texts("program")[-1:] or [""]
    words = re.split(r"\s*[-–—:|#(\[]\s|\s*\d", look.first("title"))[0].strip()
    return f"{program[0].capitalize()}: {words}" if words else program[0].capitalize()


def sorted_looks(seen: Look, earlier: Sequence[Look]) -> Looks:
    """Earlier looks, by whether they were at the same screen: same program, same first word."""

    def start(look: Look) -> tuple[str, str]:
        words = look.first("title").split()
        return look.first("program"), words[0].casefold() if words else ""

    same = tuple(look for look in earlier if start(look) == start(seen))
    others = tuple(look for look in earlier if start(look) != start(seen))
    return Looks(same[-3:], others[-10:])


class SettingUp:
    """Asks the service for a proposal, keeps the draft, tries it, publishes it."""

    def __init__(self, client: Client) -> None:
        self._client = client
        self._etag: str | None = None

    def propose(self, setup: SetUp) -> ProgramProposalAnswer:
        """A target for the screen; AnchorlineError where the service gives none."""
        return self._client.programs.propose(
            setup.key,
            setup.title,
            [_facts(look) for look in (*setup.looks.same, setup.seen.look)],
            others=[_facts(look) for look in setup.looks.others],
            fields=[
                {
                    "label": one.label, "is_named": one.is_named, "max_length": one.max_length,
                    "several_lines": one.several_lines, "is_whole": one.is_whole,
                }
                for one in setup.fields
            ],
            like=setup.like,
            countries=setup.countries or None,
        )  # fmt: skip

    def keep(self, document: ProgramTargetDocument) -> Sequence[str]:
        """Keeps the draft; returns what stands against publishing it."""
        if self._etag is None:
            try:
                self._etag = self._client.targets.draft(document.key)[1]
            except NotFoundError:
                self._etag = None
        draft, self._etag = self._client.targets.put_draft(document, self._etag)
        return [problem.detail for problem in draft.problems]

    def practice_values(self, document: ProgramTargetDocument) -> Mapping[str, str]:
        """What a practice address puts into the fields; it is never counted."""
        fill = self._client.targets.trial(document).fill
        return {key: str(text) for key, text in fill.values.items() if text is not None}

    def publish(self, key: str) -> int:
        """Publishes the draft; returns its version."""
        return self._client.targets.publish(key, self._etag).published_version or 0


def _facts(look: Look) -> list[dict[str, str]]:
    return [{"kind": fact.kind, "text": fact.text} for fact in look.facts]
