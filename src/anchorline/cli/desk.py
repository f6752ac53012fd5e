"""`desk …`: the desktop agent, and what it sees."""

from __future__ import annotations

import importlib.util
import json
import time
from pathlib import Path
from typing import TYPE_CHECKING

import click

from anchorline.yaml_documents import write_yaml

from .connecting import Connect
from .exit_codes import FAILED, GivenWrongError
from .output import json_option, note
from .settings import read_connection

if TYPE_CHECKING:
    from anchorline.desk.x11.facts import SeenScreen
    from anchorline.wire.looks import RecognitionAnswer

_NEEDED = {"Xlib": "python-xlib", "jeepney": "jeepney", "PySide6": "PySide6"}
_USUAL_KEY = "Ctrl+Alt+A"


@click.group()
def desk() -> None:
    """Addresses written into any program of the desktop (X11)."""


@desk.command("run")
@click.option(
    "--hotkey",
    default=_USUAL_KEY,
    envvar="ANCHORLINE_DESK_HOTKEY",
    show_default=True,
    help="The key that opens the finder.",
)
@click.option("--use-only", is_flag=True, help="No targets are made from here.")
@click.option("--times", is_flag=True, help="Say how long the finder took to open.")
@click.pass_obj
def run_desk(connect: Connect, hotkey: str, use_only: bool, times: bool) -> None:
    """Run the agent until Ctrl-C: press the key in a program, find an address, and it is written.

    \b
    Example:
      anchorline desk run
      anchorline desk run --hotkey Ctrl+Shift+F9 --use-only
    """
    _require_packages()
    from anchorline.desk.errors import DeskError
    from anchorline.desk.hotkeys import read_hotkey
    from anchorline.desk.running import run_agent

    client, url = connect(), read_connection().url
    try:
        run_agent(client, url, read_hotkey(hotkey), not use_only, note, timed=times)
    except DeskError as error:
        raise click.ClickException(str(error)) from None


@desk.command("look")
@click.option("--after", type=float, default=0.0, metavar="SECONDS", help="Wait before looking.")
@click.option("--send", is_flag=True, help="Send it to the service, for setting targets up.")
@click.option("--file", "file", type=click.Path(dir_okay=False, path_type=Path), help="Keep it.")
@click.option("--recognise", is_flag=True, help="Say which target it is, and why not the others.")
@json_option
@click.pass_obj
def look(
    connect: Connect,
    after: float,
    send: bool,
    file: Path | None,
    recognise: bool,
    as_json: bool,
) -> None:
    """Show what is seen of the program in front: title, program, labels, a terminal's lines.

    \b
    Example:
      anchorline desk look --after 3
      anchorline desk look --after 3 --send
      anchorline desk look --after 3 --recognise
    """
    _require_packages()
    from anchorline.desk.agent_names import machine_name
    from anchorline.desk.errors import DeskError
    from anchorline.desk.looking import Eyes

    time.sleep(max(after, 0))
    try:
        eyes = Eyes()
    except DeskError as error:
        raise click.ClickException(str(error)) from None
    try:
        seen = eyes.look()
    finally:
        eyes.close()
    facts = [{"kind": fact.kind, "text": fact.text} for fact in seen.look.facts]
    if as_json:
        click.echo(json.dumps({"facts": facts}, ensure_ascii=False, indent=2))
    else:
        _print_look(seen, eyes.without_tree)
    if file is not None:
        file.write_text(write_yaml({"facts": facts}), "utf-8")
        note(f"Kept in {file}.")
    if not facts:
        raise click.ClickException("No window has the focus: click into the program first.")
    if send:
        kept = connect().programs.send_look(facts, machine_name())
        note(f"Sent as look {kept.id}: it is shown in the console under Targets for seven days.")
    if recognise:
        _print_recognition(connect().programs.recognise(facts))


@desk.command("check")
@click.option("--hotkey", default=_USUAL_KEY, envvar="ANCHORLINE_DESK_HOTKEY", show_default=True)
@click.pass_context
def check(context: click.Context, hotkey: str) -> None:
    """Say what the agent needs, and what of it is there; ends with 1 where something is missing.

    \b
    Example:
      anchorline desk check
    """
    _require_packages()
    from anchorline.desk.check import checked

    findings = checked(context.obj, hotkey)
    for one in findings:
        click.secho("✓ " if one.is_good else "✗ ", fg="green" if one.is_good else "red", nl=False)
        click.echo(one.says)
    if not all(one.is_good for one in findings):
        context.exit(FAILED)


def _require_packages() -> None:
    missing = [name for module, name in _NEEDED.items() if not importlib.util.find_spec(module)]
    if missing:
        raise GivenWrongError(
            f"The desktop agent needs {', '.join(missing)}: pip install 'anchorline[desk]'"
        )


def _print_look(seen: SeenScreen, without_tree: str) -> None:
    width = max((len(fact.kind) for fact in seen.look.facts), default=0)
    for fact in seen.look.facts:
        click.secho(f"{fact.kind.replace('_', ' '):<{width}}  ", bold=True, nl=False)
        click.echo(fact.text)
    if without_tree:
        note(without_tree)


def _print_recognition(answer: RecognitionAnswer) -> None:
    if len(answer.targets) > 1:
        note(f"A tie of {', '.join(answer.targets)}: none tells the screen more exactly.")
    if not answer.targets:
        note("No target matches.")
    for one in answer.trace:
        click.secho(f"{'→' if one.place == 1 else ' '} {one.target} ", bold=True, nl=False)
        click.echo(f"({one.label}): {one.because}")
        for condition in one.conditions:
            click.echo(f"    {'✓' if condition.held else '✗'} {condition.says}")
