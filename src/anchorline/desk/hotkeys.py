"""The key that opens the finder, as it is written down."""

from __future__ import annotations

from anchorline.core.targets.programs.keys import Chord, KeyNameError, read_chord

from .errors import HotkeyTakenError


def read_hotkey(text: str) -> Chord:
    """The key; HotkeyTakenError where it is none, or one that is needed for typing."""
    try:
        chord = read_chord(text)
    except KeyNameError as error:
        raise HotkeyTakenError(str(error)) from None
    if not chord.held and not chord.key.startswith("F"):
        raise HotkeyTakenError(
            f"{chord} alone is needed for typing: hold a key with it, such as Ctrl+Alt+A."
        )
    return chord
