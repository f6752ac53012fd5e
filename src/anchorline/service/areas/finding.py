"""API: suggestions, addresses, postcodes, nearest."""

from __future__ import annotations

import hashlib
from collections.abc import Collection, Iterable

import orjson

from anchorline.core.address import COMPONENTS, Facts
from anchorline.core.errors import Problem, nearest_names, unknown_name_detail
from anchorline.core.gazetteer import Gazetteer, SearchRequest, Suggestion
from anchorline.core.gazetteer.postcodes import PostcodeAddresses
from anchorline.core.gazetteer.suggestion import Step
from anchorline.core.kinds import SUGGESTION_KINDS
from anchorline.core.layouts import (
    masks_hint,
    postcode_beginnings,
    unknown_country_detail,
    write_lines,
)
from anchorline.wire.base import Shape
from anchorline.wire.finding import (
    AddressAnswer,
    AddressEntry,
    AddressQuery,
    FactsShape,
    NearEntry,
    NearestAnswer,
    NearestQuery,
    PartialPostcodeAnswer,
    PostcodeAnswer,
    PostcodeEntry,
    ReadingShape,
    Suggestions,
    SuggestQuery,
    TraceShape,
    WorthShape,
)

from ..access import Access
from ..endpoints import Area, Call, Reply
from ..problems import invalid, not_found
from ..recent_answers import KeptAnswer
from .layouts import require_layout

area = Area("finding")


@area.endpoint(
    "GET",
    "/suggest",
    access=Access.CAPTURE,
    query=SuggestQuery,
    answer=Suggestions,
    problems=(404,),
    request_headers={"If-None-Match": "The ETag of an answer to the same query"},
    answer_headers={"ETag": "Stays the same as long as the editions do"},
    not_modified=True,
    every_key=True,
)
def suggest(call: Call) -> Reply:
    """Suggestions for what was typed, or the contents of a group.

    A group is opened with `within`; with `q` as well, the search stays inside it.
    """
    gazetteer = call.services.gazetteer.current()
    asked, recent = call.request.query_string, call.services.recent_answers
    kept = recent.get(gazetteer.stamp, asked)
    etag = kept.etag if kept is not None else _etag(gazetteer.stamp, asked)
    headers = {"Cache-Control": "private, max-age=30", "ETag": etag}
    if etag in call.request.headers.get("If-None-Match", ""):
        return Reply(None, status=304, headers=headers)
    if kept is None:
        kept = KeptAnswer(etag, _suggestions(call, call.query(SuggestQuery), gazetteer))
        recent.put(gazetteer.stamp, asked, kept)
    return Reply(None, body=kept.body, headers=headers)


def _suggestions(call: Call, query: SuggestQuery, gazetteer: Gazetteer) -> bytes:
    """The answer to a query, as the JSON of a `Suggestions`."""
    countries = call.services.layouts.country_codes
    found = gazetteer.search(
        SearchRequest(
            text=query.q,
            countries=_listed(query.country.upper(), countries, "country", "country"),
            kinds=_listed(query.kinds, SUGGESTION_KINDS, "kind of suggestion", "kinds"),
            near=_point(query.near),
            within=query.within,
            language=query.language or "",
            limit=query.limit + 1,
            skip=_skip(query.after),
            trace=query.trace,
        )
    )
    if found is None:
        raise not_found(f"There is no group {query.within!r} in the active editions; search anew.")
    more = len(found.rows) > query.limit
    rows = found.rows[: query.limit]
    # Plain values, not shapes: this is made at every keystroke, and tests hold it to the shape.
    return orjson.dumps(
        {
            "suggestions": [
                {
                    "id": row.id,
                    "kind": row.kind,
                    "label": row.label,
                    "country_code": row.country_code,
                    "count": row.count,
                    "matches": row.matches,
                }
                for row in rows
            ],
            "corrected": found.corrected,
            "unmatched": found.unmatched,
            "after": str(_skip(query.after) + query.limit) if more else None,
            "edition": gazetteer.stamp,
            "trace": _trace(found.steps, rows).model_dump() if query.trace else None,
        }
    )


def _etag(stamp: str, query: bytes) -> str:
    return f'"{hashlib.blake2b(stamp.encode() + b"?" + query, digest_size=12).hexdigest()}"'


