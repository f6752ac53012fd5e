"""Finding what was typed in one edition.

`readings` are ways to read the typed tokens, `terms` what a token may stand for, `candidates` the
nodes that have all terms, `members` the rows made of nodes, `opening` those inside a group.
`search` tries readings until one finds something; `correcting`, `misspelt`, `typos` and `in_part`
are for what has mistakes.
"""
