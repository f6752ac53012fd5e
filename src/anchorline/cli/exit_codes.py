"""Exit codes: one for each kind of error, whichever command it is."""

from __future__ import annotations

import click

FAILED = 1  # the service failed, or what was asked does not go now
GIVEN_WRONG = 2  # an argument, a file or a line on the input; click's own code for usage
NOTHING_FOUND = 3
UNREACHABLE = 4  # or not connected
REFUSED = 5  # the key is missing, wrong, or not enough


class GivenWrongError(click.ClickException):
    """What was given, in a file or on the input, cannot be used; the message says why."""

    exit_code = GIVEN_WRONG
