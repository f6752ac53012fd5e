"""Whose screen the finder was opened over: the addresses to be written, and the chosen one."""

from __future__ import annotations

from dataclasses import dataclass

from anchorline.core.targets.programs import Look
from anchorline.core.targets.programs.ways import FOUND, TRIED

from .best_ways import BestWays
from .known_targets import AddressOfTarget, KnownTarget, KnownTargets


@dataclass(frozen=True, slots=True)
class Choice:
    """An address of a target that matches the screen."""

    target: KnownTarget
    address: AddressOfTarget

    @property
    def label(self) -> str:
        """What it is called where there are several."""
        if len(self.target.addresses) == 1:
            return self.target.title
        return f"{self.target.title}: {self.address.label}"

    def way(self, ways: BestWays, may_try: bool) -> str:
        """The way to write: the plan's own, or the one that was found best.

        Args:
            may_try: ways that are not tried yet may be; nothing is tried on anybody's record.
        """
        if self.address.plan.by != FOUND:
            return self.address.plan.by
        return ways.of(self.target, self.address) or (FOUND if may_try else TRIED[0])

    def is_untried(self, ways: BestWays) -> bool:
        """Whether its ways of writing are still to be tried on this machine."""
        return self.way(ways, may_try=True) == FOUND


class Choices:
    """The choices for a screen, of which one is chosen; none where the screen is not known."""

    def __init__(self, known: KnownTargets, look: Look | None = None) -> None:
        self._all: list[Choice] = []
        self._at, self._is_tie = 0, False
        if look is None:
            return
        recognition = known.recognise(look)
        self._is_tie = recognition.is_tie
        keys = dict.fromkeys(one.target for one in recognition.chosen)
        targets = [known.get(key) for key in keys]
        self._all = [Choice(one, address) for one in targets if one for address in one.addresses]

    @property
    def current(self) -> Choice | None:
        """The one that is chosen."""
        return self._all[self._at] if self._all else None

    def turn(self) -> bool:
        """Chooses the next one; False where there is none."""
        if self._all:
            self._at = (self._at + 1) % len(self._all)
        return bool(self._all)

    def says(self, ways: BestWays, is_slow: bool, problem: str) -> tuple[str, str]:
        """Whose screen it is, and what should be known of it.

        Args:
            problem: why the service could not be asked; empty where it could.
        """
        about = []
        current = self.current
        if current is None:
            head = "This screen is not known"
            about.append("What you choose can be copied line by line.")
        else:
            head = current.label
            if self._is_tie:
                about.append("Several targets match this screen equally well: F2 takes the next.")
            elif is_slow:
                about.append("Slow walk: each step waits for a second, or the key.")
            elif current.is_untried(ways):
                word = current.address.asks.practice_word
                how = (
                    f"type “{word}” and choose an address"
                    if word
                    else "give the target a word for practice addresses, in the console"
                )
                about.append(f"Which way writes best is not tried here yet: {how}.")
        if problem:
            about.append(f"Targets are as they were last heard of: {problem}")
        return head, " ".join(about)

    def keys(self, is_slow: bool, may_change: bool) -> str:
        """Which keys there are besides those of every finder."""
        return " · ".join(
            words
            for words, is_there in (
                ("F2 the next one", len(self._all) > 1),
                (f"F8 {'no ' if is_slow else ''}slow walk", self._all),
                ("F3 make this screen a target", may_change),
                ("F4 show it in the console", True),
            )
            if is_there
        )
