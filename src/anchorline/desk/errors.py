"""Why the agent cannot run: one root, each with a sentence that names the remedy."""


class DeskError(Exception):
    """The agent cannot do this here.

    NoDisplayError: no display, or Wayland's; HotkeyTakenError: another program has the key;
    NoBusError: programs cannot be asked for their fields.
    """


class NoDisplayError(DeskError):
    """There is no X display that can be used."""


class HotkeyTakenError(DeskError):
    """The key cannot be had."""


class NoBusError(DeskError):
    """There is no accessibility bus."""
