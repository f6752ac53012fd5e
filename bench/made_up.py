"""A made-up country's worth of addresses, with names as easily confused as real ones.

Names are compounds of morphemes that come in families (`hal`, `hel`, `hol` …), so most words of
the vocabulary have others one letter away. Towns have very different sizes; streets of the
same name stand in many of them. The same seed gives the same rows.
"""

from __future__ import annotations

import random
from collections.abc import Iterator
from dataclasses import dataclass

from anchorline.core.gazetteer import Row


@dataclass(frozen=True)
class Style:
    """How one country makes its names."""

    code: str
    language: str
    first: str
    link: str
    last: str
    town_last: str
    street: str
    types: str
    firms: str
    regions: str
    street_sizes: tuple[int, int] = (6, 32)


STYLES: tuple[Style, ...] = (
    Style(
        "GB", "en",
        "kil hal hel hol stan sten win wen bram brim ash esh oak thorn thurn mel mal mil ald eld "
        "carr corr dun den harl hurl lang ling mar mor nor pen pin rad red ros sal sel wal wel "
        "whit wick wood wyn bar ber bur cal col cul fen fin gar gor",
        " e er en s in",
        "more mere ford field ham ley ton den dale well worth wick by gate stead brook burn combe",
        "bury borough chester mouth minster ton ham ford wick water haven",
        "{stem} {type}", "Road Street Lane Avenue Close Court Crescent Drive Gardens Way Terrace",
        "{a} & Sons|{a} {b} Partners|{a} Bakery|{a} Motors|{a} & {b} Solicitors",
        "Northmarch Eastmere Westhay Southfell",
    ),
    Style(
        "US", "en",
        "haw how hew clear clar mount maple mapel cedar ceder pine pone elk elm oak birch burch "
        "fair far green grain lake leke spring sprang silver salver stone stane sun san wil wal "
        "win wen hart hurt bel bal mar mer",
        " er en s",
        "wood field ville dale view crest ridge brook haven ton port land mont burg ford side",
        "ville ton burg port field haven springs falls city",
        "{stem} {type}", "Street Avenue Drive Road Lane Court Boulevard Place Circle Parkway",
        "{a} Hardware|{a} Dental|{a} & {b} Realty|{a} Diner|{a} Logistics",
        "AL AK AZ CO CT GA ID IL",
    ),
    Style(
        "DE", "de",
        "linden lunden birken burken müh müll mühl grün gron kö kön käs käst hol höl hol wald wäld "
        "feld fels fals berg burg barg stein stain haus hals rosen rusen brunn brann eich esch "
        "amt ans ahr ehr all ull wies wess nord süd",
        " e en er s",
        "bach berg feld hof grund horst kamp mark rain wald wiese born teich graben anger heide",
        "stadt burg heim hausen dorf kirchen tal furt ingen leben",
        "{stem}{type}", "straße weg allee gasse platz ring damm ufer steig pfad",
        "Bäckerei {a}|{a} GmbH|{a} & {b} KG|Autohaus {a}|Praxis {a}",
        "Nordmark Südmark Westheide Osttal",
    ),
    Style(
        "FR", "fr",
        "bel bal bol mont mant roch rich clair clar chât chêne chane fleur flour val vel vil mar "
        "mer mor gran gren noir nair pré prè long lang pier poir sau sou cour car bour bar "
        "lan len lin ver var",
        " e es é",
        "ville mont court bois champ fort lieu nay val pré fontaine rive roche lac vert aie",
        "ville sur-mer court mont bourg villiers gny gnac ières",
        "{type} {stem}", "rue|rue de|avenue|boulevard|chemin de|allée|impasse|place|route de|quai",
        "Boulangerie {a}|{a} Frères|Garage {a}|Cabinet {a} {b}|Pharmacie {a}",
        "Hautes-Rives Bas-Marais Val-Clair Grande-Côte",
    ),
    Style(
        "NL", "nl",
        "water wouter kerk kark molen malen dijk dek hoog haag laag lage wind wond zand zund eik "
        "elk berk bork beek bek ros rus ven van vel vil zon zen noord oost brug brig",
        " e en er s",
        "veld berg hof horst dijk meer land plas wijk hoek oord stein bos kamp huizen",
        "dam veen burg dorp drecht hoven loo wolde um",
        "{stem}{type}", "straat laan weg plein kade gracht singel dreef hof pad",
        "Bakkerij {a}|{a} BV|{a} en {b} Notarissen|Garage {a}|Café {a}",
        "Noordlanden Zuidpolder Westermeer Oosterduin",
    ),
    Style(
        "BR", "pt",
        "cam com can con mar mor mer flor flar ser sar sol sal ver var per par jar jor lar lor bel "
        "bal tor tar rib reb palm pelm nov nav gran gren mat met",
        " a e i",
        "pinas eira ália ança ação inho ena oso ante ória ito ado ana inda erra",
        "ópolis ândia inas eiras ituba inga açu",
        "{type} {stem}", "Rua|Avenida|Travessa|Praça|Alameda|Rua da|Rua do|Estrada",
        "Padaria {a}|{a} Ltda|Oficina {a}|{a} e {b} Advogados|Farmácia {a}",
        "SP RJ MG BA PR",
    ),
)  # fmt: skip
SHORT_TYPES: dict[str, str] = {
    "Road": "Rd", "Street": "St", "Lane": "Ln", "Avenue": "Ave", "Close": "Cl", "Court": "Ct",
    "Crescent": "Cres", "Drive": "Dr", "Gardens": "Gdns", "Terrace": "Ter", "Boulevard": "Blvd",
    "Place": "Pl", "Circle": "Cir", "Parkway": "Pkwy", "straße": "str.", "platz": "pl.",
    "avenue": "av.", "boulevard": "bd", "impasse": "imp.", "place": "pl.", "route de": "rte de",
    "straat": "str.", "Rua": "R.", "Avenida": "Av.", "Travessa": "Tv.", "Alameda": "Al.",
}  # fmt: skip
# Well inside each country, so that no house is scattered over its border: S, W, N, E in degrees.
_MIDDLES: dict[str, tuple[float, float, float, float]] = {
    "GB": (51, -5, 58, 0.5), "US": (32, -118, 46, -80), "DE": (48, 7, 54, 13),
    "FR": (43, -1, 49, 6), "NL": (51.2, 4, 53, 6.5), "BR": (-25, -55, -5, -40),
}  # fmt: skip
STREETS_PER_TOWN = 60
STEMS = 2600


