"""Building the arrays of an edition from its rows: once for each edition, in its own process.

`table` holds the rows as columns, `order` sorts them, `nodes` groups them into streets, postcodes
and towns, `words`, `numbers`, `typos` and `heads` make the lists that searches read,
`alternate_names` collects the names in other languages. `build` calls all of these.
"""
