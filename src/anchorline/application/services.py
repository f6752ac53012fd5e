"""What use cases work with, made once in each process."""

from __future__ import annotations

from dataclasses import dataclass

from anchorline.core.layouts import LayoutLibrary
from anchorline.store.address_uses import AddressUses
from anchorline.store.coverage_runs import CoverageRuns
from anchorline.store.database import Database
from anchorline.store.datasets import DatasetStore
from anchorline.store.edition_files import EditionFiles
from anchorline.store.form_editors import FormEditorStore
from anchorline.store.forms import FormStore
from anchorline.store.jobs import JobStore
from anchorline.store.load_data import LoadData
from anchorline.store.looks import LookStore
from anchorline.store.own_layouts import OwnLayoutStore
from anchorline.store.record_changes import RecordChanges
from anchorline.store.record_lookups import RecordLookups
from anchorline.store.records import RecordStore
from anchorline.store.target_faults import TargetFaults
from anchorline.store.target_runs import TargetRuns
from anchorline.store.targets import TargetStore
from anchorline.store.use_journal import UseJournal

from .active_gazetteer import ActiveGazetteer
from .checked_forms import CheckedForms
from .layouts_in_force import CurrentLayouts
from .published_documents import PublishedDocuments


@dataclass(frozen=True, slots=True)
class Services:
    """The stores, the gazetteer and the layouts.

    `layouts` are the shipped ones, `layouts_in_force` those with administrators' own laid over.
    """

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
    layouts: LayoutLibrary
    layouts_in_force: CurrentLayouts
    gazetteer: ActiveGazetteer
    address_uses: AddressUses


def make_services(
    database: Database, files: EditionFiles, journal: UseJournal, layouts: LayoutLibrary
) -> Services:
    """Everything that use cases need, on one database.

    Args:
        files: the editions' indexes.
        journal: where uses wait while the database is away.
        layouts: the shipped ones.
    """
    datasets, forms, targets = DatasetStore(database), FormStore(database), TargetStore(database)
    own_layouts, records = OwnLayoutStore(database), RecordStore(database)
    return Services(
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
        layouts=layouts,
        layouts_in_force=CurrentLayouts(own_layouts, layouts),
        gazetteer=ActiveGazetteer(datasets, files, layouts),
        address_uses=AddressUses(database, journal),
    )
