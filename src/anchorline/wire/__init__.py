"""The schemas of requests and responses: one definition for the service and its client.

`base` says how strict they are; the other modules hold one area each.
"""
