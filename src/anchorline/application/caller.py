"""Who calls: a trusted program, a public page or key, or a signed-in person."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime

from anchorline.core.allowance import PEOPLE, Allowance
from anchorline.store.users import LoginSession

_ANYBODY = frozenset({"browser", "page"})


@dataclass(frozen=True, slots=True)
class Caller:
    """Who calls.

    Attributes:
        kind: `public`, `browser`, `page`, `server` or `person`.
        name: for records: the key's name, the page's form, or the e-mail address.
        forms, targets: those it is tied to; None for all.
        origin: of the page that calls; empty where none is told.
        scopes: what a server key may do; None where nothing limits that.
        session: of a signed-in person.
        key_id: the part of a key that may be shown, or a page's form.
        since: when a page was opened; None for all others.
        allowance: how many addresses a key may fetch; that of a page is in its form.
    """

    kind: str
    name: str
    forms: tuple[str, ...] | None = None
    targets: tuple[str, ...] | None = None
    scopes: tuple[str, ...] | None = None
    session: LoginSession | None = None
    key_id: str = ""
    since: datetime | None = None
    origin: str = ""
    allowance: Allowance = field(default_factory=Allowance)

    @property
    def subject(self) -> str:
        """For whom calls and addresses are counted: the key, the page, or people."""
        return PEOPLE if self.kind == "person" else self.key_id

    @property
    def is_anybody(self) -> bool:
        """Whether anybody can be it: its key, or its page, is open to all."""
        return self.kind in _ANYBODY

    @property
    def form(self) -> str | None:
        """Of a public page, its form."""
        return self.forms[0] if self.kind == "page" and self.forms else None

    @property
    def may_see_drafts(self) -> bool:
        """Whether the caller makes forms, and does not only fill them."""
        if self.kind == "person":
            return True
        return self.kind == "server" and "forms" in (self.scopes or ())

    @property
    def may_observe(self) -> bool:
        """Whether the caller may read what people have typed and were answered."""
        return self.kind == "person" or "observe" in (self.scopes or ())

    def may_use_form(self, key: str) -> bool:
        """Whether the caller may read, fill and submit a form."""
        return self.forms is None or key in self.forms

    def may_use_target(self, key: str) -> bool:
        """Whether the caller may attach a page to a target."""
        return self.targets is None or key in self.targets
