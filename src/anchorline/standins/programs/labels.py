"""A window whose one line takes the whole address with commas."""

from __future__ import annotations

from .state import read_state
from .tk_form import TkField, TkForm

FIELDS = (TkField("address", "Ship to", width=70), TkField("note", "Note on the label"))


def main() -> None:
    """Shows the window."""
    state = read_state(__doc__ or "", tuple(one.key for one in FIELDS))
    TkForm(f"Label {state.number}", "A label", FIELDS, state).run()


if __name__ == "__main__":
    main()
