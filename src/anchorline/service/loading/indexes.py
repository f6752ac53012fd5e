"""Building the index of an edition."""

from __future__ import annotations

from anchorline.application.reference.editions import IndexSize
from anchorline.core.gazetteer import build_edition
from anchorline.core.gazetteer.building.table import RowTable

from ..context import Services
from .lease import JobLease
from .prefetch import prefetch


def build_index(
    services: Services, job: str, dataset: str, number: int, lease: JobLease
) -> IndexSize:
    """Builds an edition's index from the rows of a job.

    Raises:
        EditionError: there is no row at all.
    """
    table = RowTable()
    for _, kept in prefetch(services.load_data.blocks(job)):
        lease.check()
        if len(kept.rows):
            table.extend(kept.rows)
    built = build_edition(table, services.layouts)
    lease.check_now()
    size = services.edition_files.write(dataset, number, built)
    return IndexSize(size, built.address_count)
