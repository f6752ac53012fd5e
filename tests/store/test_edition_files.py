"""Editions as files: what is written is what is opened, and nothing else is."""

import json

import numpy as np
import pytest

from anchorline.core.errors import EditionError
from anchorline.core.gazetteer import Edition, Row, build_edition
from anchorline.core.gazetteer.arrays import SELDOM_SEARCHED
from anchorline.core.layouts import shipped_layouts
from anchorline.store.edition_files import EditionFiles


@pytest.fixture
def built(world):
    return build_edition(world[:300], shipped_layouts())


@pytest.fixture
def files(tmp_path):
    return EditionFiles(tmp_path)


def test_an_edition_is_opened_as_it_was_written(files, built, tmp_path):
    size = files.write("d", 1, built)
    assert size == sum(file.stat().st_size for file in (tmp_path / "d" / "1").iterdir())
    opened = files.open("d", 1)
    assert opened.arrays.keys() == built.arrays.keys()
    for name, array in built.arrays.items():
        again = opened.arrays[name]
        assert (again.dtype, again.shape) == (array.dtype, array.shape), name
        assert np.array_equal(again, array), name
        assert not again.flags.writeable
    assert opened.address_count == built.address_count == 300


def test_small_arrays_and_those_that_are_searched_stand_first(files, built, tmp_path):
    files.write("d", 1, built)
    entries = json.loads((tmp_path / "d/1/manifest.json").read_text())["arrays"]
    by_place = sorted(entries, key=lambda name: entries[name]["offset"])
    places = [(name in SELDOM_SEARCHED, built.arrays[name].nbytes) for name in by_place]
    assert places == sorted(places)
    assert built.arrays.keys() >= SELDOM_SEARCHED
    assert all(entry["offset"] % 64 == 0 for entry in entries.values())


def test_writing_again_replaces_the_whole(files, built):
    files.write("d", 1, built)
    before = files.open("d", 1)
    one = build_edition([Row("a", "GB", {"street": "Kiln Row", "town": "Marl"})], shipped_layouts())
    files.write("d", 1, one)
    assert files.open("d", 1).address_count == 1
    # Whoever has it open goes on reading the one before.
    assert before.address(7).components == in_memory(built).address(7).components


def in_memory(built):
    return Edition("d", 1, built.manifest, built.arrays)


@pytest.mark.parametrize(
    ("harm", "said"),
    [
        (lambda folder: (folder / "arrays.bin").unlink(), "No such file"),
        (lambda folder: (folder / "manifest.json").write_text("{"), "cannot be opened"),
        (
            lambda folder: (folder / "arrays.bin").write_bytes(
                (folder / "arrays.bin").read_bytes()[:-100]
            ),
            "not as long as it was written",
        ),
        (
            lambda folder: (folder / "manifest.json").write_text(
                (folder / "manifest.json").read_text().replace('"format":', '"format":9')
            ),
            "Build it again from its rows",
        ),
    ],
)
def test_a_damaged_or_older_edition_is_refused_with_the_reason(files, built, tmp_path, harm, said):
    files.write("d", 1, built)
    harm(tmp_path / "d" / "1")
    with pytest.raises(EditionError, match=said):
        files.open("d", 1)
