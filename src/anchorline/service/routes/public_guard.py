"""What keeps programs from filling web forms that are open to everybody."""

from __future__ import annotations

from anchorline.core.errors import Problem
from anchorline.core.forms import Form
from anchorline.wire.records import RecordRequest

from ..endpoints import ApiRequest
from ..problems import ProblemError, invalid


def guard_public(request: ApiRequest, form: Form, body: RecordRequest) -> None:
    """Lets a filled form of anybody pass, if a person can have filled it.

    Args:
        form: as it was opened, with what guards it now.

    Raises:
        ProblemError: 403 where the form is closed or has no public page any more, 422 where the
            field that nobody sees is filled or it comes too soon after it was opened, 429 where
            too many come from one address.
    """
    caller, public = request.caller, form.public
    if not caller.is_anybody:
        return
    if caller.kind == "page" and form.kind != "web":
        raise ProblemError(403, "This form is not open to everybody any more; nothing was kept.")
    if public.closed:
        raise ProblemError(403, public.closed_text or "This form is closed; nothing was kept.")
    if body.trap and not public.without_trap:
        detail = "Leave this empty: people do not see it. Nothing was kept."
        raise invalid([Problem("/trap", detail)])
    opened = caller.since
    seconds = body.seconds if opened is None else _since(request, opened.timestamp())
    if seconds is not None and seconds < public.least_seconds:
        detail = (
            f"This was sent sooner than a person can fill it. Wait {public.least_seconds} "
            "seconds and send it again."
        )
        raise ProblemError(422, detail)
    address = request.http.remote_addr or ""
    request.services.allowed.take_record(form.key, address, public.most_per_minute)


def _since(request: ApiRequest, opened: float) -> float:
    # A token counts whole seconds: the one in which it was made is given away.
    return request.services.database.now().timestamp() - opened + 1
