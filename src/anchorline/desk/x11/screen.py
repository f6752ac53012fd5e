"""Windows of an X display: which has the focus, what it is called, whose it is."""

from __future__ import annotations

import os
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path

from Xlib import X, Xatom, display, error
from Xlib.ext import res
from Xlib.protocol import event
from Xlib.xobject.drawable import Window

from ..errors import NoDisplayError

# Window types of the window manager's specification (EWMH) that a message or question has.
_DIALOG = "_NET_WM_WINDOW_TYPE_DIALOG"
# What runs programs, and is none itself.
_INTERPRETERS = ("python", "perl", "ruby", "wish", "java", "node", "bash", "sh", "env")
_GONE = (error.BadWindow, error.BadDrawable, error.BadMatch)


@dataclass(frozen=True, slots=True)
class WindowFacts:
    """What a window says of itself; a text is empty where it says nothing."""

    title: str
    window_class: tuple[str, ...]
    is_dialog: bool
    owner: int
    pid: int


def open_display() -> display.Display:
    """The display of the session.

    Raises:
        NoDisplayError: there is none, it is Wayland's, or it lets nobody in.
    """
    if not os.environ.get("DISPLAY"):
        if os.environ.get("WAYLAND_DISPLAY"):
            raise NoDisplayError(
                "This is a Wayland session, in which no program may write into another: log in to "
                "an X11 session, or copy addresses from anchorline find."
            )
        raise NoDisplayError(
            "There is no display: run anchorline desk in a graphical session, or set DISPLAY."
        )
    try:
        return display.Display()
    except (error.DisplayError, OSError) as problem:
        raise NoDisplayError(
            f"The display {os.environ['DISPLAY']} cannot be opened ({problem}): is its server "
            "running, and are you the one who is logged in there?"
        ) from None


def is_wayland() -> bool:
    """Whether the session is Wayland's, with X11 for some programs alone."""
    return os.environ.get("XDG_SESSION_TYPE") == "wayland" or bool(
        os.environ.get("WAYLAND_DISPLAY")
    )


