"""Finding what was typed in one edition.

`interpretations` are what the typed tokens may be taken for, `terms` the words and numbers that a
token stands for, `candidates` the nodes that have all terms, `suggestions` the rows made of nodes,
`opening` the rows inside a group. `search` tries interpretations until one finds something;
`correcting`, `misspelt`, `typos` and `in_part` are for texts with mistakes.
"""
