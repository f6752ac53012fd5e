"""The client library: Anchorline from Python, typed.

from anchorline.client import Client

with Client("http://127.0.0.1:8470", key="anl_server_…") as anchorline:
    found = anchorline.suggest("kiln cres", country="GB")
    address = anchorline.address(found.suggestions[0].id)
"""

from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from anchorline.wire.datasets import (
        DatasetAnswer,
        EditionAnswer,
        JobAnswer,
        RulesRequest,
    )
    from anchorline.wire.finding import PostcodeAnswer, TraceSchema
    from anchorline.wire.forms import FormDocument
    from anchorline.wire.own_layouts import OwnLayoutDocument
    from anchorline.wire.page_targets import PageTargetDocument
    from anchorline.wire.program_targets import ProgramTargetDocument
    from anchorline.wire.records import SlotInputSchema

    from .activity import Activity
    from .api import Client
    from .datasets import Datasets
    from .errors import (
        AnchorlineError,
        ConflictError,
        InvalidError,
        NotFoundError,
        ProblemError,
        RefusedError,
        ServiceFailedError,
        TooManyError,
        UnexpectedAnswerError,
        UnreachableError,
        WrongArgumentError,
    )
    from .finding import FindingCalls
    from .keys import Keys
    from .own_layouts import OwnLayouts
    from .programs import Programs
    from .targets import Targets

# Where each name stands: loaded when it is asked for, since loading all schemas takes longer than
# most calls.
_PLACES = {
    "Activity": ".activity",
    "AnchorlineError": ".errors",
    "Client": ".api",
    "ConflictError": ".errors",
    "DatasetAnswer": "anchorline.wire.datasets",
    "Datasets": ".datasets",
    "EditionAnswer": "anchorline.wire.datasets",
    "FindingCalls": ".finding",
    "FormDocument": "anchorline.wire.forms",
    "InvalidError": ".errors",
    "JobAnswer": "anchorline.wire.datasets",
    "Keys": ".keys",
    "NotFoundError": ".errors",
    "OwnLayoutDocument": "anchorline.wire.own_layouts",
    "OwnLayouts": ".own_layouts",
    "PageTargetDocument": "anchorline.wire.page_targets",
    "PostcodeAnswer": "anchorline.wire.finding",
    "ProblemError": ".errors",
    "ProgramTargetDocument": "anchorline.wire.program_targets",
    "Programs": ".programs",
    "RefusedError": ".errors",
    "RulesRequest": "anchorline.wire.datasets",
    "ServiceFailedError": ".errors",
    "SlotInputSchema": "anchorline.wire.records",
    "Targets": ".targets",
    "TooManyError": ".errors",
    "TraceSchema": "anchorline.wire.finding",
    "UnexpectedAnswerError": ".errors",
    "UnreachableError": ".errors",
    "WrongArgumentError": ".errors",
}

__all__ = [
    "Activity",
    "AnchorlineError",
    "Client",
    "ConflictError",
    "DatasetAnswer",
    "Datasets",
    "EditionAnswer",
    "FindingCalls",
    "FormDocument",
    "InvalidError",
    "JobAnswer",
    "Keys",
    "NotFoundError",
    "OwnLayoutDocument",
    "OwnLayouts",
    "PageTargetDocument",
    "PostcodeAnswer",
    "ProblemError",
    "ProgramTargetDocument",
    "Programs",
    "RefusedError",
    "RulesRequest",
    "ServiceFailedError",
    "SlotInputSchema",
    "Targets",
    "TooManyError",
    "TraceSchema",
    "UnexpectedAnswerError",
    "UnreachableError",
    "WrongArgumentError",
]


def __getattr__(name: str) -> object:
    if name not in _PLACES:
        raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
    found: object = getattr(import_module(_PLACES[name], __name__), name)
    return found
