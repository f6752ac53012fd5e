"""API: how an own layout would ask and write, were it published."""

from __future__ import annotations

from anchorline.application.documents.own_layouts import reviewed
from anchorline.wire.base import Schema
from anchorline.wire.own_layouts import PreviewAnswer, PreviewRequest, own_layout_as_kept

from ..access import Access
from ..endpoints import ApiRequest, Router
from .own_layout_preview import preview

router = Router("own_layout_previews", "forms")


@router.endpoint(
    "POST",
    "/layouts/own/preview",
    access=Access.SERVER,
    body=PreviewRequest,
    answer=PreviewAnswer,
    before=("/own-layouts/preview",),
)
def preview_own_layout(request: ApiRequest) -> Schema:
    """How a country would be asked for and written, were a document published; keeps nothing."""
    body = request.body(PreviewRequest)
    own, problems = reviewed(request.services, own_layout_as_kept(body.document))
    return preview(request, own, problems, body)
