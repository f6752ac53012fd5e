"""API: changes that rules of a mapping can make."""

from __future__ import annotations

from anchorline.core.mapping import CHANGES
from anchorline.wire.base import Schema
from anchorline.wire.mapping import ChangeKindSchema, ChangeSettingSchema, MappingChanges

from ..access import Access
from ..endpoints import ApiRequest, Router

router = Router("mapping", "forms")


@router.endpoint("GET", "/mapping-changes", access=Access.SERVER, answer=MappingChanges)
def list_mapping_changes(_request: ApiRequest) -> Schema:
    """Changes that a rule can make to its text, with their settings."""
    kinds = sorted(CHANGES.values(), key=lambda kind: kind.title)
    return MappingChanges(
        changes=[
            ChangeKindSchema(
                name=kind.name,
                title=kind.title,
                help=kind.help,
                settings=[
                    ChangeSettingSchema(
                        name=one.name,
                        title=one.title,
                        type=one.type,
                        options=dict(one.options),
                        default=one.default,
                        least=one.least,
                        most=one.most,
                    )
                    for one in kind.settings
                ],
            )
            for kind in kinds
        ]
    )
