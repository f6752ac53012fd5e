"""What finding needs of the database, kept on disk for a restart while that is away.

A process that is started while the database is away knows no key and no active edition. So each
process that answers keeps, every few seconds, the keys that were presented to it lately and the
editions that are active, in a file of its own: signed with the service's secret, private, and good
for ten minutes. Of a key no secret is in it, but a digest by which it is known again.
"""

from __future__ import annotations

import hashlib
import hmac
from collections.abc import Iterator, Mapping
from dataclasses import asdict, dataclass, field
from datetime import datetime
from pathlib import Path
from time import monotonic
from typing import Any

from itsdangerous import BadData, URLSafeTimedSerializer

from anchorline.core.allowance import Allowance
from anchorline.private_files import write_whole
from anchorline.store.keys import ApiKey

from .logs import logger

GOOD_FOR_SECONDS = 600
# Written again after so long, though nothing has changed: it is good for longer then.
_AGAIN_SECONDS = 60.0
_MOST_KEYS = 2_000
_MOST_BYTES = 4_000_000
_FIELDS = ("id", "kind", "name", "scopes", "origins", "forms", "targets")
_log = logger("last known")


@dataclass(frozen=True, slots=True)
class Known:
    """What a process knew.

    Attributes:
        editions: the active edition's number by dataset; None where that is not known.
        keys: by the digest of what was presented.
    """

    editions: Mapping[str, int] | None = None
    keys: Mapping[str, ApiKey] = field(default_factory=dict)


class LastKnown:
    """Keeps and recalls what processes know.

    Args:
        folder: private to the service's account.
        secret: the service's own.
    """

    def __init__(self, folder: Path, secret: str) -> None:
        self._folder, self._secret = folder, secret.encode()
        self._signer = URLSafeTimedSerializer(secret, salt="last known")
        self._kept: tuple[Known, float] | None = None

    def digest(self, presented: str) -> str:
        """By which what was presented is known again."""
        return hmac.new(self._secret, presented.encode(), hashlib.sha256).hexdigest()

    def keep(self, process: int, known: Known) -> None:
        """Keeps what a process knows, where that is new or long ago; on a full disk it is not."""
        now = monotonic()
        if self._kept is not None and self._kept[0] == known and now < self._kept[1]:
            return
        keys = dict(list(known.keys.items())[-_MOST_KEYS:])
        data = {
            "editions": known.editions,
            "keys": {digest: _written(key) for digest, key in keys.items()},
        }
        try:
            write_whole(self._folder / f"process-{process}", self._signer.dumps(data).encode())
        except OSError as error:
            _log.warning("not kept", error=str(error))
            return
        self._kept = (known, now + _AGAIN_SECONDS)

    def recall(self) -> Known:
        """What any process knew in the last ten minutes; of editions, what the latest knew."""
        keys: dict[str, ApiKey] = {}
        editions: Mapping[str, int] | None = None
        for _at, data in sorted(self._files(), key=lambda one: one[0]):
            editions = data["editions"] if data["editions"] is not None else editions
            keys |= {digest: _read(entry) for digest, entry in data["keys"].items()}
        return Known(editions, keys)

    def _files(self) -> Iterator[tuple[datetime, dict[str, Any]]]:
        for path in self._folder.glob("process-*"):
            try:
                if path.stat().st_size > _MOST_BYTES:
                    continue
                data, at = self._signer.loads(
                    path.read_bytes(), max_age=GOOD_FOR_SECONDS, return_timestamp=True
                )
            except (OSError, BadData):  # gone, too old, or not ours
                continue
            yield at, data


def _written(key: ApiKey) -> dict[str, Any]:
    return {
        **{name: getattr(key, name) for name in _FIELDS},
        "expires_at": key.expires_at.isoformat() if key.expires_at else None,
        "allowance": asdict(key.allowance),
    }


def _read(entry: Mapping[str, Any]) -> ApiKey:
    expires_at = entry["expires_at"]
    return ApiKey(
        entry["id"],
        entry["kind"],
        entry["name"],
        scopes=tuple(entry["scopes"]),
        origins=tuple(entry["origins"]),
        forms=tuple(entry["forms"]),
        targets=tuple(entry["targets"]),
        expires_at=datetime.fromisoformat(expires_at) if expires_at else None,
        allowance=Allowance(**entry["allowance"]),
    )
