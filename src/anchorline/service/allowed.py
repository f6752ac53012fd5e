"""The rates at which browser keys, public pages and unknown callers may call, from the settings."""

from __future__ import annotations

from dataclasses import dataclass, field

from .problems import ProblemError
from .rates import Rate, Rates
from .settings import Settings

# Calls without a right key: each costs a look into the database.
_UNRECOGNISED = Rate(20, 400)


@dataclass(frozen=True, slots=True)
class Allowed:
    """Rates of browser keys and public pages: searches, and all other calls.

    Attributes:
        by_address: of one network address, whatever key it presents.
        by_key: of one key or page, wherever it is used.
    """

    by_address: tuple[Rate, Rate]
    by_key: tuple[Rate, Rate]
    rates: Rates = field(default_factory=Rates)

    @classmethod
    def by(cls, settings: Settings) -> Allowed:
        """As the settings have it."""
        return cls(
            (Rate.of(settings.address_calls), Rate.of(settings.address_searches)),
            (Rate.of(settings.key_calls), Rate.of(settings.key_searches)),
        )

    def take(self, key: str, address: str, *, often: bool) -> None:
        """Counts a call; ProblemError 429 where it comes too soon.

        Args:
            often: a search, which comes with every keystroke.
        """
        what = "searches" if often else "calls"
        wait = self.rates.take((f"address {what}", address), self.by_address[often])
        wait = wait or self.rates.take((f"key {what}", key), self.by_key[often])
        if wait:
            raise _too_soon(what, wait)

    def take_record(self, form: str, address: str, most_per_minute: int) -> None:
        """Counts a record that anybody makes; ProblemError 429 where there are too many."""
        rate = Rate(most_per_minute / 60, most_per_minute)
        wait = self.rates.take((f"records {form}", address), rate)
        if wait:
            raise _too_soon("records from here", wait)

    def take_unrecognised(self, address: str) -> None:
        """Counts a call that showed no right key; ProblemError 429 where there are too many."""
        wait = self.rates.take(("unrecognised", address), _UNRECOGNISED)
        if wait:
            raise _too_soon("calls without a right key", wait)


def _too_soon(what: str, seconds: int) -> ProblemError:
    return ProblemError(
        429,
        f"Too many {what} in a short time. Wait {seconds} s and try again.",
        headers={"Retry-After": str(seconds)},
    )
