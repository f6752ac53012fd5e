"""The accessibility bus: many questions sent at once, none waited for longer than is borne."""

from __future__ import annotations

import threading
import time
from collections.abc import Sequence
from contextlib import suppress
from typing import Any

from jeepney import DBusAddress, Message, MessageType, Properties, new_method_call
from jeepney.io.blocking import DBusConnection, open_dbus_connection

from ..errors import NoBusError

_BUS = DBusAddress("/org/a11y/bus", bus_name="org.a11y.Bus", interface="org.a11y.Bus")
_STATUS = DBusAddress("/org/a11y/bus", bus_name="org.a11y.Bus", interface="org.a11y.Status")
_DBUS = DBusAddress(
    "/org/freedesktop/DBus", bus_name="org.freedesktop.DBus", interface="org.freedesktop.DBus"
)
# The session starts it when it is first asked for.
_START_SECONDS = 10.0
_PID_SECONDS = 0.5
# A bus that has ended is looked for again after so long.
_AGAIN_SECONDS = 2.0


class Bus:
    """A connection to the accessibility bus; a new one where the bus has ended and come again."""

    def __init__(self, connection: DBusConnection | None) -> None:
        self._connection = connection
        self._tried = 0.0
        self._pids: dict[str, int] = {}
        self._lock = threading.Lock()

    @classmethod
    def open(cls) -> Bus:
        """The session's accessibility bus, switched on where it was off.

        Raises:
            NoBusError: there is none.
        """
        return cls(_connect(_START_SECONDS))

    def close(self) -> None:
        """Ends the connection."""
        if self._connection is not None:
            self._connection.close()

    def ask(self, messages: Sequence[Message], seconds: float) -> list[Any]:
        """The answers to some calls, in their order; None for what fails or takes too long."""
        with self._lock:
            connection = self._connected(seconds)
            if connection is None:
                return [None] * len(messages)
            try:
                return self._ask(connection, messages, seconds)
            except OSError:
                self._lose()
                return [None] * len(messages)

    def _connected(self, seconds: float) -> DBusConnection | None:
        if self._connection is None and time.monotonic() > self._tried + _AGAIN_SECONDS:
            self._tried = time.monotonic()
            with suppress(NoBusError):
                self._connection = _connect(seconds)
        return self._connection

    def _lose(self) -> None:
        """The bus has ended: its names are nobody's any more."""
        if self._connection is not None:
            self._connection.close()
        self._connection = None
        self._pids.clear()

    def _ask(
        self, connection: DBusConnection, messages: Sequence[Message], seconds: float
    ) -> list[Any]:
        until = time.monotonic() + seconds
        waiting: dict[int, int] = {}
        answers: list[Any] = [None] * len(messages)
        for place, message in enumerate(messages):
            serial = next(connection.outgoing_serial)
            connection.send(message, serial=serial)
            waiting[serial] = place
        while waiting:
            left = until - time.monotonic()
            if left <= 0:
                break
            try:
                reply = connection.receive(timeout=left)
            except TimeoutError:
                break
            place = waiting.pop(reply.header.fields.get(_REPLY_SERIAL, -1), -1)
            if place >= 0 and reply.header.message_type is MessageType.method_return:
                answers[place] = reply.body[0] if len(reply.body) == 1 else reply.body
        return answers

    def pid(self, name: str) -> int:
        """The process of a connection; 0 where that is unknown."""
        if name not in self._pids:
            call = new_method_call(_DBUS, "GetConnectionUnixProcessID", "s", (name,))
            found = int(self.ask([call], _PID_SECONDS)[0] or 0)
            # A bus that was slow to answer is asked again.
            if not found:
                return 0
            self._pids[name] = found
        return self._pids[name]


def _connect(seconds: float) -> DBusConnection:
    """A connection of its own; NoBusError where there is none to be had."""
    hint = "install at-spi2-core, and run in a session with D-Bus"
    try:
        session = open_dbus_connection("SESSION")
    except (OSError, KeyError, ValueError) as error:
        raise NoBusError(
            f"Programs cannot be asked for their fields ({error}): {hint}. Without it windows "
            "are told by their titles, and nothing but keys and pasting is possible."
        ) from None
    try:
        on = Properties(_STATUS).set("IsEnabled", "b", True)
        session.send_and_get_reply(on, timeout=seconds)
        ask = new_method_call(_BUS, "GetAddress")
        reply = session.send_and_get_reply(ask, timeout=seconds)
        if reply.header.message_type is not MessageType.method_return:
            raise NoBusError(f"The accessibility bus does not start: {hint}.")
        return open_dbus_connection(str(reply.body[0]))
    except (OSError, ValueError, TimeoutError) as error:
        raise NoBusError(f"The accessibility bus does not answer ({error}): {hint}.") from None
    finally:
        session.close()


# The field of a message's header that says which call it answers (D-Bus specification).
_REPLY_SERIAL = 5
