import os
from pathlib import Path

import pytest
from sqlalchemy import text
from sqlalchemy.exc import SQLAlchemyError

from anchorline.store.database import Database
from anchorline.store.local_server import LocalServer, _enterable
from tests.conftest import free_port


def test_the_server_runs_without_root_on_loopback_and_shows_no_password(local_server, database_url):
    pid = int((local_server.folder / "data" / "mariadb.pid").read_text())
    owner = Path(f"/proc/{pid}").owner()
    assert owner != "root"
    command = Path(f"/proc/{pid}/cmdline").read_text()
    assert "--bind-address=127.0.0.1" in command
    password = database_url.split(":")[2].split("@")[0]
    assert len(password) >= 24
    assert password not in command
    assert (local_server.folder / "access.json").stat().st_mode & 0o777 == 0o600
    assert not (local_server.folder / "first-start.sql").exists()


def test_starting_a_running_server_finds_it(local_server, database_url):
    again = LocalServer(local_server.folder, free_port())
    assert again.alive()
    assert again.start() == database_url


@pytest.mark.parametrize(
    "statement", ["SELECT * FROM mysql.user", "CREATE DATABASE other", "SHUTDOWN"]
)
def test_the_account_may_do_nothing_outside_its_database(database, statement):
    with pytest.raises(SQLAlchemyError), database.engine.connect() as connection:
        connection.execute(text(statement))


def test_texts_are_kept_and_compared_in_full_unicode(database):
    with database.engine.connect() as connection:
        collation = connection.execute(text("SELECT @@collation_connection")).scalar()
        equal = connection.execute(text("SELECT 'é🎹' = 'E🎹', '🎹' = '🎸'")).one()
    assert collation == "utf8mb4_uca1400_ai_ci"
    assert tuple(equal) == (1, 0)


@pytest.mark.skipif(os.geteuid() != 0, reason="only root gives its place up to another account")
def test_a_folder_that_the_account_cannot_reach_is_replaced_by_one_that_it_can(tmp_path):
    closed = tmp_path / "closed"
    closed.mkdir(mode=0o700)
    elsewhere = _enterable(closed / "var" / "mariadb")
    assert elsewhere.parent == Path("/var/tmp")
    open_folder = Path("/tmp/anchorline-open/mariadb")
    assert _enterable(open_folder) == open_folder


def test_a_closed_pool_leaves_no_connection_open(database_url):
    one = Database(database_url)
    one.ping()
    one.close()
    other = Database(database_url)
    with other.transaction() as session:
        count = session.execute(
            text("SELECT COUNT(*) FROM information_schema.processlist")
        ).scalar()
    other.close()
    assert count < 10
