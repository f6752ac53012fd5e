"""`keys list|make|rotate|end`: what programs and pages present to the service."""

from __future__ import annotations

from datetime import UTC, datetime

import click

from anchorline.wire.keys import KeySchema, NewSecretAnswer

from .connecting import Connect
from .exit_codes import GivenWrongError
from .output import json_option, note, print_json, print_lines, print_table

_STATES = {"in_use": "in use", "expired": "expired", "ended": "ended"}


@click.group()
def keys() -> None:
    """What programs and pages present to the service. Needs a key with the scope administer."""


@keys.command("list")
@json_option
@click.pass_obj
def list_keys(connect: Connect, as_json: bool) -> None:
    """List all keys without their secrets, ended ones among them.

    \b
    Example:
      anchorline keys list
    """
    found = connect().keys.list()
    if as_json:
        print_json(found)
        return
    print_table(
        ["id", "kind", "state", "last used (UTC)", "may", "what for"],
        [
            [one.id, one.kind, _state(one), _time(one.used_at) or "never", _may(one), one.name]
            for one in found
        ],
    )


@keys.command("make")
@click.argument("kind", type=click.Choice(["server", "browser"]))
@click.argument("name")
@click.option("--scope", "scopes", multiple=True, help="Of a server key; several may be given.")
@click.option("--origin", "origins", multiple=True, help="Of a browser key: https://shop.example.")
@click.option("--form", "forms", multiple=True, help="Of a browser key; several may be given.")
@click.option("--target", "targets", multiple=True, help="Of a browser key; several may be given.")
@click.option(
    "--expires",
    type=click.DateTime(["%Y-%m-%d", "%Y-%m-%dT%H:%M"]),
    help="Nobody can use it from then on (UTC).",
)
@json_option
@click.pass_obj
def make_key(
    connect: Connect,
    kind: str,
    name: str,
    scopes: tuple[str, ...],
    origins: tuple[str, ...],
    forms: tuple[str, ...],
    targets: tuple[str, ...],
    expires: datetime | None,
    as_json: bool,
) -> None:
    """Make a key and print its secret: the only time that it is shown. NAME says what it is for.

    \b
    Examples:
      anchorline keys make server "Order system" --scope find --scope records
      anchorline keys make browser "Shop" --origin https://shop.example --form tuning-visit
    """
    expires_at = expires.replace(tzinfo=UTC) if expires else None
    made = connect().keys.make(
        kind,
        name,
        scopes=scopes,
        origins=origins,
        forms=forms,
        targets=targets,
        expires_at=expires_at,
    )
    _print_secret(made, as_json)


@keys.command("rotate")
@click.argument("key")
@click.option(
    "--overlap-hours",
    type=click.IntRange(0, 720),
    default=24,
    show_default=True,
    help="How long the present secret goes on.",
)
@json_option
@click.pass_obj
def rotate_key(connect: Connect, key: str, overlap_hours: int, as_json: bool) -> None:
    """Give a KEY, named by its id, a new secret and print it.

    \b
    Example:
      anchorline keys rotate 5f0c2a9be417 --overlap-hours 48
    """
    made = connect().keys.rotate(key, overlap_hours=overlap_hours)
    _print_secret(made, as_json)
    until = _time(made.key.earlier_until)
    note(f"The secret before goes on until {until} UTC." if until else "The secret before is over.")


@keys.command("allow")
@click.argument("key")
@click.argument("addresses")
@click.option(
    "--warn-at",
    type=click.IntRange(1, 100),
    default=80,
    show_default=True,
    help="Per cent of it from which on the key counts as near its limit.",
)
@json_option
@click.pass_obj
def allow_key(connect: Connect, key: str, addresses: str, warn_at: int, as_json: bool) -> None:
    """Say how many ADDRESSES a KEY may fetch in a calendar month (UTC): a number, or any.

    \b
    Example:
      anchorline keys allow 5f0c2a9be417 1000 --warn-at 90
    """
    limit = None if addresses == "any" else _number(addresses)
    kept = connect().keys.allow(key, limit, warn_share=warn_at / 100)
    if as_json:
        print_json(kept)
        return
    said = "any number of addresses" if limit is None else f"{limit:,} addresses a month"
    note(f"The key {kept.id} ({kept.name}) may fetch {said}.")


@keys.command("end")
@click.argument("key")
@json_option
@click.pass_obj
def end_key(connect: Connect, key: str, as_json: bool) -> None:
    """End a KEY, named by its id, for good.

    \b
    Example:
      anchorline keys end 5f0c2a9be417
    """
    ended = connect().keys.end(key)
    if as_json:
        print_json(ended)
        return
    note(f"The key {ended.id} ({ended.name}) is ended: within seconds nobody can use it any more.")


def _print_secret(made: NewSecretAnswer, as_json: bool) -> None:
    if as_json:
        print_json(made)
        return
    print_lines([made.secret])
    note("This is shown once: keep it where only its program can read it.")


def _number(text: str) -> int:
    if not text.isdecimal():
        raise GivenWrongError(f"{text!r} is no number of addresses: write 1000, or any.")
    return int(text)


def _state(key: KeySchema) -> str:
    until = f" until {_time(key.expires_at)}" if key.expires_at and key.state == "in_use" else ""
    return f"{_STATES[key.state]}{until}"


def _may(key: KeySchema) -> str:
    if key.kind == "server":
        return ", ".join(key.scopes)
    return f"{', '.join([*key.forms, *key.targets])} from {', '.join(key.origins)}"


def _time(time: datetime | None) -> str:
    return time.strftime("%Y-%m-%d %H:%M") if time else ""
