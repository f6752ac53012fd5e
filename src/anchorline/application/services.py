"""What use cases work with, made once in each process."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from anchorline.core.layouts import LayoutLibrary
from anchorline.store.activity import ActivityStore
from anchorline.store.address_uses import AddressUses
from anchorline.store.capture_quality import CaptureQuality
from anchorline.store.coverage_runs import CoverageRuns
from anchorline.store.database import Database
from anchorline.store.datasets import DatasetStore
from anchorline.store.document_editors import DocumentEditors
from anchorline.store.document_model import StoredKind
from anchorline.store.documents import DocumentStore
from anchorline.store.edition_files import EditionFiles
from anchorline.store.jobs import JobStore
from anchorline.store.keys import KeyStore
from anchorline.store.load_data import LoadData
from anchorline.store.looks import LookStore
from anchorline.store.record_changes import RecordChanges
from anchorline.store.record_lookups import RecordLookups
from anchorline.store.records import RecordStore
from anchorline.store.target_faults import TargetFaults
from anchorline.store.target_runs import TargetRuns
from anchorline.store.use_journal import UseJournal

from .active_gazetteer import ActiveGazetteer
from .checked_forms import CheckedForms
from .layouts_in_force import CurrentLayouts
from .published_documents import PublishedDocuments


@dataclass(frozen=True, slots=True)
class Services:
    """The stores, the gazetteer and the layouts.

    `documents` has a store for each kind of document, by its name. `layouts` are the shipped ones,
    `layouts_in_force` those with administrators' own laid over.
    """

    database: Database
    datasets: DatasetStore
    edition_files: EditionFiles
    jobs: JobStore
    coverage_runs: CoverageRuns
    load_data: LoadData
    documents: Mapping[str, DocumentStore]
    editors: DocumentEditors
    published_forms: PublishedDocuments
    checked_forms: CheckedForms
    target_faults: TargetFaults
    target_runs: TargetRuns
    looks: LookStore
    published_targets: PublishedDocuments
    records: RecordStore
    record_changes: RecordChanges
    record_lookups: RecordLookups
    layouts: LayoutLibrary
    layouts_in_force: CurrentLayouts
    gazetteer: ActiveGazetteer
    address_uses: AddressUses
    keys: KeyStore
    calls: ActivityStore
    capture_quality: CaptureQuality

    @property
    def forms(self) -> DocumentStore:
        """The forms among the documents."""
        return self.documents["form"]

    @property
    def targets(self) -> DocumentStore:
        """The targets among the documents."""
        return self.documents["target"]

    @property
    def own_layouts(self) -> DocumentStore:
        """The own layouts among the documents."""
        return self.documents["own_layout"]


def make_services(
    database: Database,
    kinds: Iterable[StoredKind],
    files: EditionFiles,
    journal: UseJournal,
    layouts: LayoutLibrary,
) -> Services:
    """Everything that use cases need, on one database.

    Args:
        kinds: of documents.
        files: the editions' indexes.
        journal: where uses wait while the database is away.
        layouts: the shipped ones.
    """
    datasets, records = DatasetStore(database), RecordStore(database)
    documents = {kind.name: DocumentStore(database, kind) for kind in kinds}
    return Services(
        database=database,
        datasets=datasets,
        edition_files=files,
        jobs=JobStore(database),
        coverage_runs=CoverageRuns(database),
        load_data=LoadData(database),
        documents=documents,
        editors=DocumentEditors(database),
        published_forms=PublishedDocuments(documents["form"]),
        checked_forms=CheckedForms(layouts),
        target_faults=TargetFaults(database),
        target_runs=TargetRuns(database),
        looks=LookStore(database),
        published_targets=PublishedDocuments(documents["target"]),
        records=records,
        record_changes=RecordChanges(database, records),
        record_lookups=RecordLookups(database),
        layouts=layouts,
        layouts_in_force=CurrentLayouts(documents["own_layout"], layouts),
        gazetteer=ActiveGazetteer(datasets, files, layouts),
        address_uses=AddressUses(database, journal),
        keys=KeyStore(database),
        calls=ActivityStore(database),
        capture_quality=CaptureQuality(database),
    )
