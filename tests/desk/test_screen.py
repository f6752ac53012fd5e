"""Which window is a program's, where a window manager has put another one around it."""

import pytest
from Xlib import X, Xatom, display

from anchorline.desk.x11.screen import Screen


@pytest.fixture
def connection(desktop):
    made = display.Display(desktop.environment["DISPLAY"])
    yield made
    made.close()


def window(connection, parent, title):
    made = parent.create_window(0, 0, 40, 40, 0, X.CopyFromParent)
    made.change_text_property(connection.intern_atom("WM_NAME"), Xatom.STRING, title)
    return made


def test_a_frame_with_a_name_is_not_taken_for_the_program(connection):
    frame = window(connection, connection.screen().root, "Frame")
    program = window(connection, frame, "Contact 7")
    part = window(connection, program, "")
    screen = Screen(connection)
    assert screen.title(screen.top(part.id)) == "Frame", "nobody has said which one is managed"
    state = connection.intern_atom("WM_STATE")
    program.change_property(state, state, 32, [1, 0])
    screen.forget()
    assert screen.top(part.id) == program.id
    assert screen.title(screen.top(program.id)) == "Contact 7"
