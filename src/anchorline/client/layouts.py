"""The calls on country layouts."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from anchorline.wire.layouts import (
    MOST_ADDRESSES,
    CheckComponentsAnswer,
    CheckComponentsRequest,
    LayoutAnswer,
    LayoutList,
    LinesAnswer,
    LinesRequest,
    ManyLinesAnswer,
    ManyLinesRequest,
)
from anchorline.wire.own_layouts import SamplesAnswer

from .calls import Calls, part, request_body


class LayoutCalls(Calls):
    """Country layouts, as methods of `Client`."""

    def layouts(self) -> LayoutList:
        """The countries that have a layout."""
        return self._get("layouts", LayoutList)

    def layout(
        self, country_code: str, *, language: str = "en", form: str | None = None
    ) -> LayoutAnswer:
        """A country's layout, as it holds on a form or everywhere."""
        query = {"language": language, "form": form}
        return self._get(f"layouts/{part(country_code)}", LayoutAnswer, query)

    def lines(
        self,
        country_code: str,
        components: Mapping[str, str],
        *,
        international: bool = False,
        from_country: str | None = None,
        form: str | None = None,
    ) -> LinesAnswer:
        """Components written out in the country's lines.

        Args:
            international: for mail from abroad: the country's name comes last.
            from_country: where that is posted, so that the name is in a language read there.
            form: as it is written on this form.
        """
        body = request_body(
            LinesRequest,
            components=dict(components),
            international=international,
            from_country=from_country,
            form=form,
        )
        return self._post(f"layouts/{part(country_code)}/lines", LinesAnswer, body)

    def many_lines(
        self,
        addresses: Sequence[Mapping[str, str]],
        *,
        international: bool = False,
        from_country: str | None = None,
        form: str | None = None,
    ) -> list[list[str]]:
        """The lines of many addresses, each with its `country_code`; in calls of a thousand."""
        written: list[list[str]] = []
        for start in range(0, len(addresses), MOST_ADDRESSES):
            some = addresses[start : start + MOST_ADDRESSES]
            body = request_body(
                ManyLinesRequest,
                addresses=[dict(address) for address in some],
                international=international,
                from_country=from_country,
                form=form,
            )
            written += self._post("layouts/lines", ManyLinesAnswer, body).lines
        return written

    def check(
        self, country_code: str, components: Mapping[str, str], *, form: str | None = None
    ) -> CheckComponentsAnswer:
        """Components held against the country's layout, as it holds on a form or everywhere."""
        body = request_body(CheckComponentsRequest, components=dict(components), form=form)
        path = f"layouts/{part(country_code)}/check"
        return self._post(path, CheckComponentsAnswer, body)

    def samples(self, country_code: str, *, form: str | None = None) -> SamplesAnswer:
        """Addresses to try a layout with: of the latest records, and of the reference data."""
        path = f"layouts/{part(country_code)}/samples"
        return self._get(path, SamplesAnswer, {"form": form})
