import os
import threading

import pytest

from anchorline.private_files import (
    Account,
    UnsafeFolderError,
    give,
    make_once,
    private_folder,
    write_whole,
)

AS_ROOT = pytest.mark.skipif(os.geteuid() != 0, reason="only root can be another account")
NOBODY = Account(65534, 65534)


def test_a_file_is_replaced_whole_and_only_its_owner_reads_it(tmp_path):
    path = tmp_path / "kept"
    write_whole(path, b"first")
    write_whole(path, b"second")
    assert path.read_bytes() == b"second"
    assert path.stat().st_mode & 0o777 == 0o600
    assert [entry.name for entry in tmp_path.iterdir()] == ["kept"]


def test_where_the_disk_is_full_the_file_stays_as_it_was(tmp_path, monkeypatch):
    path = tmp_path / "kept"
    write_whole(path, b"first")
    monkeypatch.setattr(os, "fsync", full_disk)
    with pytest.raises(OSError, match="No space"):
        write_whole(path, b"second")
    assert path.read_bytes() == b"first"
    assert [entry.name for entry in tmp_path.iterdir()] == ["kept"]


def full_disk(_descriptor):
    raise OSError(28, "No space left on device")


def test_a_link_at_its_place_is_replaced_and_not_followed(tmp_path):
    other = tmp_path / "other"
    other.write_text("somebody's")
    (tmp_path / "kept").symlink_to(other)
    write_whole(tmp_path / "kept", b"ours")
    assert other.read_text() == "somebody's"
    assert (tmp_path / "kept").read_bytes() == b"ours"


def test_of_many_who_make_a_file_at_once_all_get_the_same(tmp_path):
    got = []
    threads = [
        threading.Thread(target=lambda i=i: got.append(make_once(tmp_path / "s", b"%d" % i)))
        for i in range(8)
    ]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(set(got)) == 1


def test_a_folder_that_is_a_link_is_refused(tmp_path):
    (tmp_path / "elsewhere").mkdir()
    (tmp_path / "folder").symlink_to(tmp_path / "elsewhere")
    with pytest.raises(UnsafeFolderError, match="is a link"):
        private_folder(tmp_path / "folder")


def test_a_file_at_a_folders_place_is_refused(tmp_path):
    (tmp_path / "folder").write_text("")
    with pytest.raises(UnsafeFolderError, match="no folder"):
        private_folder(tmp_path / "folder")


@AS_ROOT
def test_a_folder_of_another_account_is_refused_unless_it_is_accepted(tmp_path):
    (tmp_path / "folder").mkdir()
    os.chown(tmp_path / "folder", NOBODY.uid, NOBODY.gid)
    with pytest.raises(UnsafeFolderError, match="belongs to the account 65534"):
        private_folder(tmp_path / "folder")
    private_folder(tmp_path / "folder", owner=Account(0, 0), accepted=[NOBODY.uid])
    assert (tmp_path / "folder").stat().st_uid == 0


def test_a_folder_that_others_may_write_to_is_narrowed(tmp_path):
    (tmp_path / "folder").mkdir()
    (tmp_path / "folder").chmod(0o777)
    private_folder(tmp_path / "folder", mode=0o711)
    assert (tmp_path / "folder").stat().st_mode & 0o777 == 0o711


@AS_ROOT
def test_a_tree_is_given_away_without_following_links(tmp_path):
    other = tmp_path / "other"
    other.write_text("root's")
    tree = tmp_path / "tree"
    (tree / "inner").mkdir(parents=True)
    (tree / "inner" / "link").symlink_to(other)
    give(tree, NOBODY)
    assert (tree / "inner").stat().st_uid == NOBODY.uid
    assert other.stat().st_uid == 0
    # Given once, it is the account's: what that puts there later is not touched.
    (tree / "later").write_text("")
    give(tree, NOBODY)
    assert (tree / "later").stat().st_uid == 0
