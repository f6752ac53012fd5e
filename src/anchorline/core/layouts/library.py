"""The shipped layouts, read from the files in `data/`."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator, Mapping
from functools import lru_cache
from importlib import resources
from importlib.resources.abc import Traversable
from typing import Any

from anchorline.yaml_documents import read_yaml

from ..address import COMPONENT_SET, COMPONENTS
from ..errors import DocumentError, Problem, UnknownNameError
from .model import Layout, LayoutComponent, Region
from .notation import read_line

Document = Mapping[str, Any]
# What a territory takes over from the country whose post it uses, unless it says otherwise.
_INHERITED = (
    "ask", "lines", "lines_by_script", "called_unit", "masks", "never_first", "regions", "prefixes",
)  # fmt: skip


class LayoutLibrary:
    """Layouts by country code."""

    def __init__(self, layouts: Iterable[Layout]) -> None:
        self._by_code = {layout.country_code: layout for layout in layouts}

    def __iter__(self) -> Iterator[Layout]:
        return iter(self._by_code.values())

    @property
    def country_codes(self) -> Collection[str]:
        """The codes of all countries that have a layout (ISO 3166-1 alpha-2)."""
        return self._by_code.keys()

    def get(self, country_code: str) -> Layout | None:
        """The layout of a country (ISO 3166-1 alpha-2, in any case), or None."""
        return self._by_code.get(country_code.upper())

    def require(self, country_code: str) -> Layout:
        """The layout of a country.

        Raises:
            UnknownNameError: there is none; carries the nearest codes.
        """
        layout = self.get(country_code)
        if layout is None:
            raise UnknownNameError("layout for country", country_code, self._by_code)
        return layout


@lru_cache(maxsize=1)
def shipped_layouts() -> LayoutLibrary:
    """Every layout that ships with this release, by country code."""
    folder = resources.files("anchorline.core.layouts") / "data"
    labels = _shipped_labels()
    names = sorted(entry.name for entry in folder.iterdir() if len(entry.name) == len("GB.yaml"))
    documents = {name.removesuffix(".yaml"): _yaml(folder / name) for name in names}
    return LayoutLibrary(
        read_layout(inherited(document, documents), labels) for document in documents.values()
    )


@lru_cache(maxsize=1)
def _shipped_labels() -> Document:
    return _yaml(resources.files("anchorline.core.layouts") / "data" / "labels.yaml")


def usual_labels(component: str, languages: Iterable[str]) -> dict[str, str]:
    """What a component is called in English and some languages where no country says otherwise."""
    return _labels(_shipped_labels(), component, languages)


def usual_label(component: str, language: str) -> str:
    """What a component is called in a language (BCP 47), in English where that is not known."""
    labels = usual_labels(component, (language, language.split("-")[0]))
    known = labels.get(language) or labels.get(language.split("-")[0]) or labels.get("en")
    # What only an own layout asks for is called by its name where that layout holds no more.
    return known or component.replace("_", " ").capitalize()


def component_terms() -> dict[str, str]:
    """What the components are called in English where all of them stand side by side."""
    terms: dict[str, str] = dict(_shipped_labels()["en"])
    return {name: terms[name] for name in COMPONENTS}


def component_label(layout: Layout | None, component: str, language: str = "en") -> str:
    """What a component is called in a layout's country; without a layout, as usual."""
    entry = layout.component(component) if layout is not None else None
    return entry.label(language) if entry is not None else usual_label(component, language)


def _labels(labels: Document, component: str, languages: Iterable[str]) -> dict[str, str]:
    # A region is called the same, whether its name or its code is asked for.
    name = "region" if component == "region_code" else component
    return {
        language: labels[language][name]
        for language in ("en", *languages)
        if name in labels.get(language, {})
    }


def _yaml(file: Traversable) -> Document:
    document: Document = read_yaml(file.read_bytes())
    return document


def inherited(document: Document, documents: Mapping[str, Document]) -> Document:
    """A document with what it does not say itself taken from the country whose post it uses."""
    if "post_of" not in document:
        return document
    parent = documents[document["post_of"]]
    return {**{key: parent[key] for key in _INHERITED if key in parent}, **document}


def read_layout(document: Document, labels: Document) -> Layout:
    """A layout from its document, with the labels it does not give taken from `labels`.

    A region is not asked for where there is but one.

    Raises:
        DocumentError: the document names no known component or has an unreadable line.
    """
    code = document["country_code"]
    unknown = [a["component"] for a in document["ask"] if a["component"] not in COMPONENT_SET]
    if unknown:
        raise DocumentError(
            f"layout {code}", [Problem("/ask", f"{u!r} is not a component") for u in unknown]
        )
    languages = tuple(document["languages"])
    regions = tuple(_regions(document))
    return Layout(
        country_code=code,
        names=document.get("names", {}),
        languages=languages,
        components=tuple(
            _components(entry, labels, languages)
            for entry in document["ask"]
            if len(regions) != 1 or entry["component"] not in ("region", "region_code")
        ),
        masks=tuple(str(mask) for mask in document.get("masks", ())),
        regions=regions,
        lines={
            "": tuple(map(read_line, document["lines"])),
            **{
                script: tuple(map(read_line, lines))
                for script, lines in document.get("lines_by_script", {}).items()
            },
        },
        called_unit=read_line(document["called_unit"]) if "called_unit" in document else (),
        source=document["source"],
        confidence=document["confidence"],
        post_of=document.get("post_of", ""),
        postcode_starts=tuple(map(str, document.get("starts", ()))),
        never_first=document.get("never_first", ""),
        postcode_prefixes=tuple(map(str, document.get("prefixes", ()))),
        box=tuple(map(float, document["box"])) if "box" in document else None,  # type: ignore[arg-type]
    )


def _regions(document: Document) -> Iterator[Region]:
    """The regions of a document: `[code, name, name in Latin letters, other names …]`."""
    postcodes = document.get("region_postcodes", {})
    for code, name, *others in document.get("regions", ()):
        yield Region(
            code=str(code),
            name=str(name),
            latin=str(others[0] if others else name),
            also=tuple(map(str, others[1:])),
            postcodes=tuple(map(str, postcodes.get(code, ()))),
        )


def _components(entry: Document, labels: Document, languages: Iterable[str]) -> LayoutComponent:
    component = entry["component"]
    merged = _labels(labels, component, languages)
    return LayoutComponent(
        component, {**merged, **entry.get("label", {})}, bool(entry.get("required"))
    )
