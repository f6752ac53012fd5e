"""The accessibility bus: many questions sent at once, none waited for longer than is borne."""

from __future__ import annotations

import threading
import time
from collections.abc import Sequence
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


class Bus:
    """A connection to the accessibility bus."""

    def __init__(self, connection: DBusConnection) -> None:
        self._connection = connection
        self._pids: dict[str, int] = {}
        self._lock = threading.Lock()

    @classmethod
    def open(cls) -> Bus:
        """The session's accessibility bus, switched on where it was off.

        Raises:
            NoBusError: there is none.
        """
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
            session.send_and_get_reply(on, timeout=_START_SECONDS)
            ask = new_method_call(_BUS, "GetAddress")
            reply = session.send_and_get_reply(ask, timeout=_START_SECONDS)
            if reply.header.message_type is not MessageType.method_return:
                raise NoBusError(f"The accessibility bus does not start: {hint}.")
            bus = cls(open_dbus_connection(str(reply.body[0])))
        except (OSError, ValueError, TimeoutError) as error:
            raise NoBusError(f"The accessibility bus does not answer ({error}): {hint}.") from None
        finally:
            session.close()
        return bus

    def close(self) -> None:
        """Ends the connection."""
        self._connection.close()

    def ask(self, messages: Sequence[Message], seconds: float) -> list[Any]:
        """The answers to some calls, in their order; None for what fails or takes too long."""
        with self._lock:
            return self._ask(messages, seconds)

    def _ask(self, messages: Sequence[Message], seconds: float) -> list[Any]:
        until = time.monotonic() + seconds
        waiting: dict[int, int] = {}
        answers: list[Any] = [None] * len(messages)
        for place, message in enumerate(messages):
            serial = next(self._connection.outgoing_serial)
            self._connection.send(message, serial=serial)
            waiting[serial] = place
        while waiting:
            left = until - time.monotonic()
            if left <= 0:
                break
            try:
                reply = self._connection.receive(timeout=left)
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


# The field of a message's header that says which call it answers (D-Bus specification).
_REPLY_SERIAL = 5
