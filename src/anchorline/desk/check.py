"""What the agent needs, and whether it is there: each with a sentence, and the remedy."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from anchorline.client import AnchorlineError, Client

from .accessible.bus import Bus
from .errors import DeskError, HotkeyTakenError, NoBusError
from .hotkeys import read_hotkey
from .x11.hotkey import Hotkey
from .x11.screen import is_wayland, open_display


@dataclass(frozen=True, slots=True)
class Finding:
    """A thing that is needed."""

    is_good: bool
    says: str


def checked(connect: Callable[[], Client], hotkey: str) -> list[Finding]:
    """Everything, in the order in which it is needed."""
    return [*_screen(hotkey), _bus(), _service(connect)]


def _screen(hotkey: str) -> Iterator[Finding]:
    try:
        connection = open_display()
    except DeskError as error:
        yield Finding(False, str(error))
        return
    yield Finding(True, f"The display {connection.get_display_name()} can be written into.")
    if is_wayland():
        yield Finding(
            False,
            "The session is Wayland's: only programs that run on X11 (Xwayland) can be written "
            "into. Log in to an X11 session for all of them.",
        )
    for extension, purpose in (("XTEST", "keys can be sent"), ("X-Resource", "")):
        if not connection.has_extension(extension) and purpose:
            yield Finding(False, f"The display lacks the extension {extension}: no {purpose}.")
    connection.close()
    try:
        Hotkey(open_display(), read_hotkey(hotkey), lambda focus: None).close()  # noqa: ARG005
    except HotkeyTakenError as error:
        yield Finding(False, str(error))
    else:
        yield Finding(True, f"The key {hotkey} is free.")


def _bus() -> Finding:
    try:
        Bus.open().close()
    except NoBusError as error:
        return Finding(False, str(error))
    return Finding(True, "Programs can be asked for their fields (AT-SPI).")


def _service(connect: Callable[[], Client]) -> Finding:
    try:
        published = connect().programs.published()
    except AnchorlineError as error:
        return Finding(False, f"The service cannot be asked: {error}")
    except Exception as error:
        # Not connected yet: the command line has said how.
        return Finding(False, str(error))
    count = len(published)
    return Finding(True, f"The service answers: {count} program target{'s' * (count != 1)}.")
