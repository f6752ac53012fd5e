from datetime import timedelta

import pytest
from alembic.autogenerate import compare_metadata
from alembic.runtime.migration import MigrationContext

from anchorline.core.errors import EditionError
from anchorline.core.gazetteer import Row, build_edition
from anchorline.core.keys import WantedKey
from anchorline.store.database import NotThereError
from anchorline.store.datasets import DatasetStore, EditionEntry
from anchorline.store.edition_files import EditionFiles
from anchorline.store.job_model import NewJob
from anchorline.store.jobs import JobStore
from anchorline.store.keys import EndedKeyError, KeyStore
from anchorline.store.migrate import is_migrated
from anchorline.store.schema_documents import DocumentRow
from anchorline.store.users import UserStore


def test_people_sign_in_with_their_password_only(database, clock):
    users = UserStore(database)
    users.put("Ada@Example.org", "Ada", "correct horse")
    assert users.check_password("ada@example.org", "wrong") is None
    assert users.check_password("nobody@example.org", "correct horse") is None
    user = users.check_password("ADA@example.org", "correct horse")
    token, session = users.open_session(user)
    assert users.find_session(token) == session
    clock.forward(hours=13)
    assert users.find_session(token) is None


def test_a_new_password_ends_the_sessions(database):
    users = UserStore(database)
    users.put("bob@example.org", "Bob", "first password")
    token, _ = users.open_session(users.check_password("bob@example.org", "first password"))
    users.put("bob@example.org", "Bob", "second password")
    assert users.find_session(token) is None
    assert users.check_password("bob@example.org", "first password") is None


def test_a_key_is_kept_as_a_digest_and_checked_whole(database):
    keys = KeyStore(database)
    wanted = WantedKey("browser", "Page", (), ("https://a.example",), ("visit",))
    key = keys.create(wanted).whole
    found = keys.check(key)
    assert (found.kind, found.origins, found.forms) == (
        "browser", ("https://a.example",), ("visit",),
    )  # fmt: skip
    assert keys.check(key[:-1] + ("a" if key[-1] != "a" else "b")) is None
    assert keys.check(key.replace("browser", "server")) is None
    assert keys.check("anl_server_x") is None
    assert keys.check(key.replace("browser", "root")) is None


def test_a_secret_of_before_goes_on_until_its_time_is_over(database, clock):
    keys = KeyStore(database)
    made = keys.create(WantedKey("server", "P", ("find",), expires_at=clock() + timedelta(days=2)))
    later = keys.rotate(made.key.id, timedelta(hours=1))
    clock.forward(hours=1, seconds=-1)
    assert keys.check(made.whole) is not None
    clock.forward(seconds=1)
    assert keys.check(made.whole) is None
    assert keys.check(later.whole) is not None
    clock.forward(days=2)
    assert keys.check(later.whole) is None, "expired"
    with pytest.raises(EndedKeyError):
        keys.rotate(made.key.id, timedelta())


def test_a_use_is_noted_once_in_a_minute(database, clock):
    keys = KeyStore(database)
    made = keys.create(WantedKey("server", "P", ("find",)))
    used = []
    for _ in range(3):
        keys.check(made.whole)
        used.append(keys.get(made.key.id).used_at)
        clock.forward(seconds=40)
    assert used[0] == used[1] == clock() - timedelta(seconds=120)
    assert used[2] == clock() - timedelta(seconds=40)


def test_an_edition_is_written_opened_and_activated(database, layouts, tmp_path):
    files, datasets = EditionFiles(tmp_path), DatasetStore(database)
    JobStore(database).make(NewJob("load", "ds", "me"), receiving=True)
    number = datasets.give_number("ds")
    rows = [Row("1", "GB", {"street": "Abbey Lane", "town": "Marl"}, "", 52.0, -1.0)]
    assert files.write("ds", number, build_edition(rows, layouts)) > 0
    assert files.open("ds", number).address(0).components["town"] == "Marl"
    datasets.put_edition(EditionEntry("ds", number, "f.csv", "0" * 64, 1, 0))
    datasets.activate("ds", number)
    assert datasets.active()["ds"] == number
    assert datasets.give_number("ds") == number + 1
    with pytest.raises(NotThereError, match="no edition 99"):
        datasets.activate("ds", 99)
    with pytest.raises(EditionError, match="cannot be opened"):
        files.open("ds", 99)


def test_the_tables_are_those_of_this_release(database):
    assert is_migrated(database)
    with database.engine.connect() as connection:
        differences = compare_metadata(MigrationContext.configure(connection), DocumentRow.metadata)
    assert differences == []
