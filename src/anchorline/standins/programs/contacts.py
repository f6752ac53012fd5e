"""A contact window with five fields, whose title names the contact."""

from __future__ import annotations

from .state import read_state
from .tk_form import TkField, TkForm

FIELDS = (
    TkField("line1", "Address line 1"),
    TkField("line2", "Address line 2"),
    TkField("town", "Town"),
    TkField("postcode", "Postcode"),
    TkField("country", "Country"),
)


def main() -> None:
    """Shows the window."""
    state = read_state(__doc__ or "", tuple(one.key for one in FIELDS))
    TkForm(f"Contact {state.number} - Ada Byrne", "Ada Byrne", FIELDS, state).run()


if __name__ == "__main__":
    main()
