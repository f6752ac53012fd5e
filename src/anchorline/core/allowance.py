"""How many addresses a key or a public page may fetch, and how near it is to that."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

# From which part of its limit on a key counts as near it, where nobody said otherwise.
USUAL_WARN_SHARE = 0.8
# Whom addresses are counted for that no key and no page has fetched.
PEOPLE = "people"


class AllowanceUsedUpError(Exception):
    """As many addresses were fetched as may be; the message says until when, and what to do.

    Attributes:
        limit: how many may be.
        again: the day on which the count begins anew (UTC).
    """

    def __init__(self, limit: int, again: date, period: str) -> None:
        self.limit, self.again = limit, again
        super().__init__(
            f"No more addresses can be fetched here {period}: the limit is {limit:,}. Capture by "
            f"hand goes on; the count begins anew on {again:%-d %B} (UTC), or an administrator "
            "allows more."
        )


@dataclass(frozen=True, slots=True)
class Allowance:
    """What a key or a page may fetch.

    Attributes:
        limit: addresses in a calendar month (UTC); None for no limit.
        warn_share: the part of it from which on the key counts as near its limit, 0 to 1.
        day_limit: addresses on one day (UTC); None for no limit.
    """

    limit: int | None = None
    warn_share: float = USUAL_WARN_SHARE
    day_limit: int | None = None

    @property
    def is_limited(self) -> bool:
        """Whether there is any limit."""
        return self.limit is not None or self.day_limit is not None

    def hold(self, of_month: int, of_day: int, day: date) -> None:
        """Lets what was fetched pass, the last one included.

        Args:
            of_month, of_day: addresses that were fetched up to now.

        Raises:
            AllowanceUsedUpError: one of them is more than may be.
        """
        if self.limit is not None and of_month > self.limit:
            raise AllowanceUsedUpError(self.limit, next_month(day), f"in {day:%B %Y}")
        if self.day_limit is not None and of_day > self.day_limit:
            raise AllowanceUsedUpError(self.day_limit, day + timedelta(days=1), "today")

    def state(self, of_month: int, of_day: int = 0) -> str:
        """`within`, `near` or `used_up` after so many addresses, whichever limit is nearer."""
        shares = [
            count / limit if limit else 1.0
            for count, limit in ((of_month, self.limit), (of_day, self.day_limit))
            if limit is not None
        ]
        share = max(shares, default=0.0)
        if share >= 1:
            return "used_up"
        return "near" if shares and share >= self.warn_share else "within"


def month_of(day: date) -> date:
    """The first day of a day's month."""
    return day.replace(day=1)


def next_month(month: date) -> date:
    """The first day of the month after that of a day."""
    return (month_of(month) + timedelta(days=32)).replace(day=1)
