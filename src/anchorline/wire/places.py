"""What is near a point, and where something is."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from anchorline.core.kinds import LONGEST_QUERY

from .base import RequestSchema, Schema, example
from .finding import AddressEntry
from .usage import CaptureName


class NearestQuery(RequestSchema):
    """A point, in WGS 84 degrees."""

    latitude: Annotated[float, Field(ge=-90, le=90)]
    longitude: Annotated[float, Field(ge=-180, le=180)]
    limit: Annotated[int, Field(ge=1, le=100)] = 8
    radius_m: Annotated[float, Field(gt=0, le=50_000, description="Metres")] = 5_000


class NearEntry(AddressEntry):
    """An address with its great-circle distance; its place comes with fetching it."""

    distance_m: float
    country_code: str


class PositionQuery(RequestSchema):
    """What is looked for, as in the finder."""

    q: Annotated[str, Field(min_length=1, max_length=LONGEST_QUERY, description="What was typed")]
    country: Annotated[str, Field(max_length=1000, description="Country codes, with commas")] = ""
    datasets: Annotated[str, Field(max_length=1000, description="Of datasets; all without")] = ""
    capture: CaptureName | None = None


class SurroundingsQuery(RequestSchema):
    """A point, in WGS 84 degrees."""

    latitude: Annotated[float, Field(ge=-90, le=90)]
    longitude: Annotated[float, Field(ge=-180, le=180)]
    limit: Annotated[int, Field(ge=1, le=100, description="Of addresses looked at")] = 60
    radius_m: Annotated[float, Field(gt=0, le=2000, description="Metres")] = 400


class Place(Schema):
    """A point, in WGS 84 degrees."""

    latitude: float
    longitude: float


class SurroundingsAnswer(Schema):
    """Places near which there are addresses, to a grid of some 22 metres."""

    model_config = example({"places": [{"latitude": 51.5354, "longitude": -2.8808}]})
    places: list[Place]


class PositionAnswer(Schema):
    """Where the best that was found is, in degrees (WGS 84)."""

    model_config = example(
        {
            "label": "16 Abbey Mews, Brackwater, QV1 1AA",
            "latitude": 51.535459,
            "longitude": -2.880898,
            "count": 1,
        }
    )
    label: str
    latitude: float
    longitude: float
    count: int = Field(description="1 for an address, else of how many it is the middle")


class NearestAnswer(Schema):
    """The nearest addresses, nearest first."""

    model_config = example(
        {
            "addresses": [
                {
                    "id": "demo:GB0000012",
                    "label": "16 Abbey Mews, Brackwater, QV1 1AA",
                    "distance_m": 9.4,
                    "country_code": "GB",
                }
            ]
        }
    )
    addresses: list[NearEntry]
