"""What keeps programs from filling web forms that are open to everybody."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime

from anchorline.core.errors import Problem
from anchorline.core.forms import Form

from ..caller import Caller
from ..errors import ForbiddenError, InvalidError, RefusedError
from .checking import Submission

# Counts a record of a form for whoever sends it, and raises where it allows no more a minute.
RecordGuard = Callable[[str, int], None]


class TooSoonError(RefusedError):
    """It was sent sooner than a person can fill it."""


def guard_public(
    caller: Caller, form: Form, submission: Submission, now: datetime, count: RecordGuard
) -> None:
    """Lets a filled form of anybody pass, if a person can have filled it.

    Args:
        form: as it was opened, with what guards it now.

    Raises:
        ForbiddenError: the form is closed or has no public page any more.
        InvalidError: the field that nobody sees is filled.
        TooSoonError: it comes too soon after it was opened.
    """
    public = form.public
    if not caller.is_anybody:
        return
    if caller.kind == "page" and form.kind != "web":
        raise ForbiddenError("This form is not open to everybody any more; nothing was kept.")
    if public.closed:
        raise ForbiddenError(public.closed_text or "This form is closed; nothing was kept.")
    if submission.trap and not public.without_trap:
        detail = "Leave this empty: people do not see it. Nothing was kept."
        raise InvalidError([Problem("/trap", detail)])
    opened = caller.since
    # A token counts whole seconds: the one in which it was made is given away.
    seconds = submission.seconds if opened is None else (now - opened).total_seconds() + 1
    if seconds is not None and seconds < public.least_seconds:
        raise TooSoonError(
            f"This was sent sooner than a person can fill it. Wait {public.least_seconds} "
            "seconds and send it again."
        )
    count(form.key, public.most_per_minute)
