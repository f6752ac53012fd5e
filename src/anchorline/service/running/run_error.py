"""The error of a start that cannot be."""


class RunError(Exception):
    """The service cannot be started; the message says what to do."""
