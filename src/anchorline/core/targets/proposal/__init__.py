"""A target proposed from the fields that are seen: what each is, and why.

`seen` is what a page or a program tells of a field; `meaning` says what one is, `grouping` which
address it belongs to, `rules` how it is filled, `target` makes a document of it all.
"""
