"""The calls on administrators' own layouts."""

from __future__ import annotations

from collections.abc import Mapping

from anchorline.wire.own_layouts import (
    OwnLayoutDifferenceRequest,
    OwnLayoutDocument,
    OwnLayoutDraft,
    OwnLayoutList,
    OwnLayoutSummary,
    OwnLayoutVersion,
    PreviewAnswer,
    PreviewRequest,
)

from .calls import request_body
from .documents import Documents
from .transport import Transport


class OwnLayouts(Documents[OwnLayoutDocument, OwnLayoutSummary, OwnLayoutDraft, OwnLayoutVersion]):
    """Own layouts, as `Client.own_layouts`. All methods raise the errors of `errors`."""

    def __init__(self, transport: Transport) -> None:
        super().__init__(
            transport,
            "layouts/own",
            "own_layouts",
            listed=OwnLayoutList,
            summary=OwnLayoutSummary,
            draft=OwnLayoutDraft,
            version=OwnLayoutVersion,
            difference=OwnLayoutDifferenceRequest,
        )

    def preview(
        self,
        document: OwnLayoutDocument,
        country_code: str,
        components: Mapping[str, str] | None = None,
        *,
        language: str = "en",
    ) -> PreviewAnswer:
        """How a country would be asked for and written, were a document published."""
        body = request_body(
            PreviewRequest,
            document=document,
            country_code=country_code,
            language=language,
            components=dict(components or {}),
        )
        return self._post("layouts/own/preview", PreviewAnswer, body)
