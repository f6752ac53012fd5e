"""Writes the schemas of the OpenAPI document to `schemas.json`, for `npm run generate`."""

import json
from pathlib import Path
from typing import Any

from anchorline.service.app import ROUTERS
from anchorline.service.openapi import api_document


def without(names: set[str], value: Any, *, of_properties: bool = False) -> Any:
    """A schema without some keywords, in it and in the schemas inside it."""
    if isinstance(value, list):
        return [without(names, one) for one in value]
    if not isinstance(value, dict):
        return value
    return {
        key: without(names, inner, of_properties=key == "properties" and not of_properties)
        for key, inner in value.items()
        if of_properties or key not in names
    }


document = json.loads(api_document(ROUTERS))
document["paths"] = {}  # the elements and the console name paths where they call
# Keywords that say nothing about types.
document["components"]["schemas"] = {
    name: without({"title", "examples", "maxLength", "minLength", "pattern"}, schema)
    for name, schema in document["components"]["schemas"].items()
}
Path(__file__).with_name("schemas.json").write_text(json.dumps(document))
