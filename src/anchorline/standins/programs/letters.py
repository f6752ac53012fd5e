"""A window with one box of lines for the address, and the postcode apart."""

from __future__ import annotations

from .state import read_state
from .tk_form import TkField, TkForm

FIELDS = (TkField("address", "Address", rows=7), TkField("postcode", "Postcode", width=12))


def main() -> None:
    """Shows the window."""
    state = read_state(__doc__ or "", tuple(one.key for one in FIELDS))
    TkForm(f"Letter {state.number} to nobody yet", "A letter", FIELDS, state).run()


if __name__ == "__main__":
    main()
