"""Use cases: what can be done with forms, layouts, targets, records and addresses, whoever asks.

A function takes the services, the caller and values of the core, and gives values of the core or
raises an error of `errors`, of the store or of the core. Nothing here knows of HTTP, of the wire or
of a command line: routes parse, call one of these and answer; jobs call the same ones.
"""
