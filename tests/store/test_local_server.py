import os
import shutil
import socket
import tempfile
from pathlib import Path

import pytest
from sqlalchemy import text
from sqlalchemy.exc import SQLAlchemyError

from anchorline.store.database import Database
from anchorline.store.local_server import LocalServer, LocalServerError
from anchorline.store.server_folder import _enterable
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
    counting = text("SELECT COUNT(*) FROM information_schema.processlist")
    count = other.run(lambda session: session.execute(counting).scalar())
    other.close()
    assert count < 10


@pytest.fixture(scope="module")
def used_server():
    """A server of its own, stopped, with one table."""
    folder = Path(tempfile.mkdtemp(prefix="anchorline-test-", dir="/tmp"))
    folder.chmod(0o755)
    server = LocalServer(folder / "mariadb", free_port())
    execute(server.start(), "CREATE TABLE kept (what VARCHAR(20))")
    execute(server.start(), "INSERT INTO kept VALUES ('still here')")
    server.stop()
    server = LocalServer(folder / "mariadb", free_port())
    yield server
    server.stop()
    shutil.rmtree(folder)


def execute(url, statement):
    database = Database(url)

    def work(session):
        result = session.execute(text(statement))
        return result.scalar() if result.returns_rows else None

    try:
        return database.run(work)
    finally:
        database.close()


@pytest.mark.parametrize("left", [None, b"", b'{"port": 84', b"[]", b'{"port": 1}'])
def test_a_start_without_the_password_removes_nothing_and_says_how_to_get_in(used_server, left):
    access = used_server.folder / "access.json"
    before = access.read_bytes()
    access.unlink()
    if left is not None:
        access.write_bytes(left)
    with pytest.raises(LocalServerError, match="database-password") as refused:
        used_server.start()
    assert str(access) in str(refused.value)
    assert "Nothing was changed" in str(refused.value)
    access.write_bytes(before)
    url = used_server.start()
    assert execute(url, "SELECT what FROM kept") == "still here"
    used_server.stop()


def test_a_new_password_opens_the_same_data(used_server):
    (used_server.folder / "access.json").unlink()
    used_server.renew_password()
    assert (used_server.folder / "first-start.sql").stat().st_mode & 0o777 == 0o600
    url = used_server.start()
    assert execute(url, "SELECT what FROM kept") == "still here"
    assert not (used_server.folder / "first-start.sql").exists()
    with pytest.raises(LocalServerError, match="Stop the service first"):
        used_server.renew_password()
    used_server.stop()


def test_a_new_password_for_no_data_is_refused(tmp_path):
    with pytest.raises(LocalServerError, match="There is no database in"):
        LocalServer(tmp_path / "mariadb", 1).renew_password()


def test_a_server_that_died_comes_back_under_the_same_url(used_server):
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        preferred = taken.getsockname()[1]
        server = LocalServer(used_server.folder, preferred)
        url = server.start()
    assert f":{preferred}/" not in url
    # By now the preferred port is free; whoever was given the URL still has it.
    server._process.kill()
    server._process.wait()
    assert server.start() == url
    server.stop()


@pytest.mark.skipif(os.geteuid() != 0, reason="only root gives its place up to another account")
def test_a_link_that_somebody_prepared_is_not_followed():
    folder = Path(tempfile.mkdtemp(prefix="anchorline-test-", dir="/tmp"))
    folder.chmod(0o755)
    (folder / "elsewhere").mkdir()
    server = LocalServer(folder / "mariadb", free_port())
    (folder / "mariadb").symlink_to(folder / "elsewhere")
    with pytest.raises(LocalServerError, match="is a link"):
        server.start()
    assert list((folder / "elsewhere").iterdir()) == []
    shutil.rmtree(folder)
