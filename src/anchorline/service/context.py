"""The services that handlers use, made once in each process."""

from __future__ import annotations

from dataclasses import dataclass, fields

from anchorline.application import services as application
from anchorline.application.documents import KINDS
from anchorline.core.gazetteer import load_abbreviations
from anchorline.core.layouts import load_names, shipped_layouts
from anchorline.store.database import Database
from anchorline.store.edition_files import EditionFiles
from anchorline.store.sign_in_brake import SignInBrake
from anchorline.store.use_journal import UseJournal
from anchorline.store.users import UserStore

from .access import Gate
from .activity import Activity
from .allowed import Allowed
from .last_known import LastKnown
from .recent_answers import RecentAnswers
from .settings import Settings


@dataclass(frozen=True, slots=True)
class Services(application.Services):
    """What use cases work with, and what serving them needs: settings, the gate, limits, counts."""

    settings: Settings
    users: UserStore
    sign_in_brake: SignInBrake
    recent_answers: RecentAnswers
    gate: Gate
    last_known: LastKnown
    allowed: Allowed
    activity: Activity


def make_services(settings: Settings, database: Database) -> Services:
    """Everything that handlers need, on one database."""
    users, layouts = UserStore(database), shipped_layouts()
    files = EditionFiles(settings.gazetteer_folder)
    journal = UseJournal(settings.uses_folder / "waiting")
    # Once, before the workers part ways: nobody's first keystroke waits for it.
    load_names()
    load_abbreviations()
    kinds = [kind.stored for kind in KINDS.values()]
    inner = application.make_services(database, kinds, files, journal, layouts)
    allowed = Allowed.by(settings)
    last_known = LastKnown(settings.known_folder, settings.signing_secret())
    return Services(
        **{one.name: getattr(inner, one.name) for one in fields(inner)},
        settings=settings,
        users=users,
        sign_in_brake=SignInBrake(database),
        recent_answers=RecentAnswers(),
        gate=Gate(inner.keys, users, settings.signing_secret(), allowed, last_known.digest),
        last_known=last_known,
        allowed=allowed,
        activity=Activity(inner.calls),
    )
