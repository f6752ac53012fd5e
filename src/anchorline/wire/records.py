"""Records: submitting a form, and what was kept."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from anchorline.core.kinds import RecordSort as RecordSort

from .base import CountryCode, RequestSchema, Schema, Text, example
from .fields import LanguageTag, Value, Values
from .finding import FactsSchema

_SUMMARY = {
    "id": "r01a207d5a1cc54fc005bc2d0",
    "form": "tuning-visit",
    "form_version": 1,
    "label": "Ada Brindle · 16 Abbey Mews, Brackwater, QV1 1AA",
    "made_at": "2026-03-01T12:00:00Z",
    "made_by": "page tuning-visit",
}
_VALUES = {"contact": "Ada Brindle", "piano_number": "16", "piano_street": "Abbey Mews"}
_LABELS = {"contact": "Your name", "piano_number": "Where the piano stands: Number"}
_ADDRESS = {
    "label": "Where the piano stands",
    "country_code": "GB",
    "components": {"number": "16", "street": "Abbey Mews", "town": "Brackwater"},
    "component_labels": {"number": "Number", "street": "Street", "town": "Post town"},
    "facts": {"latitude": 51.535459, "longitude": -2.880898, "use": "residential"},
    "lines": ["16 Abbey Mews", "BRACKWATER"],
    "address_id": "demo:GB0000012",
    "edition": "demo@1",
    "typed": "16 abb",
    "changed": [],
    "layout": "",
    "notes": [],
}
_FILLED = {"values": _VALUES, "labels": _LABELS, "slots": {"piano": _ADDRESS}}


class PositionInput(RequestSchema):
    """A pin that was moved on the map, or where the person was."""

    latitude: Annotated[float, Field(ge=-90, le=90)]
    longitude: Annotated[float, Field(ge=-180, le=180)]
    source: Literal["pin", "device"]
    accuracy_m: Annotated[float, Field(ge=0, le=10_000_000)] | None = None


class SlotInputSchema(RequestSchema):
    """What comes with a slot beside the values of its fields."""

    country_code: CountryCode | None = None
    address_id: Annotated[str, Field(max_length=160)] | None = None
    typed: Annotated[Text, Field(max_length=500, description="What was typed in the finder")] = ""
    position: PositionInput | None = Field(
        default=None, description="Kept where the form has a map, or keeps positions"
    )


class RecordRequest(RequestSchema):
    """A filled form."""

    model_config = example(
        {
            "values": {
                "contact": "Ada Brindle",
                "phone": "+44 20 555 0123",
                "visit": "tuning",
                "piano_number": "16",
                "piano_street": "Abbey Mews",
                "piano_town": "Brackwater",
                "piano_postcode": "QV1 1AA",
            },
            "slots": {"piano": {"country_code": "GB", "address_id": "demo:GB0000012"}},
        }
    )
    values: Values = {}
    slots: Annotated[dict[str, SlotInputSchema], Field(max_length=20)] = {}
    version: Annotated[int, Field(ge=1, le=2**31 - 1)] | None = Field(
        default=None,
        description="The version that was filled; left out: the published one. One that was "
        "replaced in the last week can still be sent",
    )
    language: LanguageTag | None = Field(
        default=None, description="In which the form was read; left out: its own"
    )
    trap: Annotated[Text, Field(max_length=500)] = Field(
        default="", description="Of a web form: what stands in the field that nobody sees"
    )
    seconds: Annotated[float, Field(ge=0, le=1e9)] | None = Field(
        default=None, description="Between opening the form and sending it, on a page of others"
    )


class PositionSchema(Schema):
    """A place kept with an address, in degrees."""

    latitude: float
    longitude: float
    source: str = Field(description="`pin`: moved on the map; `device`: where the person was")
    accuracy_m: float | None
    distance_m: int | None = Field(description="From the place of the address")


class CapturedSchema(Schema):
    """The address captured in one slot."""

    label: str = Field(description="What the form calls the slot")
    country_code: str
    components: dict[str, str]
    component_labels: dict[str, str] = Field(description="What its country calls the components")
    facts: FactsSchema
    lines: list[str]
    address_id: str | None
    edition: str | None
    typed: str
    changed: list[str] = Field(description="Fields that were changed by hand after filling")
    layout: str = Field(
        description="The own layouts it was captured with, `key@version`; empty: as shipped"
    )
    notes: list[str] = Field(
        description="What in a picked address does not fit its country's layout"
    )
    position: PositionSchema | None = None


class RecordSummary(Schema):
    """A record in a list."""

    id: str
    form: str
    form_version: int
    label: str
    made_at: datetime
    made_by: str


class RecordAnswer(RecordSummary):
    """A whole record."""

    model_config = example(
        {
            **_SUMMARY,
            "values": _VALUES,
            "texts": _VALUES,
            "labels": _LABELS,
            "slots": {"piano": _ADDRESS},
            "agreed": {},
            "language": "en",
        }
    )
    values: dict[str, Value]
    texts: dict[str, str] = Field(description="Values as people read them: of a choice its label")
    labels: dict[str, str] = Field(description="What the form calls the fields, by their keys")
    slots: dict[str, CapturedSchema] = Field(description="By the slots' keys, as they are sent")
    agreed: dict[str, str] = Field(description="The texts that were agreed to, as they were read")
    language: str = Field(description="In which the form was read")
    typed: dict[str, str] = Field(
        default={}, description="What was typed into fields that keep it otherwise: phones"
    )
    revision: int = Field(default=1, description="1, and one more with each change")
    changed_at: datetime | None = Field(default=None, description="When it was changed last")
    changed_by: str | None = None


class ReceivedAnswer(Schema):
    """What whoever fills a form without being signed in is told: that it was kept, and what of it.

    What the reference data says of an address is not in it: that comes with fetching the address.
    """

    model_config = example(
        {
            "id": "r0197f3a2c55e3a4b5c6d7e8f",
            "form": "tuning-visit",
            "form_version": 1,
            "made_at": "2026-03-01T12:00:00Z",
            "language": "en",
            "values": {"contact": "Ada Brindle"},
        }
    )
    id: str
    form: str
    form_version: int
    made_at: datetime
    language: str = Field(description="In which the form was read")
    values: dict[str, Value] = Field(description="Of the fields that were sent, as they are kept")


class RecordStateSchema(Schema):
    """What a record held from one change to the next."""

    number: int
    form_version: int
    made_at: datetime
    made_by: str
    values: dict[str, Value]
    texts: dict[str, str]
    slots: dict[str, CapturedSchema]


class RecordHistory(Schema):
    """Every state of a record, the newest first."""

    model_config = example(
        {
            "states": [
                {
                    "number": 1,
                    "form_version": 1,
                    "made_at": _SUMMARY["made_at"],
                    "made_by": _SUMMARY["made_by"],
                    "values": _VALUES,
                    "texts": _VALUES,
                    "slots": {"piano": _ADDRESS},
                }
            ]
        }
    )
    states: list[RecordStateSchema]


class DryRunAnswer(Schema):
    """What a record would hold, were the form submitted now."""

    model_config = example(
        {
            "label": _SUMMARY["label"],
            "values": _VALUES,
            "texts": _VALUES,
            "labels": _LABELS,
            "slots": {"piano": _ADDRESS},
        }
    )
    label: str
    values: dict[str, Value]
    texts: dict[str, str] = Field(description="Values as people read them: of a choice its label")
    labels: dict[str, str]
    slots: dict[str, CapturedSchema]


class FormRecordQuery(RequestSchema):
    """Which records of a form, in which order."""

    search: Annotated[str, Field(max_length=200)] = ""
    sort: RecordSort = "newest"
    limit: Annotated[int, Field(ge=1, le=200)] = 50
    after: Annotated[str, Field(max_length=600)] | None = None


class RecordQuery(FormRecordQuery):
    """Which records of all forms, in which order."""

    form: Annotated[str, Field(max_length=64)] | None = None


class RecordList(Schema):
    """A page of records; `after` fetches the next one."""

    model_config = example({"records": [_SUMMARY], "total": 1, "after": None})
    records: list[RecordSummary]
    total: int
    after: str | None
