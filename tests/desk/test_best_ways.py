"""Ways of writing tried on a program, and kept for the next run on this machine."""

from dataclasses import dataclass

import pytest

from anchorline.client import Client
from anchorline.core.targets.programs.ways import FOUND
from anchorline.desk.best_ways import BestWays

from .set_up import set_up
from .writes import Write

STALE = {"line1": "stale", "line2": "stale", "town": "stale", "postcode": "stale", "country": "x"}
GIVEN = {
    "number": "4", "street": "Kiln Row", "town": "Brackwater", "postcode": "QV1 1AA",
    "country_code": "GB",
}  # fmt: skip


@dataclass
class Named:
    key: str
    version: int = 1


def test_a_way_is_kept_until_the_target_is_published_anew(tmp_path):
    file = tmp_path / "none" / "ways.json"
    ways = BestWays(file)
    assert ways.of(Named("ledger"), Named("home")) == ""
    ways.remember(Named("ledger"), Named("home"), "paste")
    again = BestWays(file)
    assert again.of(Named("ledger"), Named("home")) == "paste"
    assert again.of(Named("ledger"), Named("work")) == ""
    assert again.of(Named("ledger", 2), Named("home")) == ""


@pytest.mark.parametrize("kept", ["", "{", "[]", '{"ledger/home": 3}', '{"ledger/home": {}}'])
def test_a_file_that_cannot_be_read_means_that_nothing_was_tried(tmp_path, kept):
    file = tmp_path / "ways.json"
    file.write_text(kept)
    assert BestWays(file).of(Named("ledger"), Named("home")) == ""


@pytest.mark.parametrize(
    ("name", "pace", "best"), [("contacts", 2, "keys"), ("firms", 40, "paste")]
)
def test_the_best_way_is_found_on_a_program(desktop, eyes, stack, name, pace, best):
    program = desktop.stand_in(name, STALE)
    with Client(stack.url, stack.access["server_key"]) as service:
        target, place = set_up(service, eyes, program, pace_ms=pace)
        fill = service.targets.fill(target.key, "address", components=GIVEN)
        values = {key: str(text) for key, text in fill.values.items() if text}
        write = Write(eyes, target, place, values, by=FOUND)
        report = write.start()
        service.targets.delete(target.key)
    assert (report.outcome, write.found.best) == ("verified", best)
    program.wait_for({"line1": "4 Kiln Row", "line2": "", "postcode": "QV1 1AA"})
    program.close()
