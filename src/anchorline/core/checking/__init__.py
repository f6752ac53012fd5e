"""From free text to components."""

from .typed import components_from_text, number_left_over

__all__ = ["components_from_text", "number_left_over"]
