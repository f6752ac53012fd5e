"""The calls that the mappings of all kinds of documents have, declared once and for each kind."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from anchorline.application.mapped_drafts import FORMS_MAPPED, TARGETS_MAPPED
from anchorline.wire.base import Schema
from anchorline.wire.coverage import CoverageRequest, CoverageRuns
from anchorline.wire.datasets import JobAnswer
from anchorline.wire.filling import FillAnswer
from anchorline.wire.forms import document_as_kept
from anchorline.wire.mapping import (
    ExampleOutcomes,
    LintAnswer,
    LintRequest,
    MappingSamples,
    ProposedRules,
    ReadBackAnswer,
    ReadBackRequest,
    TryMappingRequest,
)
from anchorline.wire.target_mapping import LintTargetRequest, TryTargetMappingRequest
from anchorline.wire.targets import target_as_kept

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Handler, Router
from ..idempotency_header import IDEMPOTENCY
from .calls import MappingApi, MappingCalls


@dataclass(frozen=True, slots=True)
class _Call:
    """A call that the mappings of every kind have.

    Attributes:
        path: WHOLE stands for a document's path, PART for that of one of its addresses.
        names: of the operation, of a form and of a target.
        does: the method of `MappingCalls`.
        declared: of the endpoint; `=lint` is the schema of that name of the kind's API.
    """

    method: str
    path: str
    names: tuple[str, str]
    says: str
    does: str
    declared: Mapping[str, Any]

    def handler(self, name: str, does: Callable[[ApiRequest], Any]) -> Handler:
        def handle(request: ApiRequest) -> Schema | ApiResponse:
            answer: Schema | ApiResponse = does(request)
            return answer

        handle.__name__, handle.__doc__ = name, self.says
        return handle


_CALLS = (
    _Call(
        "POST", "WHOLE/lint", ("lint_form", "lint_target"),
        "What is wrong with the mappings of a draft, and what should be known; keeps nothing.",
        "lint", {"body": "=lint", "answer": LintAnswer},
    ),
    _Call(
        "GET", "WHOLE/examples", ("run_form_examples", "run_target_examples"),
        "The examples of a draft, each with what came of it.", "examples",
        {"answer": ExampleOutcomes},
    ),
    _Call(
        "GET", "PART/samples", ("list_mapping_samples", "list_target_samples"),
        "Addresses to try a mapping with: usual ones and odd ones of each country.", "samples",
        {"answer": MappingSamples},
    ),
    _Call(
        "POST", "PART/proposals", ("propose_mapping", "propose_target_rules"),
        "Rules for the fields of a draft that no rule of an address writes yet, with reasons.",
        "propose", {"body": "=lint", "answer": ProposedRules},
    ),
    _Call(
        "POST", "PART/try", ("try_mapping", "try_target_mapping"),
        "What a draft's mapping makes of an address, step by step; keeps nothing.", "try_out",
        {"body": "=tried", "answer": FillAnswer},
    ),
    _Call(
        "POST", "PART/components", ("read_components_back", "read_target_components"),
        "The address that stands in the fields of a mapping.", "read_back",
        {"body": ReadBackRequest, "answer": ReadBackAnswer},
    ),
    _Call(
        "POST", "PART/coverage", ("start_mapping_coverage", "start_target_coverage"),
        "Runs a draft's mapping over many addresses: a job.", "start_coverage",
        {
            "body": CoverageRequest, "answer": JobAnswer, "status": 202, "problems": (404, 409),
            "request_headers": IDEMPOTENCY,
            "answer_headers": {"Location": "Where the job can be watched"},
        },
    ),
    _Call(
        "GET", "PART/coverage", ("list_coverage", "list_target_coverage"),
        "The latest runs over many addresses, newest first.", "coverage",
        {"answer": CoverageRuns},
    ),
)  # fmt: skip


def _router(api: MappingApi, which: int) -> Router:
    router, calls = Router(f"{api.kind.name}_mappings", "forms"), MappingCalls(api)
    for call in _CALLS:
        declared: dict[str, Any] = {"problems": (404,)} | {
            name: getattr(api, value[1:]) if str(value).startswith("=") else value
            for name, value in call.declared.items()
        }
        path = call.path.replace("PART", f"WHOLE/{api.part}").replace("WHOLE", f"/{api.path}")
        router.endpoint(call.method, path, access=Access.SERVER, **declared)(
            call.handler(call.names[which], getattr(calls, call.does))
        )
    return router


_FORMS = MappingApi(
    FORMS_MAPPED, "forms/<form>", "slots/<slot>", LintRequest, TryMappingRequest,
    document_as_kept, lambda services, key: services.forms.require(key),
)  # fmt: skip
_TARGETS = MappingApi(
    TARGETS_MAPPED, "targets/<target>", "addresses/<slot>", LintTargetRequest,
    TryTargetMappingRequest, target_as_kept, lambda services, key: services.targets.require(key),
)  # fmt: skip
MAPPING_ROUTERS = tuple(_router(api, which) for which, api in enumerate((_FORMS, _TARGETS)))
