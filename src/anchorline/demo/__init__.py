"""The demo: a made-up world of addresses, and Brackwater Piano Care, who works in it.

`world` makes the addresses, `scenario` sets up the forms and a few records through the
client, `commands` runs it all. Everything it does to the service it does as any client would.
"""
