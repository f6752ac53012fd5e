"""An edition's addresses as columns: one entry an address, in storage order."""

from __future__ import annotations

from typing import cast

import numpy as np
import numpy.typing as npt

from .arrays import INNER_COMPONENTS, NAMED_COMPONENTS, NODE_COMPONENTS
from .edition import Edition, Numbers


def text_column(edition: Edition, component: str) -> Numbers:
    """The text of a component, or of `language`, of every address; 0 where it has none."""
    if component == "postcode":
        return edition.address_postcode
    if component in INNER_COMPONENTS:
        inner = edition.arrays["inner_texts"][:, INNER_COMPONENTS.index(component)]
        return cast(Numbers, inner[edition.address_inner])
    if component in NAMED_COMPONENTS:
        named = edition.arrays["named_texts"][:, NAMED_COMPONENTS.index(component)]
        return cast(Numbers, named[edition.address_named])
    shared = edition.arrays["node_texts"][:, NODE_COMPONENTS.index(component)]
    return cast(Numbers, shared[edition.street_nodes].repeat(_street_lengths(edition)))


def country_column(edition: Edition) -> Numbers:
    """The place of its country in `Edition.countries`, of every address."""
    return edition.node_country[edition.street_nodes].repeat(_street_lengths(edition))


def _street_lengths(edition: Edition) -> npt.NDArray[np.int64]:
    """How many addresses each street-level node has, in storage order."""
    firsts = edition.arrays["street_firsts"].astype(np.int64)
    return np.diff(firsts, append=edition.address_count)
