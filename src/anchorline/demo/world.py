"""A made-up world of addresses, the same for the same seed.

Towns are scattered over a country's areas, streets are drawn out from the middle of their
town along a gentle curve, and houses stand along them on both sides, so that the coordinates
look like streets on a map. Names, numbers and flats follow the habits of `places/CC.yaml`.
"""

from __future__ import annotations

import math
import random
from collections.abc import Iterator
from importlib import resources
from typing import Any

from anchorline.core.gazetteer import Row
from anchorline.yaml_documents import read_yaml

from .postcode_styles import postcode_maker

COUNTRIES: tuple[str, ...] = ("GB", "IE", "FR", "DE", "NL", "US", "CA", "BR", "JP", "AU")
STREETS_PER_TOWN = 14
METRES_PER_DEGREE = 111_195.0


def make_rows(
    count: int, seed: int = 2470, countries: tuple[str, ...] = COUNTRIES
) -> Iterator[Row]:
    """Yields `count` rows, an equal share of each country."""
    for index, code in enumerate(countries):
        share = count // len(countries) + (index < count % len(countries))
        yield from _Country(code, seed).rows(share)


def read_place(code: str) -> dict[str, Any]:
    """The names and habits of a country."""
    text = (resources.files("anchorline.demo.places") / f"{code}.yaml").read_text("utf-8")
    place: dict[str, Any] = read_yaml(text)
    return place


