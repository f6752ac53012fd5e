"""The options that every bench has."""

from __future__ import annotations

import argparse
from pathlib import Path

FOLDER = Path("var/bench")
SIZES = {"10k": 10_000, "100k": 100_000, "1m": 1_000_000, "10m": 10_000_000}


def parser(about: str | None) -> argparse.ArgumentParser:
    """A parser with `--size` and `--seed`; `about` is the bench's own docstring."""
    made = argparse.ArgumentParser(description=about, formatter_class=argparse.RawTextHelpFormatter)
    made.add_argument("--size", choices=SIZES, default="1m")
    made.add_argument("--seed", type=int, default=2026)
    return made
