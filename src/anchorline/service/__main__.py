"""What an operator does on the service's own machine, beside the API.

python -m anchorline.service run
python -m anchorline.service load DATASET FILE
python -m anchorline.service user EMAIL NAME          password on standard input
python -m anchorline.service key server NAME
python -m anchorline.service key browser NAME --origin URL --form KEY
"""

from __future__ import annotations

import argparse
import json
import sys
from pathlib import Path
from typing import TYPE_CHECKING

from anchorline.store.database import Database, StoreError
from anchorline.store.keys import KEY_KINDS
from anchorline.store.local_server import LocalServerError
from anchorline.store.migrate import migrate

from .running import RunError, database_of, run
from .settings import Settings, SettingsError, read_settings

if TYPE_CHECKING:
    from .context import Services

SHORTEST_PASSWORD = 10


def main(arguments: list[str] | None = None) -> int:
    """Runs one command; returns the exit status."""
    given = _parser().parse_args(arguments)
    try:
        settings = read_settings()
        if given.command == "run":
            return run(settings)
        return _on_database(settings, given)
    except (SettingsError, RunError, LocalServerError, StoreError) as error:
        print(f"{error}", file=sys.stderr)
        return 1


def _on_database(settings: Settings, given: argparse.Namespace) -> int:
    # Not needed to run the service, and slow to load.
    from .context import make_services
    from .loading import LoadError, load_file

    with database_of(settings) as url:
        database = Database(url)
        try:
            migrate(database)
            services = make_services(settings, database)
            if given.command == "load":
                try:
                    loaded = load_file(
                        services, given.dataset, given.file, bad_share=given.bad_share
                    )
                except LoadError as error:
                    print(f"{error}", file=sys.stderr)
                    return 1
                print(
                    f"{loaded.dataset}: edition {loaded.number} is active, "
                    f"{loaded.used} addresses, {loaded.bad} rows left out"
                )
                if loaded.ignored:
                    print(f"Columns that are not known, ignored: {', '.join(loaded.ignored)}")
            elif given.command in ("user", "provision"):
                password = sys.stdin.readline().rstrip("\n")
                if len(password) < SHORTEST_PASSWORD:
                    print(f"At least {SHORTEST_PASSWORD} characters.", file=sys.stderr)
                    return 1
                services.users.put(given.email, given.name, password)
                if given.command == "provision":
                    keys = {
                        f"{kind}_key": _make_key(
                            services, kind, f"{kind} key of {given.name}", given
                        )
                        for kind in KEY_KINDS
                    }
                    print(json.dumps(keys))
            else:
                print(_make_key(services, given.kind, given.name, given))
        finally:
            database.close()
    return 0


def _share(text: str) -> float:
    value = float(text)
    if not 0 <= value <= 1:
        raise argparse.ArgumentTypeError(f"{text} is not between 0 and 1")
    return value


def _make_key(services: Services, kind: str, name: str, given: argparse.Namespace) -> str:
    """A key; only a browser key is tied to origins and forms."""
    if kind == "server":
        return services.keys.create(kind, name)
    origins, forms = tuple(given.origin), tuple(given.form)
    return services.keys.create(kind, name, origins=origins, forms=forms)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="python -m anchorline.service")
    commands = parser.add_subparsers(dest="command", required=True)
    commands.add_parser("run", help="start the database and the service; Ctrl-C stops both")
    load = commands.add_parser("load", help="load a file of reference data and activate it")
    load.add_argument("dataset")
    load.add_argument("file", type=Path)
    load.add_argument("--bad-share", type=_share, default=0.05, help="share of bad rows, 0 to 1")
    user = commands.add_parser("user", help="make a console user; password on standard input")
    both = commands.add_parser("provision", help="make a user and a key of each kind, as JSON")
    for people in (user, both):
        people.add_argument("email")
        people.add_argument("name")
    key = commands.add_parser("key", help="make a key and print it: the only time it is shown")
    key.add_argument("kind", choices=KEY_KINDS)
    key.add_argument("name")
    for keys in (both, key):
        keys.add_argument("--origin", action="append", default=[], help="of a browser key")
        keys.add_argument("--form", action="append", default=[], help="of a browser key")
    return parser


if __name__ == "__main__":
    sys.exit(main())
