"""The error of a service that cannot start."""


class RunError(Exception):
    """The service cannot be started; the message says what to do."""
