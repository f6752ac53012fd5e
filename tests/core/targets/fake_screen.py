"""Hands that write into a list of fields: a screen without a screen."""

from dataclasses import dataclass, field

from anchorline.core.targets.programs import Fact, Look, StopRun


@dataclass
class FakeScreen:
    """A window with fields, of which one has the focus.

    `widths`: a full field passes the focus on. `stops`: after so many keys, a kind of stop.
    """

    fields: list[str]
    names: list[str] = field(default_factory=list)
    widths: list[int | None] = field(default_factory=list)
    stops: dict[int, str] = field(default_factory=dict)
    readable: bool = True
    at: int = 0
    keys: int = 0
    facts: tuple[Fact, ...] = ()
    selected: bool = False
    ways: list[str] = field(default_factory=list)
    waited: float = 0

    def _key(self):
        self.keys += 1
        if kind := self.stops.pop(self.keys, None):
            raise StopRun(kind, f"It stopped: {kind}.")

    def press(self, chord):
        self._key()
        name = str(chord)
        if name == "Tab":
            self.at = (self.at + 1) % len(self.fields)
        elif name == "Shift+Tab":
            self.at = (self.at - 1) % len(self.fields)
        elif name == "Return":
            self.fields[self.at] += "\n"

    def write(self, text, way):
        self.ways.append(way)
        for place, sign in enumerate(text):
            try:
                self._key()
            except StopRun as stop:
                stop.written = place
                raise
            self.fields[self.at] += sign
            width = self.widths[self.at] if self.widths else None
            if width and len(self.fields[self.at]) >= width:
                self.at = (self.at + 1) % len(self.fields)

    def clear(self, chords):
        self._key()
        before, self.fields[self.at] = self.fields[self.at], ""
        return before if self.readable else None

    def focused_field(self):
        return self.names[self.at] if self.names else None

    def read_field(self, select):
        return self.fields[self.at] if self.readable else None

    def look(self):
        return Look(self.facts)

    def screen_text(self):
        return "\n".join(self.fields) if self.readable else None

    def pause(self, seconds):
        self.waited += seconds
