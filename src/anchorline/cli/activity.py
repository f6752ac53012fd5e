"""`activity`, `observe`, `usage` and `quality`: what is called, fetched and captured."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import get_args

import click

from anchorline.wire.activity import CallSchema, Outcome
from anchorline.wire.usage import SubjectUsage
from anchorline.wire.words import counted

from .connecting import Connect
from .output import json_option, note, print_json, print_lines, print_table

_TIME = click.DateTime(["%Y-%m-%d", "%Y-%m-%dT%H:%M", "%Y-%m-%dT%H:%M:%S"])
_DAY = click.DateTime(["%Y-%m-%d"])
_STATES = {"within": "", "near": "near its limit", "used_up": "used up"}


@click.command()
@click.option("--key", "subject", help="Only of this key's id; - for calls without a known key.")
@click.option("--endpoint", help="Only to this one, such as finding.suggest.")
@click.option("--about", "of", help="Only about this form or target.")
@click.option("--origin", help="Only from pages of this web origin.")
@click.option("--outcome", type=click.Choice(get_args(Outcome)), help="How they ended.")
@click.option("--since", type=_TIME, help="Only from then on (UTC).")
@click.option("--until", type=_TIME, help="Only before then (UTC).")
@click.option("--limit", type=click.IntRange(1, 500), default=20, show_default=True)
@click.option("--follow", is_flag=True, help="Go on with calls as they come; Ctrl-C ends it.")
@json_option
@click.pass_obj
def activity(
    connect: Connect,
    subject: str | None,
    endpoint: str | None,
    of: str | None,
    origin: str | None,
    outcome: str | None,
    since: datetime | None,
    until: datetime | None,
    limit: int,
    follow: bool,
    as_json: bool,
) -> None:
    """List the latest calls: when, by whom, to what, how they ended. With --json as JSON Lines.

    What was asked and answered stands in them only where a key or target is observed.

    \b
    Examples:
      anchorline activity --outcome refused
      anchorline activity --key 5f0c2a9be417 --follow
    """
    calls = connect().activity
    found = calls.list(
        subject=subject,
        endpoint=endpoint,
        of=of,
        origin=origin,
        outcome=outcome,
        since=since.replace(tzinfo=UTC) if since else None,
        until=until.replace(tzinfo=UTC) if until else None,
        limit=limit,
    )
    show = _as_json if as_json else _as_text
    for one in reversed(found.calls):
        print_lines(show(one))
    if not found.calls and not follow:
        note(f"There are no such calls in the last {found.kept_days} days.")
    if not follow:
        return
    try:
        coming = calls.follow(
            subject=subject, endpoint=endpoint, of=of, origin=origin, outcome=outcome
        )
        for one in coming:
            print_lines(show(one))
    except KeyboardInterrupt:
        return


@click.command()
@click.argument("kind", type=click.Choice(["key", "target", "form"]))
@click.argument("name")
@click.option("--hours", type=click.IntRange(0, 24), default=2, show_default=True)
@click.pass_obj
def observe(connect: Connect, kind: str, name: str, hours: int) -> None:
    """Keep question and answer of each call of a key, target or form for some hours; 0 ends it.

    What people type stands in them: for finding an error. It ends by itself.

    \b
    Example:
      anchorline observe target checkout --hours 1
    """
    now = connect().activity.observe(kind, name, hours=hours)
    until = next((one.until for one in now if (one.kind, one.name) == (kind, name)), None)
    said = f"is observed until {until:%Y-%m-%d %H:%M} UTC" if until else "is not observed any more"
    note(f"The {kind} {name} {said}.")


@click.command()
@click.option("--month", help="Such as 2027-03; this month where it is left out.")
@json_option
@click.pass_obj
def usage(connect: Connect, month: str | None, as_json: bool) -> None:
    """Show how many addresses were fetched in a month, by key; practice addresses are not in it.

    \b
    Example:
      anchorline usage --month 2027-03
    """
    found = connect().activity.usage(month)
    if as_json:
        print_json(found)
        return
    print_table(
        ["key", "what for", "addresses", "limit", ""],
        [
            [one.subject, one.name, f"{one.count:,}", _limit(one), _STATES[one.state]]
            for one in found.subjects
        ],
    )
    note(f"{counted(found.count, 'address', 'addresses')} in {found.month} (UTC)")


@click.command()
@click.option("--form", help="Only of this form.")
@click.option("--target", help="Only of this target.")
@click.option("--since", type=_DAY, help="First day; 30 days ago if left out.")
@click.option("--until", type=_DAY, help="Last day; today if left out.")
@click.option("--csv", "as_csv", is_flag=True, help="As CSV.")
@json_option
@click.pass_obj
def quality(
    connect: Connect,
    form: str | None,
    target: str | None,
    since: datetime | None,
    until: datetime | None,
    as_csv: bool,
    as_json: bool,
) -> None:
    """Show how well capture goes: of the slots shown, how many were picked, typed by hand, left.

    \b
    Examples:
      anchorline quality --form tuning-visit
      anchorline quality --since 2027-03-01 --csv > march.csv
    """
    kind = "form" if form else "target" if target else None
    first, last = (day.date() if day else None for day in (since, until))
    calls = connect().activity
    if as_csv:
        table = calls.quality_table(kind=kind, name=form or target, since=first, until=last)
        print_lines(table.splitlines())
        return
    found = calls.quality(kind=kind, name=form or target, since=first, until=last)
    if as_json:
        print_json(found)
        return
    columns = ("shown", "begun", "picked", "partly", "by_hand", "changed", "left")
    print_table(
        ["day", "where", *(name.replace("_", " ") for name in columns), "keys", "characters"],
        [
            [
                one.day.isoformat(),
                one.title,
                *(f"{getattr(one.counts, name):,}" for name in columns),
                f"{one.counts.keys:,}",
                f"{one.counts.characters:,}",
            ]
            for one in found.days
        ],
    )
    if not found.days:
        note("Nothing was captured in these days.")


def _limit(one: SubjectUsage) -> str:
    limits = [
        f"{limit:,}{period}"
        for limit, period in ((one.limit, ""), (one.day_limit, " a day"))
        if limit is not None
    ]
    return ", ".join(limits) or "none"


def _as_json(call: CallSchema) -> list[str]:
    return [call.model_dump_json()]


def _as_text(call: CallSchema) -> list[str]:
    who = call.name or "nobody known"
    about = f" ({call.of})" if call.of else ""
    line = (
        f"{call.at:%Y-%m-%d %H:%M:%S}  {call.status}  {call.ms:7.1f} ms  "
        f"{call.endpoint}{about}  {who}{f' from {call.origin}' if call.origin else ''}"
    )
    observed = [f"    {text}" for text in (call.question, call.answer) if text]
    return [line, *(piece for text in observed for piece in text.splitlines())]
