"""Suggestions, addresses, postcodes, nearest."""

from __future__ import annotations

import re
from typing import Annotated, Literal, get_args

from pydantic import AfterValidator, Field

from anchorline.core.kinds import LONGEST_QUERY, SUGGESTION_KINDS

from .base import RequestSchema, Schema, example
from .usage import CaptureName

Kind = Literal[
    "address", "street", "district", "town", "region", "postcode", "building", "organisation",
    "place",
]  # fmt: skip
_LANGUAGE = re.compile("[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*")
assert set(get_args(Kind)) == set(SUGGESTION_KINDS)


def _near(text: str) -> str:
    parts = text.split(",")
    try:
        latitude, longitude = map(float, parts)
    except ValueError:
        raise ValueError("Give latitude and longitude in degrees: 52.61,-1.13.") from None
    if not (abs(latitude) <= 90 and abs(longitude) <= 180):
        raise ValueError("Latitude is from -90 to 90, longitude from -180 to 180 degrees.")
    return text


def _language(text: str) -> str:
    if not _LANGUAGE.fullmatch(text):
        raise ValueError("Give a language as BCP 47 does: en, cy, fr-BE, ja-Latn.")
    return text


class SuggestQuery(RequestSchema):
    """What is asked of the finder."""

    q: Annotated[str, Field(max_length=LONGEST_QUERY, description="What was typed")] = ""
    country: Annotated[
        str, Field(max_length=1000, description="Country codes, parted by commas: `GB,FR`")
    ] = ""
    kinds: Annotated[
        str, Field(max_length=200, description=f"Of {', '.join(SUGGESTION_KINDS)}; with commas")
    ] = ""
    datasets: Annotated[
        str, Field(max_length=1000, description="Names of datasets, parted by commas; all without")
    ] = ""
    near: Annotated[
        str | None,
        Field(max_length=60, description="Prefer what is near: `LATITUDE,LONGITUDE`"),
        AfterValidator(lambda text: None if text is None else _near(text)),
    ] = None
    within: Annotated[
        str | None, Field(max_length=160, description="Id of a group to open or search in")
    ] = None
    limit: Annotated[int, Field(ge=1, le=100)] = 8
    after: Annotated[
        str | None, Field(max_length=20, description="From the answer before: the next page")
    ] = None
    language: Annotated[
        str | None,
        Field(
            max_length=35,
            description="BCP 47: the spelling of places that have several; without it, that which "
            "fits what was typed best",
        ),
        AfterValidator(lambda text: None if text is None else _language(text)),
    ] = None
    practice: Annotated[
        bool, Field(description="Search the practice addresses: made up, built in, never counted")
    ] = False
    trace: Annotated[
        bool, Field(description="Say how what was typed was read, and what the rows are worth")
    ] = False


class SuggestionSchema(Schema):
    """One row: an address, or a group that opens further (`within=ID`)."""

    id: str
    kind: Kind
    label: str
    country_code: str
    count: int = Field(description="1 for an address, else how many addresses the group has")
    matches: list[tuple[int, int]] = Field(
        description="Ranges [start, end) of the label, in Unicode characters"
    )


class InterpretationSchema(Schema):
    """One way to read what was typed, and how many streets, towns, postcodes … have it all."""

    dataset: str
    interpretation: str = Field(description="Its name, as the guide lists them")
    tokens: list[str] = Field(description="What was looked for; … marks an unfinished word")
    found: int


class WorthSchema(Schema):
    """What a row's score is made of; rows of one answer alone can be compared."""

    id: str
    score: float
    parts: dict[str, float]


class TraceSchema(Schema):
    """How a search went: the interpretations tried, in order, and the scores of its rows."""

    interpretations: list[InterpretationSchema]
    rows: list[WorthSchema]


class Suggestions(Schema):
    """The best rows, best first; of an opened group, in natural order."""

    model_config = example(
        {
            "suggestions": [
                {
                    "id": "demo:~5c1f0e7a9b3d2468",
                    "kind": "street",
                    "label": "Kiln Crescent, Brackwater",
                    "country_code": "GB",
                    "latitude": 51.535459,
                    "longitude": -2.880898,
                    "count": 37,
                    "matches": [[0, 4]],
                }
            ],
            "corrected": {},
            "unmatched": [],
            "after": None,
            "edition": "demo@1",
            "trace": None,
        }
    )
    suggestions: list[SuggestionSchema]
    corrected: dict[str, str] = Field(description="What was read for what was typed")
    unmatched: list[str] = Field(
        description="Typed tokens that the rows do not have: a number that there is not, a name",
    )
    after: str | None = None
    edition: str
    trace: TraceSchema | None = Field(None, description="Where `trace=true` asked for it")


class PostcodeQuery(RequestSchema):
    """For which capture a postcode is asked for."""

    capture: CaptureName | None = None


class AddressQuery(RequestSchema):
    """Which components are wanted."""

    components: Annotated[
        str | None, Field(max_length=400, description="Names with commas; without it, all")
    ] = None
    capture: CaptureName | None = None


class FactsSchema(Schema):
    """What is known beside the components; `languages`: that of this spelling, then others."""

    latitude: float | None = None
    longitude: float | None = None
    use: str | None = None
    languages: list[str] = []


class AddressAnswer(Schema):
    """One address."""

    model_config = example(
        {
            "id": "demo:GB0000012",
            "components": {"number": "12", "street": "Kiln Crescent", "town": "Brackwater"},
            "facts": {"latitude": 52.61, "longitude": -1.13, "use": "residential"},
            "lines": ["12 Kiln Crescent", "BRACKWATER", "QV1 1QF"],
        }
    )
    id: str
    components: dict[str, str]
    facts: FactsSchema
    lines: list[str]
    practice: bool = Field(default=False, description="Whether it is made up, for practice")


class AddressEntry(Schema):
    """An address in a list."""

    id: str
    label: str


class PostcodeAnswer(Schema):
    """All addresses of a postcode, in natural order."""

    model_config = example(
        {
            "postcode": "QV1 1AA",
            "count": 1,
            "addresses": [{"id": "demo:GB0000012", "label": "16 Abbey Mews, Brackwater, QV1 1AA"}],
        }
    )
    postcode: str
    count: int
    addresses: list[AddressEntry]


class PostcodeEntry(Schema):
    """One of the postcodes that begin as typed."""

    postcode: str
    count: int


class PartialPostcodeAnswer(Schema):
    """The postcodes that begin as typed, the first 100 of them."""

    model_config = example(
        {
            "postcode": "QV1",
            "partial": True,
            "postcodes": [{"postcode": "QV1 1AA", "count": 13}],
            "total": 1,
            "towns": ["Brackwater"],
        }
    )
    postcode: str
    partial: Literal[True]
    postcodes: list[PostcodeEntry]
    total: int
    towns: list[str]
