"""Files that must be whole, and folders that must be nobody else's.

A file is written beside its place, synced and renamed, so that whoever reads it finds what was
there before or what is there now, also after a full disk or a crash in the middle. A folder is
used only where no other account can put anything into it.
"""

from __future__ import annotations

import os
import secrets
import stat
from collections.abc import Collection, Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from pathlib import Path

PRIVATE_FILE = 0o600
PRIVATE_FOLDER = 0o700
_WRITABLE_BY_OTHERS = stat.S_IWGRP | stat.S_IWOTH


class UnsafeFolderError(Exception):
    """Another account could have put something into a folder; the message says what to do."""


@dataclass(frozen=True, slots=True)
class Account:
    """A Unix account, by the numbers of its user and its group."""

    uid: int
    gid: int


def write_whole(
    path: Path, data: bytes, *, mode: int = PRIVATE_FILE, owner: Account | None = None
) -> None:
    """Writes a file whole or not at all; the file that was there before stays until then.

    Raises:
        OSError: it cannot be written; what was there is untouched.
    """
    with _beside(path, data, mode, owner) as written:
        written.rename(path)
    sync_folder(path.parent)


def make_once(path: Path, data: bytes, *, owner: Account | None = None) -> bytes:
    """Makes a file where there is none; returns what it holds then.

    Of several processes that make it at once, one is first and all get what that one wrote.
    """
    with _beside(path, data, PRIVATE_FILE, owner) as written, suppress(FileExistsError):
        path.hardlink_to(written)
    sync_folder(path.parent)
    return path.read_bytes()


def private_folder(
    path: Path,
    *,
    mode: int = PRIVATE_FOLDER,
    owner: Account | None = None,
    accepted: Collection[int] = (),
) -> None:
    """Makes a folder with this mode, or makes sure that one is nobody else's.

    Args:
        mode: of the folder; one that is there with a wider mode is narrowed to it.
        owner: whose it is, where this process may say so.
        accepted: other accounts whose it may have been until now.

    Raises:
        UnsafeFolderError: it is a link, no folder, or belongs to another account.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    with suppress(FileExistsError):
        path.mkdir(mode=mode)
    found = path.lstat()
    if not stat.S_ISDIR(found.st_mode):
        kind = "a link" if stat.S_ISLNK(found.st_mode) else "no folder"
        raise UnsafeFolderError(
            f"{path} is {kind}. Look who put it there, take it away, and start again."
        )
    trusted = {os.geteuid(), 0, *accepted, *([owner.uid] if owner else [])}
    if found.st_uid not in trusted:
        raise UnsafeFolderError(
            f"{path} belongs to the account {found.st_uid}. Look what is in it; give it to the "
            f"account that starts the service (chown), or take it away, and start again."
        )
    if stat.S_IMODE(found.st_mode) & ~mode or found.st_mode & _WRITABLE_BY_OTHERS:
        path.chmod(mode)
    if owner is not None and os.geteuid() == 0:
        os.chown(path, owner.uid, owner.gid, follow_symlinks=False)


def give(folder: Path, owner: Account) -> None:
    """Gives a folder of root's with all that is in it to an account, following no link.

    One that is the account's already is left alone: what that account put there must not be
    able to have anything else given to it.
    """
    if os.geteuid() != 0 or folder.lstat().st_uid == owner.uid:
        return
    for _, folders, files, descriptor in os.fwalk(folder, topdown=False):
        for name in [*folders, *files]:
            os.chown(name, owner.uid, owner.gid, dir_fd=descriptor, follow_symlinks=False)
    os.chown(folder, owner.uid, owner.gid, follow_symlinks=False)


def sync_folder(folder: Path) -> None:
    """Makes the names in a folder last."""
    descriptor = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
    try:
        os.fsync(descriptor)
    finally:
        os.close(descriptor)


@contextmanager
def _beside(path: Path, data: bytes, mode: int, owner: Account | None) -> Iterator[Path]:
    """A synced file of another name in the same folder, which is gone at the end."""
    written = path.with_name(f".{path.name}.{secrets.token_hex(6)}")
    descriptor = os.open(written, os.O_WRONLY | os.O_CREAT | os.O_EXCL | os.O_NOFOLLOW, mode)
    try:
        with os.fdopen(descriptor, "wb") as file:
            os.fchmod(file.fileno(), mode)
            if owner is not None and os.geteuid() == 0:
                os.fchown(file.fileno(), owner.uid, owner.gid)
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        yield written
    finally:
        written.unlink(missing_ok=True)
