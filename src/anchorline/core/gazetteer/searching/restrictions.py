"""Limits of a search: countries, kinds, and the group that it stays inside."""

from __future__ import annotations

import numpy as np

from ...kinds import NODE_KINDS
from ..arrays import Flags, NodeNumbers
from ..edition import Edition
from ..suggestion import SearchRequest
from .candidates import NodeFilter


def wanted_nodes(edition: Edition, request: SearchRequest) -> NodeFilter | None:
    """Keeps the nodes of the request's countries and kinds; None where all are wanted.

    Addresses are found inside nodes of any kind, so where they are wanted all kinds are.
    """
    by_country = by_kind = None
    if request.countries and not set(edition.countries) <= set(request.countries):
        codes = np.array([code in request.countries for code in edition.countries])

        def by_country(nodes: NodeNumbers) -> Flags:
            return codes[edition.node_country[nodes]]

    if request.kinds and "address" not in request.kinds:
        kinds = np.array([kind in request.kinds for kind in NODE_KINDS])

        def by_kind(nodes: NodeNumbers) -> Flags:
            return kinds[edition.node_kind[nodes]]

    return both(by_country, by_kind)


def both(first: NodeFilter | None, second: NodeFilter | None) -> NodeFilter | None:
    """Keeps what two filters keep; None keeps all."""
    if first is None or second is None:
        return first or second

    def keep(nodes: NodeNumbers) -> Flags:
        return first(nodes) & second(nodes)

    return keep
