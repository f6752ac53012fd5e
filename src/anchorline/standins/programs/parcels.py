"""A contact window that asks a question in the middle: whether a town may be new."""

from __future__ import annotations

from tkinter import messagebox

from .state import read_state
from .tk_form import TkField, TkForm

FIELDS = (
    TkField("line1", "Street"),
    TkField("line2", "More"),
    TkField("town", "Town"),
    TkField("postcode", "Postcode"),
    TkField("country", "Country"),
)


def main() -> None:
    """Shows the window; leaving the town's field brings the question once for each new town."""
    state = read_state(__doc__ or "", tuple(one.key for one in FIELDS))
    form = TkForm(f"Parcel {state.number}", "A parcel", FIELDS, state)
    known = {"", state.values["town"]}

    def ask(_event: object) -> None:
        town = form.text("town")
        if town not in known:
            known.add(town)
            messagebox.showinfo("New town", f"The town “{town}” is new here.")

    form.inputs["town"].bind("<FocusOut>", ask)
    form.run()


if __name__ == "__main__":
    main()
