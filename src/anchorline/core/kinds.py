"""Closed lists of names that every layer knows: kinds, orders, limits."""

from __future__ import annotations

from typing import Literal

NODE_KINDS: tuple[str, ...] = (
    "street", "district", "town", "region", "postcode", "building", "organisation", "place",
)  # fmt: skip
SUGGESTION_KINDS: tuple[str, ...] = ("address", *NODE_KINDS)
LONGEST_QUERY = 200
# The orders in which records are listed.
RecordSort = Literal["newest", "oldest", "label", "-label"]

# How sure the facts of a layout are: long published by the postal authority; as general sources
# have them, details not confirmed; open, where these disagree or hardly any mail goes.
Confidence = Literal["sure", "likely", "open"]