class _Country:
    """Makes the rows of one country."""

    def __init__(self, code: str, seed: int) -> None:
        self.code = code
        self.place = read_place(code)
        self.random = random.Random(f"{seed}/{code}")
        self.postcode = postcode_maker(self.place["postcode"])
        self.made = 0

    def rows(self, count: int) -> Iterator[Row]:
        town = 0
        while self.made < count:
            for row in self._town(town):
                self.made += 1
                yield row
                if self.made == count:
                    return
            town += 1

    def _town(self, index: int) -> Iterator[Row]:
        place, rng = self.place, self.random
        names = place["towns"]
        code, region, latitude, longitude, spread = place["areas"][index % len(place["areas"])]
        # Walk through all pairs before one comes again.
        first = names["first"][index % len(names["first"])]
        last = names["last"][(index // len(names["first"]) + index) % len(names["last"])]
        town = {
            "town": names["pattern"].format(first=first, last=last),
            "region": region,
            "region_code": code,
        }
        centre = (
            latitude + rng.uniform(-spread, spread),
            longitude + rng.uniform(-spread, spread),
        )
        for street in range(STREETS_PER_TOWN):
            yield from self._street(index, street, town, centre)
        yield from self._po_boxes(index, town, centre)

    def _street(
        self, town_index: int, index: int, town: dict[str, str], centre: tuple[float, float]
    ) -> Iterator[Row]:
        rng = self.random
        here = dict(town)
        districts = self.place["districts"]
        if districts and rng.random() < self.place["district_share"]:
            here["district"] = districts[(index + town_index) % len(districts)]
        here["street"] = self._street_name(town_index, index, town)
        point, bearing = self._street_start(centre), rng.uniform(0, 2 * math.pi)
        bend = rng.uniform(-0.06, 0.06)
        houses = rng.randint(9, 26)
        number = self.place["numbers"].get("start", 1)
        for house in range(houses):
            bearing += bend
            point = _moved(point, bearing, rng.uniform(14, 26))
            side = _moved(point, bearing + math.pi / 2, 9 if house % 2 else -9)
            number += max(1, round(rng.uniform(0.5, 1.6) * self.place["numbers"].get("step", 1)))
            postcode = self.postcode(town_index, index, house // 15, house)
            yield from self._house({**here, "postcode": postcode}, house, number, side)

    def _street_name(self, town_index: int, index: int, town: dict[str, str]) -> str:
        streets = self.place["streets"]
        local = streets.get("by_region", {}).get(town["region_code"])
        if local:
            return str(local[index % len(local)])
        if not streets["stems"]:
            return ""
        whole = streets.get("whole", ())
        if whole and index % 5 == 4:
            return str(whole[(town_index + index) % len(whole)])
        stem = streets["stems"][(town_index * 5 + index * 3) % len(streets["stems"])]
        kind = self.random.choice(streets["types"])
        prefix = self.random.choice(streets.get("prefixes", ("",)))
        return f"{prefix}{streets['pattern'].format(stem=stem, type=kind)}"

    def _street_start(self, centre: tuple[float, float]) -> tuple[float, float]:
        return _moved(centre, self.random.uniform(0, 2 * math.pi), self.random.uniform(80, 1800))

    def _house(
        self, here: dict[str, str], house: int, number: int, point: tuple[float, float]
    ) -> Iterator[Row]:
        place, rng = self.place, self.random
        draw = rng.random()
        if place["farms"] and house == 0 and draw < 0.4:
            rural = {**here, "building": rng.choice(place["farms"])}
            if here.get("district") and draw < 0.2:
                rural["street"] = ""
            yield self._row(rural, point, "residential")
            return
        here = {**here, "number": self._number(house, number)}
        if draw < place["units"]["share"] and place["buildings"]:
            yield from self._flats({**here, "building": rng.choice(place["buildings"])}, point)
        elif draw < place["units"]["share"] + 0.08:
            yield self._row({**here, "organisation": self._named("firms", here)}, point, "business")
        elif draw < place["units"]["share"] + 0.09:
            yield self._row({**here, "place": self._named("venues", here)}, point, "public")
        else:
            yield self._row(here, point, "residential")

    def _flats(self, here: dict[str, str], point: tuple[float, float]) -> Iterator[Row]:
        units = self.place["units"]
        for flat in range(1, self.random.randint(3, units["most"]) + 1):
            unit = units["pattern"].format(
                n=(flat + 1) // 2, digit=flat % 2 + 1, letter="AB"[flat % 2]
            )
            if "{digit}" not in units["pattern"] and "{letter}" not in units["pattern"]:
                unit = units["pattern"].format(n=flat)
            yield self._row({**here, "unit": unit}, point, "residential")

    def _number(self, house: int, number: int) -> str:
        habits = self.place["numbers"]
        if habits.get("style") == "blocks":
            return f"{house // 6 + 1}-{number}"
        if habits["suffixes"] and self.random.random() < habits["suffix_share"]:
            return f"{number}{self.random.choice(habits['suffixes'])}"
        return str(number)

    def _named(self, kind: str, here: dict[str, str]) -> str:
        place = self.place
        stems = place["streets"]["stems"] or [here["town"]]
        name: str = self.random.choice(place[kind]).format(
            surname=self.random.choice(place["surnames"]),
            stem=self.random.choice(stems),
            town=here["town"],
        )
        return name[0].upper() + name[1:]

    def _po_boxes(
        self, town_index: int, town: dict[str, str], centre: tuple[float, float]
    ) -> Iterator[Row]:
        if self.place["district_share"] == 1:
            town = {**town, "district": self.place["districts"][0]}
        for box in range(3):
            number = 10 + town_index * 3 + box
            text = self.place["po_boxes"]["pattern"].format(n=number)
            postcode = self.postcode(town_index, STREETS_PER_TOWN + 1, 0, box)
            yield self._row({**town, "po_box": text, "postcode": postcode}, centre, "business")

    def _row(self, values: dict[str, str], point: tuple[float, float], use: str) -> Row:
        return Row(
            id=f"{self.code}{self.made + 1:07d}",
            country_code=self.code,
            components={name: value for name, value in values.items() if value},
            language=self.place["language"],
            latitude=round(point[0], 6),
            longitude=round(point[1], 6),
            use=use,
        )


def _moved(point: tuple[float, float], bearing: float, metres: float) -> tuple[float, float]:
    """A point moved along a bearing (radians from north), flat-earth for such short ways."""
    latitude = point[0] + metres * math.cos(bearing) / METRES_PER_DEGREE
    width = METRES_PER_DEGREE * math.cos(math.radians(point[0]))
    return latitude, point[1] + metres * math.sin(bearing) / width
