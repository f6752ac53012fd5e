"""The service: Flask in front of the core and the store.

`app` makes the application; `endpoints` is how every API call is declared, checked and
answered, and each of the `areas` declares its own. `edge` and `short_way` stand before the
application. `pages` serves the public forms and the console, `loading` works on datasets outside
of requests, `running` starts and supervises it all.
"""
