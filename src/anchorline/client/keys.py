"""The calls on keys: listed, made, rotated, ended."""

from __future__ import annotations

import builtins
from collections.abc import Sequence
from datetime import datetime

from anchorline.wire.keys import (
    KeyList,
    KeySchema,
    NewKeyRequest,
    NewSecretAnswer,
    RotateKeyRequest,
)
from anchorline.wire.usage import USUAL_WARN_SHARE, AllowanceRequest

from .calls import Calls, part, read_answer, request_body


class Keys(Calls):
    """Keys, as `Client.keys`. They need the scope `administer`."""

    def list(self) -> builtins.list[KeySchema]:
        """All keys without their secrets, the oldest first."""
        return [key for page in self._every("keys", KeyList) for key in page.keys]

    def make(
        self,
        kind: str,
        name: str,
        *,
        scopes: Sequence[str] = (),
        origins: Sequence[str] = (),
        forms: Sequence[str] = (),
        targets: Sequence[str] = (),
        expires_at: datetime | None = None,
    ) -> NewSecretAnswer:
        """Makes a key; its secret is in this answer and nowhere else.

        Args:
            kind: `server` or `browser`.
            name: what it is for.
            scopes: of a server key: what it may do.
            origins: of a browser key: where its pages are.
            forms, targets: of a browser key: those that it may be used for.
        """
        body = request_body(
            NewKeyRequest,
            kind=kind,
            name=name,
            scopes=list(scopes),
            origins=list(origins),
            forms=list(forms),
            targets=list(targets),
            expires_at=expires_at,
        )
        answer = self._transport.send("POST", "keys", body=body)
        return read_answer(NewSecretAnswer, answer)

    def rotate(self, key: str, *, overlap_hours: int = 24) -> NewSecretAnswer:
        """Gives a key a new secret; the present one goes on for some hours."""
        body = request_body(RotateKeyRequest, overlap_hours=overlap_hours)
        answer = self._transport.send("POST", f"keys/{part(key)}/rotate", body=body)
        return read_answer(NewSecretAnswer, answer)

    def allow(
        self, key: str, monthly_limit: int | None, *, warn_share: float = USUAL_WARN_SHARE
    ) -> KeySchema:
        """Says how many addresses a key may fetch in a calendar month (UTC); None for any number.

        Args:
            warn_share: from which part of that on it counts as near its limit.
        """
        body = request_body(AllowanceRequest, monthly_limit=monthly_limit, warn_share=warn_share)
        answer = self._transport.send("PUT", f"keys/{part(key)}/allowance", body=body)
        return read_answer(KeySchema, answer)

    def end(self, key: str) -> KeySchema:
        """Ends a key for good."""
        return self._post(f"keys/{part(key)}/end", KeySchema)
