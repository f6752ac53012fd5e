"""The desktop agent: it writes an address into whatever program has the focus.

`x11` knows the screen and the keyboard, `accessible` what programs tell of themselves, `window`
is what the person sees, `agent` ties them to a service. What to write, and when to stop, is the
core's.
"""
