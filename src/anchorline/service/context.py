"""The services that handlers use, made once in each process."""

from __future__ import annotations

from dataclasses import dataclass

from anchorline.core.gazetteer import load_abbreviations
from anchorline.core.layouts import LayoutLibrary, load_names, shipped_layouts
from anchorline.store.activity import ActivityStore
from anchorline.store.address_uses import AddressUses
from anchorline.store.capture_quality import CaptureQuality
from anchorline.store.coverage_runs import CoverageRuns
from anchorline.store.database import Database
from anchorline.store.datasets import DatasetStore
from anchorline.store.edition_files import EditionFiles
from anchorline.store.form_editors import FormEditorStore
from anchorline.store.forms import FormStore
from anchorline.store.jobs import JobStore
from anchorline.store.keys import KeyStore
from anchorline.store.load_data import LoadData
from anchorline.store.looks import LookStore
from anchorline.store.own_layouts import OwnLayoutStore
from anchorline.store.record_changes import RecordChanges
from anchorline.store.record_lookups import RecordLookups
from anchorline.store.records import RecordStore
from anchorline.store.sign_in_brake import SignInBrake
from anchorline.store.target_faults import TargetFaults
from anchorline.store.target_runs import TargetRuns
from anchorline.store.targets import TargetStore
from anchorline.store.use_journal import UseJournal
from anchorline.store.users import UserStore

from .access import Gate
from .active_gazetteer import ActiveGazetteer
from .activity import Activity
from .allowed import Allowed
from .checked_forms import CheckedForms
from .last_known import LastKnown
from .layouts_in_force import CurrentLayouts
from .published_documents import PublishedDocuments
from .recent_answers import RecentAnswers
from .settings import Settings


@dataclass(frozen=True, slots=True)
class Services:
    """The stores, the gazetteer, the layouts and the gate.

    `layouts` are the shipped ones, `layouts_in_force` those with administrators' own laid over.
    """

    settings: Settings
    database: Database
    datasets: DatasetStore
    edition_files: EditionFiles
    jobs: JobStore
    coverage_runs: CoverageRuns
    load_data: LoadData
    forms: FormStore
    form_editors: FormEditorStore
    published_forms: PublishedDocuments
    checked_forms: CheckedForms
    targets: TargetStore
    target_faults: TargetFaults
    target_runs: TargetRuns
    looks: LookStore
    published_targets: PublishedDocuments
    own_layouts: OwnLayoutStore
    records: RecordStore
    record_changes: RecordChanges
    record_lookups: RecordLookups
    users: UserStore
    sign_in_brake: SignInBrake
    keys: KeyStore
    layouts: LayoutLibrary
    layouts_in_force: CurrentLayouts
    gazetteer: ActiveGazetteer
    recent_answers: RecentAnswers
    gate: Gate
    last_known: LastKnown
    allowed: Allowed
    address_uses: AddressUses
    calls: ActivityStore
    capture_quality: CaptureQuality
    activity: Activity


def make_services(settings: Settings, database: Database) -> Services:
    """Everything that handlers need, on one database."""
    datasets, users, keys = DatasetStore(database), UserStore(database), KeyStore(database)
    files, layouts = EditionFiles(settings.gazetteer_folder), shipped_layouts()
    own_layouts, forms = OwnLayoutStore(database), FormStore(database)
    targets = TargetStore(database)
    # Once, before the workers part ways: nobody's first keystroke waits for it.
    load_names()
    load_abbreviations()
    records, allowed = RecordStore(database), Allowed.by(settings)
    calls = ActivityStore(database)
    last_known = LastKnown(settings.known_folder, settings.signing_secret())
    return Services(
        settings=settings,
        database=database,
        datasets=datasets,
        edition_files=files,
        jobs=JobStore(database),
        coverage_runs=CoverageRuns(database),
        load_data=LoadData(database),
        forms=forms,
        form_editors=FormEditorStore(database),
        published_forms=PublishedDocuments(forms),
        checked_forms=CheckedForms(layouts),
        targets=targets,
        target_faults=TargetFaults(database),
        target_runs=TargetRuns(database),
        looks=LookStore(database),
        published_targets=PublishedDocuments(targets),
        own_layouts=own_layouts,
        records=records,
        record_changes=RecordChanges(database, records),
        record_lookups=RecordLookups(database),
        users=users,
        sign_in_brake=SignInBrake(database),
        keys=keys,
        layouts=layouts,
        layouts_in_force=CurrentLayouts(own_layouts, layouts),
        gazetteer=ActiveGazetteer(datasets, files, layouts),
        recent_answers=RecentAnswers(),
        gate=Gate(keys, users, settings.signing_secret(), allowed, last_known.digest),
        last_known=last_known,
        allowed=allowed,
        address_uses=AddressUses(database, UseJournal(settings.uses_folder / "waiting")),
        calls=calls,
        capture_quality=CaptureQuality(database),
        activity=Activity(calls),
    )
