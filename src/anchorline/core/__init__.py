"""Pure computation: no input or output, no clock, no network, no framework.

Everything here works on plain values that are handed in and returns plain values.
The service, the store and the demo are built on it and never the other way round.
"""
