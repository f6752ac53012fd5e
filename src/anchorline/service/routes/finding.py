"""API: suggestions, addresses, postcodes, nearest."""

from __future__ import annotations

import hashlib
from collections.abc import Collection, Iterable

import orjson

from anchorline.application.filling import count_address
from anchorline.application.layout_use import layout_for
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
from anchorline.core.practice import PRACTICE, is_practice
from anchorline.wire.base import Schema
from anchorline.wire.finding import (
    AddressAnswer,
    AddressEntry,
    AddressQuery,
    FactsSchema,
    InterpretationSchema,
    PartialPostcodeAnswer,
    PostcodeAnswer,
    PostcodeEntry,
    PostcodeQuery,
    Suggestions,
    SuggestQuery,
    TraceSchema,
    WorthSchema,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..problems import invalid, not_found
from ..recent_answers import KeptAnswer

router = Router("finding", "find")


@router.endpoint(
    "GET",
    "/suggest",
    access=Access.CAPTURE,
    query=SuggestQuery,
    answer=Suggestions,
    problems=(404,),
    request_headers={"If-None-Match": "The ETag of an answer to the same query"},
    answer_headers={"ETag": "Stays the same as long as the editions do"},
    not_modified=True,
    fast=True,
)
def suggest(request: ApiRequest) -> ApiResponse:
    """Suggestions for what was typed, or the contents of a group.

    A group is opened with `within`; with `q` as well, the search stays inside it.
    """
    query, recent = request.http.query_string, request.services.recent_answers
    gazetteer = _searched(request, query)
    kept = recent.get(gazetteer.stamp, query)
    etag = kept.etag if kept is not None else _etag(gazetteer.stamp, query)
    headers = {"Cache-Control": "private, max-age=30", "ETag": etag}
    if etag in request.http.headers.get("If-None-Match", ""):
        return ApiResponse(None, status=304, headers=headers)
    if kept is None:
        kept = KeptAnswer(etag, _suggestions(request, request.query(SuggestQuery), gazetteer))
        recent.put(gazetteer.stamp, query, kept)
    return ApiResponse(None, body=kept.body, headers=headers)


def _searched(request: ApiRequest, query: bytes) -> Gazetteer:
    """What a query is searched in; most queries are not read for that."""
    if PRACTICE.encode() in query:
        asked = request.query(SuggestQuery)
        if asked.practice or is_practice(asked.within or ""):
            return request.services.gazetteer.practice()
    return request.services.gazetteer.current()


def _suggestions(request: ApiRequest, query: SuggestQuery, gazetteer: Gazetteer) -> bytes:
    """The answer to a query, as the JSON of a `Suggestions`."""
    countries = request.services.layouts.country_codes
    found = gazetteer.search(
        SearchRequest(
            text=query.q,
            countries=listed(query.country.upper(), countries, "country", "country"),
            kinds=listed(query.kinds, SUGGESTION_KINDS, "kind of suggestion", "kinds"),
            near=_point(query.near),
            within=query.within,
            language=query.language or "",
            limit=query.limit + 1,
            skip=_skip(query.after),
            datasets=listed(query.datasets, gazetteer.datasets, "active dataset", "datasets"),
            trace=query.trace,
        )
    )
    if found is None:
        raise not_found(f"There is no group {query.within!r} in the active editions; search anew.")
    more = len(found.rows) > query.limit
    rows = found.rows[: query.limit]
    # Plain values, not schemas: this is made at every keystroke, and tests hold it to the schema.
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


def _trace(steps: Iterable[Step], rows: Iterable[Suggestion]) -> TraceSchema:
    return TraceSchema(
        interpretations=[
            InterpretationSchema(
                dataset=step.dataset,
                interpretation=step.interpretation,
                tokens=list(step.tokens),
                found=step.nodes,
            )
            for step in steps
        ],
        rows=[WorthSchema(id=row.id, score=round(row.score, 2), parts=row.why) for row in rows],
    )


@router.endpoint(
    "GET",
    "/addresses/<path:address_id>",
    access=Access.CAPTURE,
    query=AddressQuery,
    answer=AddressAnswer,
    problems=(404,),
)
def get_address(request: ApiRequest) -> Schema:
    """One address with its components, facts and lines."""
    identifier = request.path["address_id"]
    found = request.services.gazetteer.having(identifier).address(identifier)
    if found is None:
        raise not_found(f"There is no address {identifier!r}.")
    address, _edition = found
    query = request.query(AddressQuery)
    wanted = query.components
    names = listed(wanted or "", COMPONENTS, "component", "components")
    layouts = request.services.layouts_in_force.current().everywhere
    layout = layouts.require(address.country_code)
    count_address(request.services, request.caller, address.id, query.capture)
    return AddressAnswer(
        id=address.id,
        components={
            name: value
            for name, value in address.components.items()
            if wanted is None or name in names
        },
        facts=facts_schema(address.facts),
        lines=write_lines(layout, address.components),
        practice=is_practice(address.id),
    )


@router.endpoint(
    "GET",
    "/postcodes/<country_code>/<postcode>",
    access=Access.SERVER,
    query=PostcodeQuery,
    answer=(PostcodeAnswer, PartialPostcodeAnswer),
    problems=(404,),
)
def get_postcode(request: ApiRequest) -> Schema:
    """All addresses of a postcode, or the postcodes that begin with a part of one."""
    layout = layout_for(request.services, request.caller, request.path["country_code"])
    typed = request.path["postcode"]
    if not postcode_beginnings(layout, typed):
        detail = (
            f"{typed!r} is not a postcode of {layout.name}: it looks like {masks_hint(layout)}."
        )
        raise invalid([Problem("/postcode", detail)])
    found = request.services.gazetteer.current().postcode(layout, typed)
    if found is None:
        raise not_found(f"There is no address with the postcode {typed!r} in {layout.name}.")
    if isinstance(found, PostcodeAddresses):
        whole = f"{layout.country_code} {found.postcode}"
        count_address(request.services, request.caller, whole, request.query(PostcodeQuery).capture)
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


def facts_schema(facts: Facts) -> FactsSchema:
    """Facts as they are answered."""
    return FactsSchema(
        latitude=facts.latitude,
        longitude=facts.longitude,
        use=facts.use,
        languages=list(facts.languages),
    )


def listed(text: str, known: Collection[str], what: str, parameter: str) -> tuple[str, ...]:
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
