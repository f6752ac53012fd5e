"""What commands say of targets."""

from __future__ import annotations

from anchorline.client import PageTargetDocument, ProgramTargetDocument

from .document_kinds import KindCommands

TARGETS = KindCommands(
    group="targets",
    noun="target",
    example="checkout",
    calls=lambda client: client.targets,
    schema=lambda content: (
        ProgramTargetDocument if content.get("kind") == "program" else PageTargetDocument
    ),
    at_publish="pages and desktop agents follow at once",
    out_of_force="no page or program can use it any more",
    columns={"kind": lambda one: one.kind},
)
