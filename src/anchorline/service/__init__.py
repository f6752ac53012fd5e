"""The service: Flask in front of the core and the store.

`app` makes the application; `endpoints` is how every API call is declared, checked and
answered; each area (finding, layouts, forms, records, session) declares its own. `pages` serves
the public forms and the console, `running` starts and supervises it all.
"""
