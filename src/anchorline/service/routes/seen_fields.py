"""Fields as they are seen, from what was sent; and why each is taken for what it is."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from anchorline.core.targets.options import Option
from anchorline.core.targets.proposal.seen import Place, SeenField, SeenPiece
from anchorline.core.targets.proposal.target import Reason
from anchorline.wire.target_fields import SeenFieldSchema


def seen_field(given: SeenFieldSchema) -> SeenField:
    """A field as the core has it."""
    plain = given.model_dump(exclude={"options", "pieces", "place"})
    return SeenField(
        **plain,
        options=tuple(Option(one.value, one.text) for one in given.options),
        pieces=tuple(SeenPiece(**one.model_dump()) for one in given.pieces),
        place=Place(**given.place.model_dump()) if given.place else None,
    )


def reasons_shown(reasons: Mapping[str, Reason]) -> dict[str, Any]:
    """Reasons as answers have them: `because` and `unsure`."""
    return {
        "because": {key: one.because for key, one in reasons.items()},
        "unsure": [key for key, one in reasons.items() if not one.is_sure],
    }
