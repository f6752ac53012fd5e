"""The calls on formulas."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from anchorline.wire.formulas import FormulaFunctions, TryFormulaAnswer, TryFormulaRequest

from .calls import Calls, request_body


class FormulaCalls(Calls):
    """Formulas, as methods of `Client`."""

    def formula_functions(self) -> FormulaFunctions:
        """The functions of formulas, each with a sentence and an example."""
        return self._get("formulas", FormulaFunctions)

    def try_formula(
        self,
        formula: str,
        values: Mapping[str, str | float | bool | None] | None = None,
        slots: Mapping[str, Mapping[str, Any]] | None = None,
    ) -> TryFormulaAnswer:
        """A formula worked out on some values.

        Args:
            formula: OpenFormula, with or without `=`.
            values: by name; a text in ISO 8601 is a date.
            slots: addresses by name: `{"components": {…}, "facts": {"latitude": …}}`.
        """
        body = request_body(
            TryFormulaRequest, formula=formula, values=dict(values or {}), slots=dict(slots or {})
        )
        return self._post("formulas/try", TryFormulaAnswer, body)
