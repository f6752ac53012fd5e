"""What the calls on mappings do: each parses, calls a use case, and answers."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from anchorline.application import mapping_workbench as workbench
from anchorline.application.coverage import WantedRun, start_coverage
from anchorline.application.mapped_drafts import MappedKind
from anchorline.core.layouts import write_lines
from anchorline.store.document_model import Document
from anchorline.wire.base import Schema
from anchorline.wire.coverage import CoverageRequest
from anchorline.wire.mapping import ReadBackAnswer, ReadBackRequest

from ..context import Services
from ..endpoints import ApiRequest, ApiResponse
from ..idempotency_header import idempotency_key
from ..routes.dataset_answers import job_answer
from ..routes.filling import fill_answer
from .answers import (
    coverage_answer,
    examples_answer,
    lint_answer,
    proposals_answer,
    samples_answer,
    tried_of,
)


@dataclass(frozen=True, slots=True)
class MappingApi:
    """The mappings of one kind of document, as they are called.

    Attributes:
        path, part: of a document below the API's root, and of one of its addresses below that.
        lint, tried: the schemas of documents that are given in place of the draft.
        kept: such a document as it is kept.
        require: raises where there is no such document.
    """

    kind: MappedKind
    path: str
    part: str
    lint: type[Any]
    tried: type[Any]
    kept: Callable[[Any], Document]
    require: Callable[[Services, str], object]


class MappingCalls:
    """The calls on the mappings of one kind of document."""

    def __init__(self, api: MappingApi) -> None:
        self._api, self._kind = api, api.kind

    def lint(self, request: ApiRequest) -> Schema:
        given = self._given(request.body(self._api.lint).document)
        return lint_answer(workbench.lint(request.services, self._kind, self._key(request), given))

    def examples(self, request: ApiRequest) -> Schema:
        key = self._key(request)
        return examples_answer(workbench.run_examples(request.services, self._kind, key))

    def samples(self, request: ApiRequest) -> Schema:
        place = self._place(request)
        return samples_answer(workbench.samples(request.services, self._kind, *place))

    def propose(self, request: ApiRequest) -> Schema:
        given = self._given(request.body(self._api.lint).document)
        place = self._place(request)
        return proposals_answer(workbench.propose(request.services, self._kind, *place, given))

    def try_out(self, request: ApiRequest) -> Schema:
        body, place = request.body(self._api.tried), self._place(request)
        given = self._given(body.document)
        services, caller = request.services, request.caller
        filled = workbench.try_out(
            services, caller, self._kind, *place, given, tried_of(body), body.values
        )
        return fill_answer(filled)

    def read_back(self, request: ApiRequest) -> Schema:
        body, place = request.body(ReadBackRequest), self._place(request)
        found, layout = workbench.read_back(
            request.services, self._kind, *place, body.values, body.country_code
        )
        return ReadBackAnswer(
            components=found.components,
            lines=write_lines(layout, found.components),
            differing=list(found.differing),
        )

    def start_coverage(self, request: ApiRequest) -> ApiResponse:
        key, slot = self._place(request)
        body, services = request.body(CoverageRequest), request.services
        once_by = idempotency_key(
            request, f"coverage of {self._kind.name} {key}/{slot}", request.http.get_data()
        )
        wanted = WantedRun(body.source, body.per_country, body.rows, body.table)
        job = start_coverage(services, request.caller, self._kind, key, slot, wanted, once_by)
        headers = {"Location": f"/api/v1/jobs/{job.id}"}
        return ApiResponse(job_answer(services, job), status=202, headers=headers)

    def coverage(self, request: ApiRequest) -> Schema:
        key, slot = self._place(request)
        self._api.require(request.services, key)
        return coverage_answer(request.services.coverage_runs.list(self._kind.name, key, slot))

    def _given(self, document: object) -> Document | None:
        """A document that was given in place of the draft."""
        return None if document is None else self._api.kept(document)

    def _key(self, request: ApiRequest) -> str:
        return request.path[self._kind.name]

    def _place(self, request: ApiRequest) -> tuple[str, str]:
        """The document and its address of the path."""
        return self._key(request), request.path["slot"]
