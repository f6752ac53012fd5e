"""The service: Flask in front of the core and the store.

`app` makes the application; `endpoints` is how every API call is declared, checked and
answered, and each module of `routes` declares its own. `middleware` and `fast_path` come before the
application. `pages` serves the public forms and the console, `loading` works on datasets outside
of requests, `running` starts and supervises it all.
"""