def make_rows(count: int, seed: int) -> Iterator[Row]:
    """Yields `count` rows, an equal share of each country."""
    for index, style in enumerate(STYLES):
        share = count // len(STYLES) + (index < count % len(STYLES))
        yield from _Country(style, seed, share).rows()


class _Country:
    def __init__(self, style: Style, seed: int, count: int) -> None:
        self.style, self.count = style, count
        self.random = random.Random(f"{seed}/{style.code}")
        # More streets need more names, but far fewer than there are streets.
        self.stems = self._names(style.last, int(STEMS * max(1.0, (count / 170_000) ** 0.5)))
        parted = "|" if "|" in style.types else None
        self.types = style.types.split(parted)
        self.firms = style.firms.split("|")
        self.made = 0

    def _names(self, last: str, count: int) -> list[str]:
        style, rng = self.style, self.random
        firsts, lasts = style.first.split(), last.split()
        links = ["", *style.link.split()]
        every = sorted({(f + k + e).capitalize() for f in firsts for k in links for e in lasts})
        return rng.sample(every, min(count, len(every)))

    def rows(self) -> Iterator[Row]:
        style, rng = self.style, self.random
        towns = self._names(style.town_last, 100_000)
        regions = style.regions.split()
        number = 0
        while self.made < self.count:
            town = towns[number % len(towns)]
            if number >= len(towns):
                town = f"{town} {rng.choice(self.stems)}"
            south, west, north, east = _MIDDLES[style.code]
            where = (rng.uniform(south, north), rng.uniform(west, east))
            streets = max(6, int(STREETS_PER_TOWN * rng.paretovariate(1.4) / 2))
            shared = {"town": town}
            region = regions[number % len(regions)]
            if len(region) == 2:
                shared["region_code"] = region
            else:
                shared["region"] = region
            yield from self._town(shared, number, min(streets, 1500), where)
            number += 1

    def _type(self, kind: str) -> str:
        """The type of a street, now and then in its short form, as registers have it."""
        short = SHORT_TYPES.get(kind)
        return short if short and self.random.random() < 0.08 else kind

    def _town(
        self, shared: dict[str, str], town: int, streets: int, where: tuple[float, float]
    ) -> Iterator[Row]:
        style, rng = self.style, self.random
        seen: set[str] = set()
        for street in range(streets):
            stem = rng.choice(self.stems)
            if rng.random() < 0.12:
                stem = self.stems[int(len(self.stems) * rng.random() ** 6)]
            kind = rng.choice(self.types)
            if style.street == "{stem} {type}" and rng.random() < 0.15:
                stem = f"{rng.choice(('Old', 'New', 'Upper', 'North', 'Saint'))} {stem}"
            name = style.street.format(stem=stem, type=self._type(kind))
            name = name[0].upper() + name[1:]
            if name in seen:
                continue
            seen.add(name)
            here = (where[0] + rng.gauss(0, 0.03), where[1] + rng.gauss(0, 0.03))
            for row in self._street({**shared, "street": name}, town, street, here):
                self.made += 1
                yield row
                if self.made == self.count:
                    return

    def _street(
        self, shared: dict[str, str], town: int, street: int, where: tuple[float, float]
    ) -> Iterator[Row]:
        rng, style = self.random, self.style
        number = 0
        for house in range(rng.randint(*style.street_sizes)):
            number += rng.choice((1, 1, 2, 2, 3))
            text = f"{number}{rng.choice('abc')}" if rng.random() < 0.05 else str(number)
            components = {
                **shared, "number": text, "postcode": _postcode(style.code, town, street, house)
            }  # fmt: skip
            draw = rng.random()
            here = (where[0] + house * 1e-4, where[1] + house * 1e-4)
            use = "residential"
            if draw < 0.07:
                a, b = rng.choice(self.stems), rng.choice(self.stems)
                components["organisation"] = rng.choice(self.firms).format(a=a, b=b)
                use = "business"
            elif draw < 0.09:
                components["building"] = f"{rng.choice(self.stems)} House"
                for flat in range(1, rng.randint(3, 8)):
                    yield self._row({**components, "unit": f"{flat}"}, here, use)
                continue
            yield self._row(components, here, use)

    def _row(self, components: dict[str, str], where: tuple[float, float], use: str) -> Row:
        number = self.made + 1
        return Row(
            f"{self.style.code}{number:08d}", self.style.code, components, self.style.language,
            round(where[0], 6), round(where[1], 6), use,
        )  # fmt: skip


_LETTERS = "ABDEFGHJLNPQRSTUWXYZ"


def _postcode(code: str, town: int, street: int, house: int) -> str:
    part = street * 2 + house // 18
    if code == "GB":
        a, b = _LETTERS[town // 20 % 20], _LETTERS[town % 20]
        tail = _LETTERS[part // 20 % 20] + _LETTERS[part % 20]
        return f"{a}{b}{1 + town // 400 % 90} {part // 400 % 10}{tail}"
    if code == "NL":
        tail = _LETTERS[part // 20 % 20] + _LETTERS[part % 20]
        return f"{1000 + (town * 7 + part // 400) % 9000} {tail}"
    if code == "BR":
        return f"{(town * 131 + street // 90) % 90000 + 10000:05d}-{part % 1000:03d}"
    first = {"DE": 10000, "FR": 40000, "US": 70000}[code]
    return f"{(town * 37 + street // 60) % 30000 + first:05d}"
