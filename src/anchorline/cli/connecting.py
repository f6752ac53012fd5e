"""How commands get a client: when they ask for one, so that asking for help loads none."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from anchorline.client import Client

Connect = Callable[[], "Client"]