def _trace(steps: Iterable[Step], rows: Iterable[Suggestion]) -> TraceShape:
    return TraceShape(
        readings=[
            ReadingShape(
                dataset=step.dataset,
                reading=step.reading,
                tokens=list(step.tokens),
                found=step.nodes,
            )
            for step in steps
        ],
        rows=[WorthShape(id=row.id, score=round(row.score, 2), parts=row.why) for row in rows],
    )


@area.endpoint(
    "GET",
    "/addresses/<path:address_id>",
    access=Access.CAPTURE,
    query=AddressQuery,
    answer=AddressAnswer,
    problems=(404,),
)
def get_address(call: Call) -> Shape:
    """One address with its components, facts and lines."""
    found = call.services.gazetteer.current().address(call.path["address_id"])
    if found is None:
        raise not_found(f"There is no address {call.path['address_id']!r}.")
    address, _edition = found
    wanted = call.query(AddressQuery).components
    names = _listed(wanted or "", COMPONENTS, "component", "components")
    layouts = call.services.layouts_in_force.current().everywhere
    layout = layouts.require(address.country_code)
    return AddressAnswer(
        id=address.id,
        components={
            name: value
            for name, value in address.components.items()
            if wanted is None or name in names
        },
        facts=facts_shape(address.facts),
        lines=write_lines(layout, address.components),
    )


@area.endpoint(
    "GET",
    "/postcodes/<country_code>/<postcode>",
    access=Access.SERVER,
    answer=(PostcodeAnswer, PartialPostcodeAnswer),
    problems=(404,),
)
def get_postcode(call: Call) -> Shape:
    """All addresses of a postcode, or the postcodes that begin with a part of one."""
    layout = require_layout(call, call.path["country_code"])
    typed = call.path["postcode"]
    if not postcode_beginnings(layout, typed):
        detail = (
            f"{typed!r} is not a postcode of {layout.name}: it looks like {masks_hint(layout)}."
        )
        raise invalid([Problem("/postcode", detail)])
    found = call.services.gazetteer.current().postcode(layout, typed)
    if found is None:
        raise not_found(f"There is no address with the postcode {typed!r} in {layout.name}.")
    if isinstance(found, PostcodeAddresses):
        return PostcodeAnswer(
            postcode=found.postcode,
            count=len(found.addresses),
            addresses=[AddressEntry(id=i, label=label) for i, label in found.addresses],
        )
    return PartialPostcodeAnswer(
        postcode=found.postcode,
        partial=True,
        postcodes=[PostcodeEntry(postcode=p, count=n) for p, n in found.postcodes],
        total=found.total,
        towns=list(found.towns),
    )


@area.endpoint("GET", "/nearest", access=Access.SERVER, query=NearestQuery, answer=NearestAnswer)
def get_nearest(call: Call) -> Shape:
    """The addresses nearest to a point, by great-circle distance."""
    query = call.query(NearestQuery)
    found = call.services.gazetteer.current().nearest(
        query.latitude, query.longitude, query.limit, query.radius_m
    )
    return NearestAnswer(
        addresses=[NearEntry(id=n.id, label=n.label, distance_m=n.distance_m) for n in found]
    )


def facts_shape(facts: Facts) -> FactsShape:
    """Facts as they are answered."""
    return FactsShape(
        latitude=facts.latitude,
        longitude=facts.longitude,
        use=facts.use,
        languages=list(facts.languages),
    )


def _listed(text: str, known: Collection[str], what: str, parameter: str) -> tuple[str, ...]:
    """The names in a text with commas, each of which must be known."""
    if not text:
        return ()
    names = tuple(name.strip() for name in text.split(",") if name.strip())
    problems = [
        Problem(f"?{parameter}", _unknown(what, name, known)) for name in names if name not in known
    ]
    if problems:
        raise invalid(problems)
    return names


def _unknown(what: str, name: str, known: Collection[str]) -> str:
    if what == "country":
        return unknown_country_detail(name, known, what)
    return unknown_name_detail(what, name, nearest_names(name, known))


def _point(near: str | None) -> tuple[float, float] | None:
    if near is None:
        return None
    latitude, longitude = map(float, near.split(","))
    return latitude, longitude


def _skip(after: str | None) -> int:
    if after is None:
        return 0
    if not after.isdecimal() or int(after) > 1_000_000:
        raise invalid([Problem("?after", "This was not handed out by an answer before.")])
    return int(after)
