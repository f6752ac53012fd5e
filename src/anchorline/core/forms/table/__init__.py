"""A form for the rows of a table: what its columns are taken for, each with the reason.

`columns` reads the head and the first rows; `address_columns` recognises columns of addresses by
their names, in every language that layouts have labels in; `value_types` guesses types from
values; `proposal` makes the document.
"""

from .columns import TableError
from .proposal import Guess, Proposal, propose

__all__ = ["Guess", "Proposal", "TableError", "propose"]
