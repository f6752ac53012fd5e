"""How commands reach the service: when they ask for it, so that asking for help loads no client."""

from __future__ import annotations

from typing import TYPE_CHECKING

import click

if TYPE_CHECKING:
    from anchorline.client import Client
    from anchorline.client.transport import Transport


class Connect:
    """Opens connections for one command, and closes them at its end."""

    def __init__(self, context: click.Context) -> None:
        self._context = context

    def __call__(self) -> Client:
        """The client, with all calls that there are."""
        from anchorline.client import Client

        return Client(transport=self.transport())

    def transport(self) -> Transport:
        """A connection alone, for a group of calls that is loaded by itself."""
        from anchorline.client.transport import Transport

        from .settings import read_connection

        connection = read_connection()
        opened = Transport(connection.url, connection.key)
        self._context.call_on_close(opened.close)
        return opened
