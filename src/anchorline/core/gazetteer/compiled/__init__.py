"""What every search spends its time in, compiled with Cython; types stand beside each module.

`pools` and `textrows` read texts, `nodelists` the lists of nodes of words and numbers, `bitmaps`
keeps the longest of them as bits, `readyterms` makes terms ready for them, `nodelook` looks for
terms in a node and weighs it, `nodescan` goes through many nodes, `inside` tells a node's
addresses apart, and `edits` counts the edits between words.
"""
