"""The OpenAPI 3.1 document, made from the endpoints' declarations."""

from __future__ import annotations

import re
from collections.abc import Iterable
from http import HTTPStatus
from typing import Any

import orjson
from pydantic import BaseModel
from pydantic.json_schema import models_json_schema

from anchorline import __doc__ as purpose
from anchorline.wire.problems import PROBLEM_TYPE, ProblemAnswer

from .access import Access
from .endpoints import (
    API,
    FILE_TYPES,
    LONGEST_HEADER,
    Endpoint,
    Router,
    request_header_pattern,
)
from .json_bodies import JSON

_PATH_PART = re.compile(r"<(?:path:)?(\w+)>")
_SCHEMAS = "#/components/schemas/"
_PATH_MEANINGS = {
    "address_id": ("Id of an address", "demo:GB0000012"),
    "country_code": ("ISO 3166-1 alpha-2", "GB"),
    "postcode": ("A postcode or its beginning", "QV1 1QF"),
    "form": ("Key of a form", "tuning-visit"),
    "own_layout": ("Key of an own layout", "letters-south"),
    "slot": ("Key of a slot of the form", "piano"),
    "field": ("Key of a field of the form", "town"),
    "version": ("Number of a published version", "1"),
    "record": ("Id of a record", "r0190a0b0c0d0aabbccddeeff"),
    "dataset": ("Name of a dataset", "demo"),
    "number": ("Number of an edition", "1"),
    "job": ("Id of a job", "0f3a9c52e17b4d0e8a61c2f5d3b49e70"),
    "target": ("Key of a target", "checkout"),
    "look": ("Id of a look at a screen", "8f0c2a9be4175f0c"),
    "key": ("Id of a key: what stands between its kind and its secret", "5f0c2a9be417"),
}
_SECURITY: dict[Access, tuple[str, ...]] = {
    Access.PUBLIC: (),
    Access.CAPTURE: ("browserKey", "serverKey", "session"),
    Access.SERVER: ("serverKey", "session"),
    Access.PERSON: ("session",),
}
_SCHEMES = {
    "serverKey": {
        "type": "http",
        "scheme": "bearer",
        "description": "A server key, `anl_server_…`. Secret: for programs only.",
    },
    "browserKey": {
        "type": "http",
        "scheme": "bearer",
        "description": "A browser key, `anl_browser_…`. Public; tied to origins and forms.",
    },
    "session": {"type": "apiKey", "in": "cookie", "name": "anchorline_session"},
}


# JSON Schema says it by `contentMediaType`; code generators look for `format: binary`.
_FILE = {
    "type": "string",
    "format": "binary",
    "contentMediaType": "application/octet-stream",
}
_UPLOAD = {
    "multipart/form-data": {
        "schema": {"type": "object", "required": ["file"], "properties": {"file": _FILE}}
    },
    **{name: {"schema": _FILE} for name in FILE_TYPES},
}


def api_document(routers: Iterable[Router]) -> bytes:
    """The document, as JSON."""
    listed = list(routers)
    schemas = _schemas(e for router in listed for e in router.endpoints)
    _, definitions = models_json_schema(
        [(schema, mode) for schema, mode in schemas], ref_template=_SCHEMAS + "{model}"
    )
    paths: dict[str, dict[str, Any]] = {}
    for router in listed:
        for endpoint in router.endpoints:
            path = API + _PATH_PART.sub(r"{\1}", endpoint.rule)
            paths.setdefault(path, {})[endpoint.method.lower()] = _operation(router, endpoint)
    return orjson.dumps(
        {
            "openapi": "3.1.0",
            "info": {"title": "Anchorline", "version": "1", "description": purpose},
            "paths": paths,
            "components": {"schemas": definitions["$defs"], "securitySchemes": _SCHEMES},
        }
    )


def _schemas(endpoints: Iterable[Endpoint]) -> list[tuple[type[BaseModel], Any]]:
    schemas: dict[tuple[type[BaseModel], str], None] = {(ProblemAnswer, "serialization"): None}
    for endpoint in endpoints:
        if endpoint.body is not None:
            schemas[endpoint.body, "validation"] = None
        for answers in endpoint.answers.values():
            for schema in answers or ():
                schemas[schema, "serialization"] = None
    return list(schemas)


