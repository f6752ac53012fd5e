"""The shipped layouts, read from the files in `data/`."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import lru_cache
from importlib import resources
from typing import Any

import yaml

from ..address import COMPONENT_SET
from ..errors import DocumentError, Problem, UnknownNameError
from .model import Asked, Layout, Region
from .notation import read_line


class LayoutLibrary:
    """Layouts by country code."""

    def __init__(self, layouts: Iterable[Layout]) -> None:
        self._by_code = {layout.country_code: layout for layout in layouts}

    def __iter__(self) -> Iterator[Layout]:
        return iter(self._by_code.values())

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
    labels = yaml.safe_load((folder / "labels.yaml").read_text("utf-8"))
    names = sorted(entry.name for entry in folder.iterdir() if len(entry.name) == len("GB.yaml"))
    return LayoutLibrary(
        read_layout(yaml.safe_load((folder / name).read_text("utf-8")), labels) for name in names
    )


def read_layout(document: dict[str, Any], labels: dict[str, dict[str, str]]) -> Layout:
    """A layout from its document, with the labels it does not give taken from `labels`.

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
    return Layout(
        country_code=code,
        names=document["names"],
        languages=languages,
        asked=tuple(_asked(entry, labels, languages) for entry in document["ask"]),
        masks=tuple(str(mask) for mask in document.get("masks", ())),
        regions=tuple(
            Region(str(r[0]), str(r[1]), str(r[-1])) for r in document.get("regions", ())
        ),
        lines={
            "": tuple(map(read_line, document["lines"])),
            **{
                script: tuple(map(read_line, lines))
                for script, lines in document.get("lines_by_script", {}).items()
            },
        },
        source=document["source"],
        box=tuple(map(float, document["box"])) if "box" in document else None,  # type: ignore[arg-type]
    )


def _asked(
    entry: dict[str, Any], labels: dict[str, dict[str, str]], languages: Iterable[str]
) -> Asked:
    component = entry["component"]
    merged = {
        language: labels[language][component]
        for language in ("en", *languages)
        if component in labels.get(language, {})
    }
    return Asked(component, {**merged, **entry.get("label", {})}, bool(entry.get("required")))
