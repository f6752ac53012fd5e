"""How many addresses a key may fetch in a month, and how near it is to that."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

# From which part of its limit on a key counts as near it, where nobody said otherwise.
USUAL_WARN_SHARE = 0.8
# Whom addresses are counted for that no key and no page has fetched.
PEOPLE = "people"


class AllowanceUsedUpError(Exception):
    """A key has fetched as many addresses this month as it may; the message says what to do."""

    def __init__(self, limit: int, month: date) -> None:
        self.limit, self.month = limit, month
        super().__init__(
            f"This key may fetch no more addresses in {month:%B %Y}: its limit is {limit:,}. "
            f"Capture by hand goes on; the count begins anew on {next_month(month):%-d %B} (UTC), "
            "or an administrator gives the key more."
        )


@dataclass(frozen=True, slots=True)
class Allowance:
    """What a key may fetch.

    Attributes:
        limit: addresses in a calendar month (UTC); None for no limit.
        warn_share: the part of it from which on the key counts as near its limit, 0 to 1.
    """

    limit: int | None = None
    warn_share: float = USUAL_WARN_SHARE

    def state(self, count: int) -> str:
        """`within`, `near` or `used_up` after so many addresses."""
        if self.limit is None:
            return "within"
        if count >= self.limit:
            return "used_up"
        return "near" if count >= self.limit * self.warn_share else "within"


def month_of(day: date) -> date:
    """The first day of a day's month."""
    return day.replace(day=1)


def next_month(month: date) -> date:
    """The first day of the month after that of a day."""
    return (month_of(month) + timedelta(days=32)).replace(day=1)
