"""Checking, trying and covering a mapping, and what rules can be made of."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import ComponentMap, CountryCode, RequestSchema, Schema, Text, example
from .fields import Values
from .forms import FormDocument
from .formulas import TriedFacts
from .rules import RuleSchema


class ChangeSettingSchema(Schema):
    """One setting of a change."""

    name: str
    title: str
    type: Literal["count", "text", "choice", "table", "language"]
    options: dict[str, str] = Field(description="Of a choice: what each value is called")
    default: str | int | None = Field(description="Where it is left out; null: it must be given")
    least: int
    most: int


class ChangeKindSchema(Schema):
    """A change that a rule can make to its text."""

    name: str
    title: str = Field(description="What it makes of a text: `in capitals`")
    help: str
    settings: list[ChangeSettingSchema]


class MappingChanges(Schema):
    """All changes, by their titles."""

    model_config = example(
        {
            "changes": [
                {
                    "name": "first",
                    "title": "first characters only",
                    "help": "So many characters from the front.",
                    "settings": [
                        {
                            "name": "count",
                            "title": "Characters",
                            "type": "count",
                            "options": {},
                            "default": None,
                            "least": 1,
                            "most": 1000,
                        }
                    ],
                }
            ]
        }
    )
    changes: list[ChangeKindSchema]


class LintRequest(RequestSchema):
    """Which document: left out, the draft."""

    model_config = example({}) | {"extra": "forbid"}
    document: FormDocument | None = Field(default=None, description="Instead of the draft")


class MappingFinding(Schema):
    """Something that is wrong with mappings, or that somebody should know."""

    pointer: str = Field(description="JSON pointer (RFC 6901) into the document")
    severity: Literal["problem", "warning"] = Field(
        description="A problem stands against publishing"
    )
    detail: str
    addresses: int | None = Field(
        description="How many of the addresses that were looked at it concerns"
    )
    check: str = Field(description="What found it; `document` for what cannot be read")
    offers: list[str] = Field(description="What could stand at the pointer, the likeliest first")


class LintAnswer(Schema):
    """What is wrong, problems first."""

    model_config = example(
        {
            "problems": [
                {
                    "pointer": "/slots/0/mapping/2/components/0",
                    "severity": "problem",
                    "detail": "There is no component 'strete'. Did you mean street?",
                    "addresses": None,
                    "check": "document",
                    "offers": ["street"],
                }
            ],
            "looked_at": {"GB": 100},
        }
    )
    problems: list[MappingFinding]
    looked_at: dict[str, int] = Field(description="Addresses of the reference data, by country")


class TriedAddress(RequestSchema):
    """An address that a mapping is tried with."""

    address_id: Annotated[str, Field(max_length=160)] | None = None
    components: ComponentMap | None = None
    country_code: CountryCode | None = Field(
        default=None, description="Of components; left out: theirs, or the slot's own"
    )
    facts: TriedFacts | None = None
    values: Values = {}


class TryMappingRequest(TriedAddress):
    """An address to fill a slot of a draft from."""

    model_config = example({"address_id": "demo:GB0000012"}) | {"extra": "forbid"}
    document: FormDocument | None = Field(default=None, description="Instead of the draft")


class MappingSample(Schema):
    """An address to try a mapping with.

    `which`: usual, longest, most_parts, no_number, po_box.
    """

    which: str
    country_code: str
    id: str
    label: str


class MappingSamples(Schema):
    """Addresses to try a mapping with, of each country of the slot that has any."""

    model_config = example(
        {
            "samples": [
                {
                    "which": "longest",
                    "country_code": "GB",
                    "id": "demo:GB0000012",
                    "label": "12 Abbey Mews, Marl, QV1 4AB",
                }
            ]
        }
    )
    samples: list[MappingSample]


class ProposedRule(Schema):
    """A rule that may be meant, and why."""

    rule: RuleSchema
    because: str


class ProposedRules(Schema):
    """Rules for the fields that no rule writes yet."""

    model_config = example(
        {
            "proposals": [
                {
                    "rule": {"components": ["town"], "into": "city", "changes": []},
                    "because": "Its label says “City”.",
                }
            ]
        }
    )
    proposals: list[ProposedRule]


class ReadBackRequest(RequestSchema):
    """What stands in the fields of a slot's mapping."""

    model_config = example({"values": {"line_2": "12 MILL LANE"}, "country_code": "GB"}) | {
        "extra": "forbid"
    }
    values: Annotated[dict[str, Text], Field(max_length=500)]
    country_code: CountryCode | None = None


class ReadBackAnswer(Schema):
    """The address that the fields hold."""

    model_config = example(
        {
            "components": {"number": "12", "street": "MILL LANE"},
            "lines": ["12 MILL LANE"],
            "differing": [],
        }
    )
    components: dict[str, str]
    lines: list[str]
    differing: list[str] = Field(
        description="Fields in which something else would stand if it were filled again"
    )


class ExampleOutcome(Schema):
    """What came of an example."""

    slot: str
    name: str
    passed: bool
    differences: dict[str, list[str]] = Field(
        description="Fields with what was expected and what was found"
    )


class ExampleOutcomes(Schema):
    """All examples of a form's draft."""

    model_config = example(
        {
            "examples": [
                {
                    "slot": "office",
                    "name": "A flat in a court",
                    "passed": False,
                    "differences": {"line_1": ["FLAT 3, ROWAN COURT", "FLAT 3, ROWAN CT"]},
                }
            ]
        }
    )
    examples: list[ExampleOutcome]
