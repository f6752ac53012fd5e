"""Layouts, lines, and checking components against a layout."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from anchorline.core.kinds import Confidence

from .base import ComponentMap, CountryCode, Key, RequestSchema, Schema, example

# So many addresses may be written out by one call.
MOST_ADDRESSES = 1000


_ON_FORM = "On this form; left out: as it holds everywhere"


class LayoutQuery(RequestSchema):
    """In which language labels are wanted, and on which form."""

    form: Key | None = Field(default=None, description=_ON_FORM)
    language: Annotated[
        str,
        Field(
            max_length=200,
            description="BCP 47, several with commas: labels are in the first that there are",
        ),
    ] = "en"


class LayoutEntry(Schema):
    """A layout in the list."""

    country_code: str
    name: str
    confidence: Confidence = Field(description="How sure its facts are")
    post_of: str = Field(description="The country whose post it uses; empty for its own")
    own: list[str] = Field(description="Keys of the own layouts that are published for it")
    has_addresses: bool = Field(description="Whether its addresses can be searched")


class LayoutList(Schema):
    """All layouts, by the country's name."""

    model_config = example(
        {
            "layouts": [
                {
                    "country_code": "RE",
                    "name": "Réunion",
                    "confidence": "sure",
                    "post_of": "FR",
                    "own": [],
                    "has_addresses": False,
                }
            ],
            "labels": {"street": "Street", "postcode": "Postcode"},
        }
    )
    layouts: list[LayoutEntry]
    labels: dict[str, str] = Field(
        description="What the components are called where no country says otherwise"
    )


class OptionSchema(Schema):
    """One region that can be chosen; `latin` is its name in Latin letters."""

    code: str
    name: str
    latin: str


class LayoutComponentSchema(Schema):
    """One component that is asked for."""

    component: str
    label: str
    required: bool
    options: list[OptionSchema] | None


class OwnStepSchema(Schema):
    """An own layout that has a say, before the ones after it and the shipped one."""

    key: str
    title: str
    version: int | None
    of_form: bool = Field(description="For named forms; else for the country everywhere")


class LayoutAnswer(Schema):
    """A country's layout: its components in the order of asking."""

    model_config = example(
        {
            "country_code": "US",
            "name": "United States",
            "language": "en",
            "components": [
                {"component": "postcode", "label": "ZIP code", "required": True, "options": None}
            ],
            "labels": {"nation": "Nation"},
            "has_addresses": True,
            "masks": ["99999", "99999-9999"],
            "starts": [],
            "languages": ["en"],
            "lines": {"": ["number street", "town, region_code postcode"]},
            "confidence": "sure",
            "source": "ISO 3166-2:US",
            "post_of": "",
            "version": 1,
            "hidden": [],
            "own": [],
        }
    )
    country_code: str
    name: str
    language: str = Field(description="Of the labels, BCP 47")
    components: list[LayoutComponentSchema]
    labels: dict[str, str] = Field(description="What the components not asked for are called")
    has_addresses: bool = Field(description="Whether the gazetteer has addresses of the country")
    masks: list[str] = Field(description="9 a digit, A a letter, * either, anything else itself")
    starts: list[str] = Field(description="What every postcode begins with; empty: open")
    languages: list[str] = Field(description="BCP 47, the commonest first")
    lines: dict[str, list[str]] = Field(
        description="Lines in their notation, by ISO 15924 script; the empty one is the rest"
    )
    confidence: Confidence
    source: str = Field(description="Where the facts come from")
    post_of: str = Field(description="The country whose post it uses; empty for its own")
    version: int
    hidden: list[str] = Field(description="Components that an own layout took out")
    own: list[OwnStepSchema] = Field(
        description="The own layouts that speak before the shipped one, the strongest first"
    )


class LinesRequest(RequestSchema):
    """What to write out."""

    model_config = example(
        {
            "components": {"number": "16", "street": "Abbey Mews", "town": "Brackwater"},
            "international": True,
        }
    )
    components: ComponentMap
    international: bool = Field(default=False, description="For mail from abroad")
    from_country: CountryCode | None = Field(
        default=None,
        description="Where mail from abroad is posted: the country is named in its language, "
        "otherwise in English",
    )
    form: Key | None = Field(default=None, description=_ON_FORM)


class LeftOutComponent(Schema):
    """A component that was given and is not in the lines."""

    component: str
    value: str
    reason: str = Field(description="Why, in a sentence")


class LinesAnswer(Schema):
    """The lines, none of them empty, and what they leave out."""

    model_config = example(
        {
            "lines": ["16 Abbey Mews", "BRACKWATER", "UNITED KINGDOM"],
            "html": '<address dir="ltr" lang="en">16 Abbey Mews<br>BRACKWATER</address>',
            "one_line": "16 Abbey Mews, Brackwater",
            "left_out": [
                {
                    "component": "nation",
                    "value": "England",
                    "reason": "The post of United Kingdom delivers without the nation.",
                }
            ],
        }
    )
    lines: list[str]
    html: str = Field(description="The same as an `address` element, escaped")
    one_line: str = Field(description="For labels and lists: one line, without capitals")
    left_out: list[LeftOutComponent] = Field(
        description="What was given and is not in the lines, and why"
    )


class ManyLinesRequest(RequestSchema):
    """Addresses to write out; each names its country among its components."""

    model_config = example(
        {"addresses": [{"country_code": "IE", "town": "Kilcorran", "region": "Kerry"}]}
    )
    addresses: list[ComponentMap] = Field(max_length=MOST_ADDRESSES)
    international: bool = Field(default=False, description="For mail from abroad")
    from_country: CountryCode | None = Field(
        default=None, description="Where mail from abroad is posted"
    )
    form: Key | None = Field(default=None, description=_ON_FORM)


class ManyLinesAnswer(Schema):
    """For each address its lines, in the order given."""

    model_config = example({"lines": [["KILCORRAN", "Co. Kerry"]], "left_out": [[]]})
    lines: list[list[str]]
    left_out: list[list[LeftOutComponent]] = Field(
        description="For each address what was given and is not in its lines"
    )


class CheckComponentsRequest(RequestSchema):
    """What to hold against the layout."""

    model_config = example({"components": {"street": "Abbey Mews", "postcode": "qv11aa"}})
    components: ComponentMap
    form: Key | None = Field(default=None, description=_ON_FORM)


class ComponentProblem(Schema):
    """What is wrong with one component."""

    component: str
    detail: str


class UnusedComponent(Schema):
    """A value that the country has no place for; it is kept."""

    component: str
    value: str
    offered_to: str | None = Field(description="A component that is empty and may hold it")


class CheckComponentsAnswer(Schema):
    """Components in their canonical spelling, and what is wrong with them."""

    model_config = example(
        {
            "components": {"street": "Abbey Mews", "postcode": "QV1 1AA"},
            "problems": [{"component": "town", "detail": "United Kingdom needs a Post town here."}],
            "unused": [{"component": "region", "value": "Kent", "offered_to": None}],
        }
    )
    components: dict[str, str]
    problems: list[ComponentProblem]
    unused: list[UnusedComponent] = Field(description="What the country has no place for")
