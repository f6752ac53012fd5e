"""What an operator does on the service's own machine, beside the API.

python -m anchorline.service run [--worker]
python -m anchorline.service work
python -m anchorline.service user EMAIL NAME          password on standard input
python -m anchorline.service database-password       a new one, where it was lost
python -m anchorline.service key server NAME --scope find
python -m anchorline.service key browser NAME --origin URL --form KEY
python -m anchorline.service keys                    all keys, without their secrets
python -m anchorline.service end-key ID              nobody can use it any more
"""

from __future__ import annotations

import argparse
import json
import os
import sys
from typing import TYPE_CHECKING

from anchorline.core.keys import KEY_KINDS, SCOPES, WantedKey
from anchorline.store.database import Database, StoreError
from anchorline.store.local_server import LocalServer, LocalServerError
from anchorline.store.migrate import migrate

from .logs import set_up_logs
from .running.account import ServiceAccount
from .running.run_error import RunError
from .running.supervisor import database_of, environment_of, run, url_of_running_database
from .settings import Settings, SettingsError, read_settings
from .space import room_left

if TYPE_CHECKING:
    from anchorline.store.keys import KeyStore


def main(arguments: list[str] | None = None) -> int:
    """Runs one command; returns the exit status."""
    given = _parser().parse_args(arguments)
    try:
        settings = read_settings()
        if given.command == "run":
            return run(settings, with_worker=given.worker)
        if given.command == "answer":
            from .answering import answer  # the application, which the supervisor does not load

            return answer(settings, waits=given.wait)
        if given.command == "work":
            return _work(settings)
        if given.command == "database-password":
            return _new_database_password(settings)
        return _on_database(settings, given)
    except (SettingsError, RunError, LocalServerError, StoreError) as error:
        print(f"{error}", file=sys.stderr)
        return 1


def _work(settings: Settings) -> int:
    from .context import make_services
    from .loading.worker import Worker

    set_up_logs(settings.log_level)
    url = url_of_running_database(settings)
    account = ServiceAccount(settings)
    if account.steps_down:
        account.prepare(settings)
        command = account.command(sys.executable, "-m", "anchorline.service", "work")
        os.execvpe(command[0], command, environment_of(settings, url))  # noqa: S606
    room = room_left(settings.var, settings.reserved_space)
    database = Database(url, room=room)
    try:
        return Worker(settings, make_services(settings, database)).run()
    finally:
        database.close()


def _new_database_password(settings: Settings) -> int:
    if settings.database_url is not None:
        print("ANCHORLINE_DATABASE_URL names a database of yours; set its password there.",
              file=sys.stderr)  # fmt: skip
        return 1
    server = LocalServer(settings.var / "mariadb", settings.database_port)
    server.renew_password()
    print(f"The database in {server.folder} has a new password. Start the service.")
    return 0


def _on_database(settings: Settings, given: argparse.Namespace) -> int:
    # Not needed to run the service, and slow to load.
    from anchorline.application.documents import FORMS, TARGETS
    from anchorline.store.documents import DocumentStore
    from anchorline.store.keys import KeyStore

    from .key_commands import end_key, list_keys, make_key

    with database_of(settings) as url:
        database = Database(url)
        try:
            migrate(database)
            keys = KeyStore(database)
            if given.command in ("user", "provision"):
                return _put_user(database, keys, given)
            if given.command == "keys":
                return list_keys(keys)
            if given.command == "end-key":
                return end_key(keys, given.id)
            forms, targets = (DocumentStore(database, kind.stored) for kind in (FORMS, TARGETS))
            return make_key(keys, forms.keys(), targets.keys(), given)
        finally:
            database.close()


def _put_user(database: Database, keys: KeyStore, given: argparse.Namespace) -> int:
    from anchorline.store.sign_in_brake import SignInBrake
    from anchorline.store.users import UserStore

    from .passwords import password_problem

    password = sys.stdin.readline().rstrip("\n")
    against = password_problem(password, given.email)
    if against is not None:
        print(against, file=sys.stderr)
        return 1
    UserStore(database).put(given.email, given.name, password)
    SignInBrake(database).forget_places(given.email)
    if given.command == "provision":
        made = {
            f"{kind}_key": _first_key(keys, kind, f"{kind} key of {given.name}", given)
            for kind in KEY_KINDS
        }
        print(json.dumps(made))
    return 0


def _first_key(keys: KeyStore, kind: str, name: str, given: argparse.Namespace) -> str:
    """A key for whoever sets the service up; only a browser key is tied to origins and forms."""
    wanted = WantedKey(kind, name, tuple(SCOPES))
    if kind == "browser":
        wanted = WantedKey(kind, name, (), tuple(given.origin), tuple(given.form))
    return keys.create(wanted).whole


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="python -m anchorline.service")
    commands = parser.add_subparsers(dest="command", required=True)
    run_all = commands.add_parser("run", help="start the database and the service; Ctrl-C stops it")
    run_all.add_argument("--worker", action="store_true", help="run a worker beside it")
    answering = commands.add_parser("answer", help="what the service runs to answer requests")
    answering.add_argument(
        "--wait", action="store_true", help="stand ready for whoever answers now"
    )
    commands.add_parser("work", help="run a worker, which loads reference data; Ctrl-C stops it")
    commands.add_parser("database-password", help="make a new password where it was lost")
    user = commands.add_parser("user", help="make a console user; password on standard input")
    both = commands.add_parser("provision", help="make a user and a key of each kind, as JSON")
    for people in (user, both):
        people.add_argument("email")
        people.add_argument("name")
    key = commands.add_parser("key", help="make a key and print it: the only time it is shown")
    key.add_argument("kind", choices=KEY_KINDS)
    key.add_argument("name")
    key.add_argument(
        "--scope", action="append", default=[], help=f"of a server key: {', '.join(SCOPES)}"
    )
    commands.add_parser("keys", help="list all keys, without their secrets")
    ended = commands.add_parser("end-key", help="end a key for good")
    ended.add_argument("id")
    for keys in (both, key):
        keys.add_argument("--origin", action="append", default=[], help="of a browser key")
        keys.add_argument("--form", action="append", default=[], help="of a browser key")
        keys.add_argument("--target", action="append", default=[], help="of a browser key")
    return parser


if __name__ == "__main__":
    sys.exit(main())
