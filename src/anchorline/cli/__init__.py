"""The command line: `anchorline`. It speaks to a service through the client and to nothing else."""

from .main import main

__all__ = ["main"]
