"""Rows become the arrays of an edition: once for each edition, in a process of its own.

`table` keeps the rows, `order` puts them in the order of the addresses, `nodes` groups them into
streets, postcodes, towns …, `words`, `numbers`, `typos` and `heads` make the lists that searches
read, `spellings` what differs in other languages. `build` puts all of it together.
"""
