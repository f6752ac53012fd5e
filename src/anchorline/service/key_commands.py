"""The operator's commands on keys: make, list, end."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Sequence
from datetime import UTC, datetime

from anchorline.core.errors import nearest_names, unknown_name_detail
from anchorline.core.keys import WantedKey, checked_key
from anchorline.store.keys import ApiKey, KeyStore


def make_key(
    keys: KeyStore, forms: Sequence[str], targets: Sequence[str], given: argparse.Namespace
) -> int:
    """Makes the key that a command line asks for and prints it; returns the exit status.

    Args:
        forms, targets: the keys of all that there are.
    """
    asked = WantedKey(given.kind, given.name, given.scope, given.origin, given.form, given.target)
    wanted, problems = checked_key(asked, forms, targets, datetime.now(UTC))
    if problems:
        print("\n".join(problem.detail for problem in problems), file=sys.stderr)
        return 2
    print(keys.create(wanted).whole)
    return 0


def list_keys(keys: KeyStore) -> int:
    """Prints all keys, without their secrets; returns the exit status."""
    found = keys.list()
    for key in found:
        print(_line(key))
    if not found:
        print("There are no keys yet.", file=sys.stderr)
    return 0


def end_key(keys: KeyStore, identifier: str) -> int:
    """Ends a key for good; returns the exit status."""
    known = {key.id: key for key in keys.list()}
    key = known.get(identifier)
    if key is None:
        nearest = nearest_names(identifier, known)
        print(unknown_name_detail("key", identifier, nearest), file=sys.stderr)
        return 3
    if key.ended:
        print(f"The key {identifier} ({key.name}) was ended before.")
        return 0
    keys.end(identifier)
    print(f"The key {identifier} ({key.name}) is ended: within seconds nobody can use it any more.")
    return 0


def _line(key: ApiKey) -> str:
    made = key.created_at.strftime("%Y-%m-%d %H:%M") if key.created_at else ""
    tied = [f"to {', '.join(key.scopes)}"] if key.scopes else []
    tied += [f"from {', '.join(key.origins)}"] if key.origins else []
    of = [*key.forms, *key.targets]
    tied += [f"for {', '.join(of)}"] if of else []
    state = "ended" if key.ended else "in use"
    return "  ".join([key.id, f"{key.kind:7}", f"made {made} UTC", f"{state:6}", key.name, *tied])
