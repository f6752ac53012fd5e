"""Layouts, lines, and checking components against a layout."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .base import ComponentMap, RequestShape, Shape, example


class LayoutQuery(RequestShape):
    """In which language labels are wanted."""

    language: Annotated[str, Field(max_length=35, description="BCP 47")] = "en"


class LayoutEntry(Shape):
    """A layout in the list."""

    country_code: str
    name: str


class LayoutList(Shape):
    """All layouts, by the country's name."""

    model_config = example({"layouts": [{"country_code": "GB", "name": "United Kingdom"}]})
    layouts: list[LayoutEntry]


class OptionShape(Shape):
    """One region that can be chosen; `latin` is its name in Latin letters."""

    code: str
    name: str
    latin: str


class AskedShape(Shape):
    """One component that is asked for."""

    component: str
    label: str
    required: bool
    options: list[OptionShape] | None


class LayoutAnswer(Shape):
    """A country's layout: its components in the order of asking."""

    model_config = example(
        {
            "country_code": "US",
            "name": "United States",
            "components": [
                {"component": "postcode", "label": "ZIP code", "required": True, "options": None}
            ],
            "masks": ["99999", "99999-9999"],
            "version": 1,
        }
    )
    country_code: str
    name: str
    components: list[AskedShape]
    masks: list[str] = Field(description="9 a digit, A a letter, * either, anything else itself")
    version: int


class LinesRequest(RequestShape):
    """What to write out."""

    model_config = example(
        {
            "components": {"number": "16", "street": "Abbey Mews", "town": "Brackwater"},
            "international": True,
        }
    )
    components: ComponentMap
    international: bool = Field(default=False, description="For mail from abroad")


class LinesAnswer(Shape):
    """The lines, none of them empty."""

    model_config = example({"lines": ["16 Abbey Mews", "BRACKWATER", "UNITED KINGDOM"]})
    lines: list[str]


class CheckComponentsRequest(RequestShape):
    """What to hold against the layout."""

    model_config = example({"components": {"street": "Abbey Mews", "postcode": "qv11aa"}})
    components: ComponentMap


class ComponentProblem(Shape):
    """What is wrong with one component."""

    component: str
    detail: str


class CheckComponentsAnswer(Shape):
    """Components in their canonical spelling, and what is wrong with them."""

    model_config = example(
        {
            "components": {"street": "Abbey Mews", "postcode": "QV1 1AA"},
            "problems": [{"component": "town", "detail": "United Kingdom needs a Post town here."}],
        }
    )
    components: dict[str, str]
    problems: list[ComponentProblem]
