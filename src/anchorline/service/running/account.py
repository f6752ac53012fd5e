"""Which account the service runs under: never root's, unless the settings say so.

Started as root, only the supervisor stays root, as it must to start the database under an account
of its own. What answers requests and what loads files steps down to another account.
"""

from __future__ import annotations

import os
import pwd
import stat
import sys
import sysconfig
from pathlib import Path

from anchorline.private_files import PRIVATE_FOLDER, Account, give

from ..logs import logger
from ..settings import Settings
from .run_error import RunError

# Ends a process together with whoever started it, however that comes.
_TIED = ("--pdeathsig", "TERM", "--")
_log = logger("running")


class ServiceAccount:
    """The account that the service steps down to; none where it stays what it is.

    Raises:
        RunError: root started it, and there is no such account.
    """

    def __init__(self, settings: Settings) -> None:
        self._account: Account | None = None
        if os.geteuid() != 0:
            return
        if settings.account == "root":
            _log.warning("the service runs as root: ANCHORLINE_ACCOUNT says so")
            return
        try:
            found = pwd.getpwnam(settings.account)
        except KeyError:
            raise RunError(
                f"Root starts the service, but there is no account {settings.account} to run it "
                f"under. Make it (useradd --system --no-create-home {settings.account}), or name "
                "another one with ANCHORLINE_ACCOUNT."
            ) from None
        self._account = Account(found.pw_uid, found.pw_gid)

    @property
    def steps_down(self) -> bool:
        """Whether there is an account to step down to."""
        return self._account is not None

    def prepare(self, settings: Settings) -> None:
        """Makes what the service writes to and reads, and gives it to the account."""
        settings.signing_secret()
        private = (settings.uses_folder, settings.known_folder)
        folders = (settings.gazetteer_folder, *private)
        for folder in folders:
            folder.mkdir(parents=True, exist_ok=True)
        for folder in private:
            folder.chmod(PRIVATE_FOLDER)
        if self._account is None:
            return
        for folder in folders:
            give(folder, self._account)
        secret = settings.var / "service-secret"
        if secret.exists():
            os.chown(secret, self._account.uid, self._account.gid, follow_symlinks=False)

    def command(self, *command: str) -> list[str]:
        """A command that runs under the account and ends with this process."""
        if self._account is None:
            return ["setpriv", *_TIED, *command]
        lent = "-all" if _everybody_reads_the_program() else "-all,+dac_read_search"
        return [
            "setpriv",
            f"--reuid={self._account.uid}", f"--regid={self._account.gid}", "--clear-groups",
            "--no-new-privs", f"--bounding-set={lent}", f"--inh-caps={lent}",
            f"--ambient-caps={lent}", *_TIED, *command,
        ]  # fmt: skip


def _everybody_reads_the_program() -> bool:
    """Whether other accounts reach Python, its library and this package.

    Where they do not (an interpreter in root's home, say), the account is lent the right to read,
    and no other.
    """
    places = (
        Path(sys.executable).resolve(),
        Path(sysconfig.get_path("stdlib")).resolve(),
        Path(sysconfig.get_path("purelib")).resolve(),
        Path(__file__).resolve(),
    )
    return all(
        folder.stat().st_mode & stat.S_IXOTH
        for place in places
        for folder in (place.parents if place.is_file() else [place, *place.parents])
    )