def _operation(router: Router, endpoint: Endpoint) -> dict[str, Any]:
    doc = (endpoint.handler.__doc__ or "").strip()
    operation: dict[str, Any] = {
        "operationId": endpoint.name,
        "tags": [router.name],
        "summary": endpoint.summary,
        "description": f"{doc}\n\n{_needs(endpoint)}",
        "security": _security(endpoint),
        "parameters": [*_path_parameters(endpoint), *_query_parameters(endpoint)]
        + [_header(name, meaning) for name, meaning in endpoint.request_headers.items()],
        "responses": {
            **{str(s): _answer(endpoint, s, a) for s, a in endpoint.answers.items()},
            **{str(s): _problem(s) for s in sorted(_problem_statuses(endpoint))},
        },
    }
    if endpoint.upload:
        operation["requestBody"] = {"required": True, "content": _UPLOAD}
    if endpoint.body is not None:
        operation["requestBody"] = {
            "required": True,
            "content": {JSON: {"schema": {"$ref": _SCHEMAS + _name(endpoint.body)}}},
        }
    return operation


def _needs(endpoint: Endpoint) -> str:
    scopes = f" A server key needs the scope {' or '.join(endpoint.scopes)}."
    return f"Needs {endpoint.access.value}.{scopes if endpoint.scopes else ''}"


def _security(endpoint: Endpoint) -> list[dict[str, list[str]]]:
    """Who may call; of a server key each scope that opens the endpoint, as one alternative."""
    found: list[dict[str, list[str]]] = []
    for scheme in _SECURITY[endpoint.access]:
        of_server = [{scheme: [name]} for name in endpoint.scopes] or [{scheme: []}]
        found += of_server if scheme == "serverKey" else [{scheme: []}]
    return found


def _problem_statuses(endpoint: Endpoint) -> set[int]:
    statuses = {400, 408, 413, 414, 422, 431, 500, 501, 503, *endpoint.problems}
    if endpoint.access is not Access.PUBLIC:
        statuses |= {401, 403, 429}
    if endpoint.body is not None or endpoint.upload:
        statuses.add(415)
    if endpoint.method != "GET":
        statuses.add(507)
    if _PATH_PART.search(endpoint.rule):
        statuses.add(404)
    return statuses


def _path_parameters(endpoint: Endpoint) -> list[dict[str, Any]]:
    return [
        {
            "name": name,
            "in": "path",
            "required": True,
            "description": _PATH_MEANINGS[name][0],
            "schema": {"type": "string", "minLength": 1, "examples": [_PATH_MEANINGS[name][1]]},
        }
        for name in _PATH_PART.findall(endpoint.rule)
    ]


def _query_parameters(endpoint: Endpoint) -> list[dict[str, Any]]:
    if endpoint.query is None:
        return []
    schema = endpoint.query.model_json_schema()
    required = schema.get("required", [])
    return [
        {
            "name": name,
            "in": "query",
            "required": name in required,
            "description": field.pop("description", ""),
            "schema": _without_null(field),
        }
        for name, field in schema["properties"].items()
    ]


def _without_null(schema: dict[str, Any]) -> dict[str, Any]:
    """A query cannot say null: what may be left out is just the other alternative."""
    kept = {k: v for k, v in schema.items() if k not in ("title",) and v is not None}
    if "anyOf" in kept:
        alternatives = [s for s in kept.pop("anyOf") if s.get("type") != "null"]
        kept = {**alternatives[0], **kept}
    return kept


def _header(name: str, meaning: str) -> dict[str, Any]:
    pattern = f"^{request_header_pattern(name)}$"
    schema = {"type": "string", "minLength": 1, "maxLength": LONGEST_HEADER, "pattern": pattern}
    return {"name": name, "in": "header", "description": meaning, "schema": schema}


def _answer(
    endpoint: Endpoint, status: int, schemas: tuple[type[BaseModel], ...] | None
) -> dict[str, Any]:
    answer: dict[str, Any] = {"description": HTTPStatus(status).phrase}
    if endpoint.answer_headers:
        answer["headers"] = {
            name: {"description": meaning, "schema": {"type": "string"}}
            for name, meaning in endpoint.answer_headers.items()
        }
    if endpoint.download is not None:
        answer["content"] = {endpoint.download: {"schema": {"type": "string"}}}
    if schemas:
        references = [{"$ref": _SCHEMAS + _name(schema)} for schema in schemas]
        schema = references[0] if len(references) == 1 else {"anyOf": references}
        answer["content"] = {JSON: {"schema": schema}}
    return answer


def _problem(status: int) -> dict[str, Any]:
    return {
        "description": HTTPStatus(status).phrase,
        "content": {PROBLEM_TYPE: {"schema": {"$ref": _SCHEMAS + _name(ProblemAnswer)}}},
    }


def _name(schema: type[BaseModel]) -> str:
    return schema.__name__
