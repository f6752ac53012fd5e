"""The client library: Anchorline from Python, typed.

from anchorline.client import Client

with Client("http://127.0.0.1:8470", key="anl_server_…") as anchorline:
    found = anchorline.suggest("kiln cres", country="GB")
    address = anchorline.address(found.suggestions[0].id)
"""

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
from .keys import Keys
from .own_layouts import OwnLayouts
from .programs import Programs
from .targets import Targets

__all__ = [
    "Activity",
    "AnchorlineError",
    "Client",
    "ConflictError",
    "DatasetAnswer",
    "Datasets",
    "EditionAnswer",
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
