"""What this machine is called in looks and reports."""

from __future__ import annotations

import os


def machine_name() -> str:
    """Its name in the network."""
    return os.uname().nodename
