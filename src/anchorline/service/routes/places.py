"""API: what is near a point, and where something is."""

from __future__ import annotations

from dataclasses import asdict

from anchorline.application.filling import count_address
from anchorline.core.gazetteer import SearchRequest
from anchorline.wire.base import Schema
from anchorline.wire.places import (
    NearEntry,
    NearestAnswer,
    NearestQuery,
    Place,
    PositionAnswer,
    PositionQuery,
    SurroundingsAnswer,
    SurroundingsQuery,
)

from ..access import Access
from ..endpoints import ApiRequest, Router
from ..problems import not_found
from .finding import listed

router = Router("places", "find")


@router.endpoint(
    "GET",
    "/nearest",
    access=Access.CAPTURE,
    query=NearestQuery,
    answer=NearestAnswer,
    searches=True,
)
def get_nearest(request: ApiRequest) -> Schema:
    """The addresses nearest to a point, by great-circle distance; where they are is not told."""
    query = request.query(NearestQuery)
    found = request.services.gazetteer.current().nearest(
        query.latitude, query.longitude, query.limit, query.radius_m
    )
    return NearestAnswer(addresses=[NearEntry(**asdict(near)) for near in found])


@router.endpoint(
    "GET",
    "/surroundings",
    access=Access.CAPTURE,
    query=SurroundingsQuery,
    answer=SurroundingsAnswer,
    searches=True,
)
def get_surroundings(request: ApiRequest) -> Schema:
    """Where there are addresses around a point, to draw a map of: not which, and not exactly."""
    query = request.query(SurroundingsQuery)
    places = request.services.gazetteer.current().surroundings(
        query.latitude, query.longitude, query.limit, query.radius_m
    )
    return SurroundingsAnswer(
        places=[Place(latitude=latitude, longitude=longitude) for latitude, longitude in places]
    )


@router.endpoint(
    "GET",
    "/position",
    access=Access.CAPTURE,
    query=PositionQuery,
    answer=PositionAnswer,
    problems=(404,),
    searches=True,
)
def get_position(request: ApiRequest) -> Schema:
    """Where what was typed is: an address, or the middle of a postcode, street or town.

    The place of a single address counts as fetching it.
    """
    query, gazetteer = request.query(PositionQuery), request.services.gazetteer.current()
    countries = request.services.layouts.country_codes
    found = gazetteer.locate(
        SearchRequest(
            text=query.q,
            countries=listed(query.country.upper(), countries, "country", "country"),
            datasets=listed(query.datasets, gazetteer.datasets, "active dataset", "datasets"),
            limit=20,
        )
    )
    if found is None:
        raise not_found(f"Nothing is found for {query.q!r}, or its place is not known.")
    if found.address_id is not None:
        count_address(request.services, request.caller, found.address_id, query.capture)
    return PositionAnswer(
        label=found.label, latitude=found.latitude, longitude=found.longitude, count=found.count
    )