class Screen:
    """Windows, asked over one connection; used by one thread."""

    def __init__(self, connection: display.Display) -> None:
        self.display = connection
        self.root: Window = connection.screen().root
        self._tops: dict[int, int] = {}
        self._has_res = connection.has_extension("X-Resource")

    def atom(self, name: str) -> int:
        """The number of a name."""
        return int(self.display.intern_atom(name))

    def focus(self) -> int:
        """The window with the focus; 0 where none has it, or whatever is under the pointer."""
        found = self.display.get_input_focus().focus
        number = found if isinstance(found, int) else found.id
        return 0 if number in (X.NONE, X.PointerRoot, self.root.id) else number

    def top(self, window: int) -> int:
        """The window of a program that a window is part of; 0 where it is gone."""
        if window == 0:
            return 0
        if window not in self._tops:
            self._tops[window] = self._find_top(window)
        return self._tops[window]

    def forget(self) -> None:
        """Windows may have come and gone: their parents are asked anew."""
        self._tops.clear()

    def front(self) -> int:
        """The program's window that has the focus."""
        return self.top(self.focus())

    def exists(self, window: int) -> bool:
        """Whether a window is there and shown."""
        try:
            state = self._window(window).get_attributes().map_state
        except _GONE:
            return False
        return bool(state == X.IsViewable)

    def facts(self, window: int) -> WindowFacts:
        """What a window says of itself; all empty where it is gone."""
        if window == 0:
            return WindowFacts("", (), False, 0, 0)
        try:
            return self._facts(window)
        except _GONE:
            return WindowFacts("", (), False, 0, 0)

    def title(self, window: int) -> str:
        """The title of a window; empty where it has none, or is gone."""
        try:
            return self._title(self._window(window)) if window else ""
        except _GONE:
            return ""

    def pid(self, window: int) -> int:
        """The process of a window (X-Resource, else what it says); 0 where that is unknown."""
        if self._has_res and window:
            spec = [{"client": window, "mask": res.LocalClientPIDMask}]
            for one in self.display.res_query_client_ids(spec).ids:
                if one.value:
                    return int(one.value[0])
        try:
            said = self._window(window).get_full_property(self.atom("_NET_WM_PID"), Xatom.CARDINAL)
        except _GONE:
            return 0
        return int(said.value[0]) if said else 0

    def protocols(self, window: int) -> list[int]:
        """What a window takes part in (WM_PROTOCOLS), as atoms."""
        try:
            said = self._window(window).get_full_property(self.atom("WM_PROTOCOLS"), Xatom.ATOM)
        except _GONE:
            return []
        return list(said.value) if said else []

    def programs(self) -> list[str]:
        """The programs that have windows, as the window manager lists them; none without one."""
        found = self.root.get_full_property(self.atom("_NET_CLIENT_LIST"), Xatom.WINDOW)
        windows = list(found.value) if found else []
        names = {program_name(self.pid(int(window))) for window in windows}
        return sorted(name for name in names if name)

    def activate(self, window: int, focus: int) -> None:
        """Brings a window to the front, and gives the focus to one in it."""
        try:
            if self._is_managed():
                message = event.ClientMessage(
                    window=self._window(window),
                    client_type=self.atom("_NET_ACTIVE_WINDOW"),
                    data=(32, [2, X.CurrentTime, 0, 0, 0]),
                )
                mask = X.SubstructureRedirectMask | X.SubstructureNotifyMask
                self.root.send_event(message, event_mask=mask)
            else:
                wanted = self._window(focus or window)
                wanted.set_input_focus(X.RevertToParent, X.CurrentTime)
            self.display.sync()
        except _GONE:
            return

    def _is_managed(self) -> bool:
        """Whether a window manager is there."""
        return self.exists_at_all(self._manager())

    def _manager(self) -> int:
        """The window manager's own window, which has the focus where no other has; 0 for none."""
        found = self.root.get_full_property(self.atom("_NET_SUPPORTING_WM_CHECK"), Xatom.WINDOW)
        return int(found.value[0]) if found else 0

    def exists_at_all(self, window: int) -> bool:
        """Whether a window is there, shown or not."""
        if not window:
            return False
        try:
            self._window(window).get_attributes()
        except _GONE:
            return False
        return True

    def geometry(self, window: int) -> tuple[int, int, int, int]:
        """Where a window is on the screen: left, top, width, height in pixels; zeros if gone."""
        try:
            size = self._window(window).get_geometry()
            corner = self.root.translate_coords(window, 0, 0)
        except _GONE:
            return 0, 0, 0, 0
        return int(corner.x), int(corner.y), int(size.width), int(size.height)

    def _window(self, window: int) -> Window:
        made: Window = self.display.create_resource_object("window", window)
        return made

    def _find_top(self, window: int) -> int:
        found, at = 0, window
        try:
            while at not in (0, self.root.id):
                one = self._window(at)
                # Window managers mark what they manage (ICCCM 4.1.3.1); their frames have names.
                if one.get_full_property(self.atom("WM_STATE"), X.AnyPropertyType):
                    return at
                if one.get_wm_class() or self._title(one):
                    found = at
                parent = one.query_tree().parent
                at = parent if isinstance(parent, int) else parent.id
        except _GONE:
            return 0
        found = found or window
        return 0 if found == self._manager() else found

    def _title(self, window: Window) -> str:
        for name in ("_NET_WM_NAME", "WM_NAME"):
            said = window.get_full_property(self.atom(name), X.AnyPropertyType)
            if said and said.value:
                value = said.value
                return value.decode("utf-8", "replace") if isinstance(value, bytes) else str(value)
        return ""

    def _facts(self, window: int) -> WindowFacts:
        one = self._window(window)
        owner = one.get_wm_transient_for()
        owner_id = owner.id if owner and owner.id != self.root.id else 0
        types = one.get_full_property(self.atom("_NET_WM_WINDOW_TYPE"), Xatom.ATOM)
        is_dialog = bool(owner_id) or bool(types and self.atom(_DIALOG) in types.value)
        classes = tuple(dict.fromkeys(text for text in one.get_wm_class() or () if text))
        return WindowFacts(self._title(one), classes, is_dialog, owner_id, self.pid(window))


@lru_cache(maxsize=256)
def program_name(pid: int) -> str:
    """What a process runs: its program, or the script that an interpreter runs."""
    try:
        words = Path(f"/proc/{pid}/cmdline").read_bytes().decode("utf-8", "replace").split("\0")
        name = Path(f"/proc/{pid}/exe").readlink().name.removesuffix(" (deleted)")
    except OSError:
        return ""
    if not name.startswith(_INTERPRETERS):
        return name
    rest = [word for word in words[1:] if word]
    if "-m" in rest and rest.index("-m") + 1 < len(rest):
        return rest[rest.index("-m") + 1].rsplit(".", 1)[-1]
    script = next((word for word in rest if not word.startswith("-")), "")
    return Path(script).stem or name


def in_terminal(pid: int) -> str:
    """The program in the foreground of the terminal that a process shows; empty for none."""
    for child in _children(pid):
        try:
            # After the name in brackets: state, parent, group, session, terminal, foreground group.
            fields = Path(f"/proc/{child}/stat").read_text("utf-8").rpartition(")")[2].split()
        except OSError:
            continue
        foreground = int(fields[5])
        if foreground > 0:
            return program_name(foreground)
    return ""


def _children(pid: int) -> list[int]:
    try:
        text = Path(f"/proc/{pid}/task/{pid}/children").read_text("utf-8")
    except OSError:
        return []
    return [int(word) for word in text.split()]
