"""The keyboard: which keys make which characters, and room for those that it lacks.

Characters that no key makes are put on spare key codes, all at once: changed one by one, programs
would still read the old ones. Only the two plain levels of a key are used; whatever needs a third
goes to a spare code as well.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from Xlib import XK, X, Xatom, display

from anchorline.core.targets.programs.keys import Chord

_NAMES = {
    "Backspace": "BackSpace", "PageUp": "Prior", "PageDown": "Next", "Space": "space",
}  # fmt: skip
_HELD = {"Ctrl": "Control_L", "Alt": "Alt_L", "Shift": "Shift_L", "Super": "Super_L"}
# Latin 1 has key symbols of its own; all other characters this many further (X11, appendix A).
_UNICODE = 0x01000000


class KeyboardError(Exception):
    """The keyboard cannot type something; the message says what and why."""


class NoRoomError(KeyboardError):
    """More characters are missing than the keyboard has spare codes."""


@dataclass(frozen=True, slots=True)
class Stroke:
    """A key code, with the codes of those that are held meanwhile."""

    code: int
    held: tuple[int, ...] = ()


class Keyboard:
    """The keyboard of a display as it is now."""

    def __init__(self, connection: display.Display) -> None:
        self._display = connection
        self._low: int = connection.display.info.min_keycode
        self._high: int = connection.display.info.max_keycode
        self._root = connection.screen().root
        # Which codes are borrowed stands on the display itself: whoever comes next can have them.
        self._note = int(connection.intern_atom("_ANCHORLINE_DESK_CODES"))
        self._borrowed: dict[int, str] = {}
        self.load()

    def load(self) -> None:
        """Reads the layout anew."""
        table = self._display.get_keyboard_mapping(self._low, self._high - self._low + 1)
        self._rows: list[list[int]] = [list(row) for row in table]
        self.group = (int(self._display.screen().root.query_pointer().mask) >> 13) & 3
        noted = self._root.get_full_property(self._note, Xatom.CARDINAL)
        ours = set(noted.value) if noted else set()
        self._pool = sorted(
            self._low + at
            for at, row in enumerate(self._rows)
            if not any(row) or self._low + at in ours
        )
        self._strokes: dict[int, Stroke] = {}
        shift = self._code_of("Shift_L")
        first = 2 * self.group
        for level in (0, 1):
            for at, row in enumerate(self._rows):
                code = self._low + at
                symbol = row[first + level] if first + level < len(row) else 0
                if symbol and (level == 0 or symbol != row[first]) and (level == 0 or shift):
                    held = (shift,) if level else ()
                    self._strokes.setdefault(symbol, Stroke(code, held))

    def prepare(self, texts: Iterable[str]) -> None:
        """Makes room for all characters of some texts.

        Raises:
            NoRoomError: more are missing than there are spare codes.
        """
        wanted = {sign for text in texts for sign in text if sign not in "\n\t"}
        missing = sorted(sign for sign in wanted if symbol_of(sign) not in self._strokes)
        if not missing:
            return
        kept = {code: sign for code, sign in self._borrowed.items() if sign in wanted}
        free = [code for code in self._pool if code not in kept]
        if len(missing) > len(free):
            raise NoRoomError(
                f"{len(missing)} characters are on no key, and there is room for {len(free)}."
            )
        self._borrowed = kept | dict(zip(free, missing, strict=False))
        self._write_spare()
        self.load()

    def is_ready_for(self, text: str) -> bool:
        """Whether every character of a text is on a key."""
        return all(symbol_of(sign) in self._strokes for sign in text if sign not in "\n\t")

    def give_back(self) -> None:
        """Empties the spare codes again."""
        if self._pool:
            self._borrowed = {}
            self._write_spare()
            self._root.delete_property(self._note)
            self._display.sync()

    def stroke(self, sign: str) -> Stroke:
        """How a character is typed; KeyboardError where it was not prepared."""
        found = self._strokes.get(symbol_of(sign))
        if found is None:
            raise KeyboardError(f"The keyboard has no key for {sign!r}.")
        return found

    def chord(self, chord: Chord) -> Stroke:
        """How a key with others held is pressed; KeyboardError where it is on no key."""
        name = _NAMES.get(chord.key, chord.key)
        code = self._code_of(name) if len(name) > 1 else self.stroke(name.lower()).code
        held = tuple(self._code_of(_HELD[one]) for one in chord.held)
        if not code or not all(held):
            raise KeyboardError(f"The keyboard has no key for {chord}.")
        return Stroke(code, held)

    def down(self) -> Sequence[int]:
        """Codes of the keys that are held down."""
        bits = self._display.query_keymap()
        return [8 * at + bit for at, byte in enumerate(bits) for bit in range(8) if byte >> bit & 1]

    def is_caps_locked(self) -> bool:
        """Whether Caps Lock is on."""
        return bool(int(self._display.screen().root.query_pointer().mask) & X.LockMask)

    def caps_lock(self) -> Stroke | None:
        """The key that switches Caps Lock; None where there is none."""
        code = self._code_of("Caps_Lock")
        return Stroke(code) if code else None

    def _code_of(self, name: str) -> int:
        return int(self._display.keysym_to_keycode(XK.string_to_keysym(name)))

    def _write_spare(self) -> None:
        width = len(self._rows[0])
        for code in self._pool:
            sign = self._borrowed.get(code)
            self._rows[code - self._low] = [symbol_of(sign) if sign else 0] * width
        self._root.change_property(self._note, Xatom.CARDINAL, 32, self._pool)
        first, last = self._pool[0], self._pool[-1]
        rows = self._rows[first - self._low : last - self._low + 1]
        self._display.change_keyboard_mapping(first, [tuple(row) for row in rows])
        self._display.sync()


def symbol_of(sign: str) -> int:
    """The key symbol of a character."""
    number = ord(sign)
    return number if 0x20 <= number <= 0x7E or 0xA0 <= number <= 0xFF else _UNICODE + number
