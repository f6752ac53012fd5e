"""What tests of reading files share."""

import pytest

from anchorline.core.reference import RowChecker, Source


@pytest.fixture
def read(layouts):
    """Reads a file whole; returns its checked batches joined: rows, bad rows, findings."""

    def read(content, *, changes=False, size=3, piece=7, needed=("id", "country_code")):
        data = content.encode() if isinstance(content, str) else content
        source = Source((data[i : i + piece] for i in range(0, len(data), piece)), needed)
        checker = RowChecker(layouts, changes=changes)
        checked = [checker.check(batch) for batch in source.batches(size)]
        return source, checked

    return read


def rows(checked):
    return [row for batch in checked for row in batch.block.rows()]


def bad(checked):
    return [row for batch in checked for row in batch.bad]


def counts(checked):
    found = {}
    for batch in checked:
        for name, tally in batch.findings.tallies.items():
            found[name] = found.get(name, 0) + tally.count
    return found
