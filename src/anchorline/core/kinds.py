"""Kinds of things that are found, and how long a query may be: light, for wire and command line."""

from __future__ import annotations

NODE_KINDS: tuple[str, ...] = (
    "street", "district", "town", "region", "postcode", "building", "organisation", "place",
)  # fmt: skip
SUGGESTION_KINDS: tuple[str, ...] = ("address", *NODE_KINDS)
LONGEST_QUERY = 200
