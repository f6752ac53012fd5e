"""A window with the firm first, and two other fields between the parts of its address."""

from __future__ import annotations

from .state import read_state
from .tk_form import TkField, TkForm

FIELDS = (
    TkField("firm", "Firm"),
    TkField("line1", "Street and number"),
    TkField("phone", "Telephone"),
    TkField("email", "E-mail"),
    TkField("line2", "Unit and building"),
    TkField("postcode", "Postcode"),
    TkField("town", "Town"),
    TkField("country", "Country"),
)


def main() -> None:
    """Shows the window."""
    state = read_state(__doc__ or "", tuple(one.key for one in FIELDS))
    TkForm(f"Firm {state.number}", "A customer firm", FIELDS, state).run()


if __name__ == "__main__":
    main()
