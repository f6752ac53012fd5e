"""The desktop agent: it writes an address into whatever program has the focus.

`x11` knows the screen and the keyboard, `accessible` what programs tell of themselves, `window`
is what the person sees, `agent` ties them to a service. What to write, and when to stop, is the
core's.
"""

# Loaded before Qt, which looks into modules while they load: pydantic's cannot be looked into then.
from anchorline.client import programs as _programs  # noqa: F401
from anchorline.client import targets as _targets  # noqa: F401
